// Drop: the blow of a fall.
#include "common_metrics.h"
#include "tell.h"

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
};

/// v = √(2gh), told; E = m·g·h. What needs the logged burst of the blow stays open.
Expected<Measured> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto peak = peakOf(e, Dimension::acceleration);
    tell.number("peak_deceleration", peak.value, peak.guess);
    tell.without("peak_deceleration", peak.whyNot);
    for (const char* metric : {"severity", "pulse_width", "velocity_change"})
        tell.without(metric, "it is read from a logged blow, which is not done yet");
    const auto height = e.value("height"), mass = e.value("mass");
    if (height && mass) tell.exact("energy", *mass * g0 * *height);
    tell.without("energy", height ? "it needs the mass" : "it needs the height");
    if (height)
        tell.note(fmt::format("It hit at {}.",
                              quantity::withUnit(std::sqrt(2 * g0 * *height), quantity::unit("m/s"))));
    if (const auto hit = e.value("hit"); hit && *hit > 1)
        tell.note(fmt::format("Hit number {:.0f} on this spot: it is no longer fresh.", *hit));
    return tell.done();
}

} // namespace

extern const Method drop;
const Method drop{"drop",
                  "Drop",
                  "Peak deceleration and severity of the shock.",
                  "Drop height, and a fast sensor or a peak reading.",
                  Action::drop,
                  inputs,
                  metrics,
                  formulas,
                  Dimension::acceleration,
                  "The peak that the sensor or its display showed.",
                  "fall impact shock crash bucket case helmet foam cushion accelerometer"};

} // namespace anvil::methods
