// Drop: the blow of a fall.
#include "common_metrics.h"
#include "tell.h"

#include <algorithm>
#include <anvil/quantity/print.h>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"mass", "Mass", "of what falls", Dimension::mass, Of::specimen},
    {.key = "height", .title = "Dropped from", .hint = "such as 1.2 m", .needed = true, .stays = true},
    {"peak", "Peak deceleration", "such as 85 g0, >200 g0", Dimension::acceleration, Of::pull, Form::one,
     true, true},
    {"hit", "Which hit on this spot", "1, 2, 3 …", Dimension::ratio, Of::pull},
};
constexpr Metric metrics[] = {
    {.key = "peak_deceleration",
     .title = "Peak deceleration",
     .noun = "peak deceleration",
     .dimension = Dimension::acceleration,
     .sense = Sense::less,
     .unit = "g₀",
     .more = "gives a harder blow than",
     .less = "gives a softer blow than"},
    {"severity", "Severity", "severity of the blow", Dimension::time, Sense::less},
    {"pulse_width", "Pulse width", "width of the blow at half its height", Dimension::time},
    {"velocity_change", "Change of velocity", "change of velocity", Dimension::speed, Sense::less},
    {"energy", "Energy of the fall", "energy of the fall", Dimension::energy},
    afterwardsRow,
};

/// What the logged blow says; its peak as it was filtered. A typed peak goes before.
void tellBurst(Tell& tell, const Evidence& e) {
    auto peak = peakOf(e, Dimension::acceleration);
    const auto* burst = e.reading && e.reading->burst ? &*e.reading->burst : nullptr;
    if (burst && !e.has("peak") && peak.value) {
        // A filter overshoots where the sensor topped out: more than it showed is not known.
        const double shown =
            e.bound == stats::Bound::above ? std::min(burst->peak, e.reading->peak.load) : burst->peak;
        *peak.value = {shown, e.bound, shown};
    }
    tell.number("peak_deceleration", peak.value, peak.guess);
    tell.without("peak_deceleration", peak.whyNot);
    if (!burst) {
        for (const char* metric : {"severity", "pulse_width", "velocity_change"})
            tell.without(metric,
                         e.reading ? "its curve is of no deceleration" : "it is read from a logged blow");
        return;
    }
    const auto ended = [&](double v) { return stats::Value{v, e.bound, v}; };
    tell.number("severity", ended(burst->severity));
    tell.number("velocity_change", ended(burst->velocityChange));
    tell.exact("pulse_width", burst->width);
    if (burst->lowPass > 0)
        tell.note(fmt::format("Read behind a low-pass at {:.4g} Hz, forward and backward.", burst->lowPass));
    else
        tell.note("Read as recorded, without a filter.");
    if (e.bound == stats::Bound::above)
        tell.note("The sensor topped out: the blow was harder than it shows.");
}

/// v = √(2gh), told; E = m·g·h: a free fall, without the drag of guide or air.
/// Source: conservation of energy; standard gravity 9.80665 m/s² (CGPM 1901).
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    tellBurst(tell, e);
    const auto height = e.value("height"), mass = e.value("mass");
    if (height && mass) tell.exact("energy", *mass * g0 * *height);
    tell.without("energy", height ? "it needs the mass" : "it needs the height");
    if (height)
        tell.note(fmt::format("It hit at {}.",
                              quantity::withUnit(std::sqrt(2 * g0 * *height), quantity::unit("m/s"))));
    if (const auto hit = e.value("hit"); hit && *hit > 1)
        tell.note(fmt::format("Hit number {:.0f} on this spot: it is no longer fresh.", *hit));
    const auto* burst = e.reading && e.reading->burst ? &*e.reading->burst : nullptr;
    if (height && burst && burst->velocityChange > 2.2 * std::sqrt(2 * g0 * *height))
        tell.note(
            "The blow took away more speed than twice that of the fall: look at the unit of the log and the "
            "height.");
    tellAsked(tell, e);
    return tell.done();
}

void sketch(Easel& e) {
    e.line({20, 146}, {280, 146}, Tone::ground, 4);
    e.box(120, 24, 54, 40);
    e.label({182, 49}, "m", "mass", Beside::right);
    e.arrow({147, 68}, {147, 128});
    e.measure({200, 64}, {200, 146}, "h", "height");
    e.label({70, 130}, "a", "peak");
}

void card(Easel& e) {
    e.box(60, 12, 30, 24);
    e.arrow({75, 40}, {75, 72});
    e.line({30, 80}, {120, 80}, Tone::ground, 3);
}

} // namespace

extern const Method drop;
const Method drop{"drop",
                  "Drop",
                  "Peak deceleration and severity of the shock.",
                  "Drop height, and a fast sensor or a peak reading.",
                  Action::drop,
                  {sketch, card},
                  inputs,
                  metrics,
                  formulas,
                  Dimension::acceleration,
                  "The peak that the sensor or its display showed.",
                  "fall impact shock crash bucket case helmet foam cushion accelerometer"};

} // namespace anvil::methods
