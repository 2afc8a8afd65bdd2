// Torsion of a bar: it is twisted until it gives way.
#include "common_metrics.h"
#include "tell.h"
#include <cmath>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"diameter", "Diameter", "such as 8 mm", Dimension::length, Of::specimen, Form::repeated, true},
    {"length", "Free length", "between the grips", Dimension::length, Of::specimen},
    {"peak", "Greatest torque", "such as 9.5 N·m, >12 N·m", Dimension::torque, Of::pull, Form::one, false,
     true},
    {"angle_at_peak", "Angle at the greatest torque", "such as 270°", Dimension::angle, Of::pull},
};
constexpr Metric metrics[] = {
    {.key = "peak_torque",
     .title = "Greatest torque",
     .noun = "greatest torque",
     .dimension = Dimension::torque,
     .atEnd = true,
     .more = "is stronger than",
     .less = "is weaker than"},
    {.key = "shear_stress",
     .title = "Shear stress",
     .noun = "shear stress at the surface",
     .dimension = Dimension::stress,
     .atEnd = true,
     .more = "is stronger than",
     .less = "is weaker than"},
    {.key = "greatest_angle",
     .title = "Angle at the greatest torque",
     .noun = "angle at the greatest torque",
     .dimension = Dimension::angle,
     .unit = "°",
     .atEnd = true,
     .more = "turns further than",
     .less = "turns less far than"},
    {.key = "torque_at_angle",
     .title = "Torque at an angle",
     .noun = "torque at the chosen angle",
     .dimension = Dimension::torque,
     .more = "carries more than",
     .less = "carries less than",
     .asked = true},
    afterwardsRow,
};

/// τ = 16T/(πd³) at the surface of a round bar that is still elastic; beyond, the true stress is lower
/// (told). Source: Gere & Goodno, Mechanics of Materials, ch. 3 (torsion formula).
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto peak = peakOf(e, Dimension::torque);
    tell.number("peak_torque", peak.value, peak.guess);
    tell.without("peak_torque", peak.whyNot);
    const auto d = e.value("diameter");
    const auto modulus = d ? std::optional(std::numbers::pi * *d * *d * *d / 16) : std::nullopt; // m³
    tellFromPeak(tell, "shear_stress", peak, over(modulus), "it needs the diameter");
    if (modulus && peak.value)
        tell.note("The stress is that of the elastic formula: where the bar yields before its greatest "
                  "torque the true "
                  "one is lower.");
    auto angle = e.value("angle_at_peak");
    const bool turned =
        e.reading && e.reading->loadKind == Dimension::torque && e.reading->travelKind == Dimension::angle;
    if (!angle && turned) angle = e.reading->peak.travel;
    if (angle) tell.number("greatest_angle", stats::Value{*angle, e.bound, *angle});
    tell.without("greatest_angle", "no angle was entered or logged");
    tellAsked(tell, e);
    if (turned && e.reading->loadAtTravel && !e.reading->loadAtTravel->value)
        tell.note("The chosen angle was not reached.");
    return tell.done();
}

void sketch(Easel& e) {
    e.box(30, 70, 16, 40, Tone::ground);
    e.box(46, 82, 150, 16);
    std::vector<At> turn;
    for (int i = 0; i <= 20; ++i) {
        const double a = -1.2 + i / 20.0 * 3.4;
        turn.push_back({196 + 12 * std::cos(a), 90 + 30 * std::sin(a)});
    }
    e.curve(turn, Tone::load, 2.2);
    e.label({214, 70}, "T", "peak", Beside::right);
    e.label({214, 120}, "φ", "angle_at_peak", Beside::right);
    e.measure({46, 122}, {196, 122}, "l", "length");
    e.section(false, true);
}

void card(Easel& e) {
    e.box(66, 20, 18, 50);
    std::vector<At> turn;
    for (int i = 0; i <= 24; ++i) {
        const double a = -0.3 + i / 24.0 * 4.4;
        turn.push_back({75 + 44 * std::cos(a), 45 + 20 * std::sin(a)});
    }
    const auto n = turn.size();
    e.arrow(turn[n - 2], turn[n - 1]);
    e.curve(turn, Tone::load, 2.4);
}

} // namespace

extern const Method torsion;
const Method torsion{"torsion",
                     "Torsion of a bar",
                     "Greatest torque, the shear stress at it, and the angle.",
                     "Diameter, a torque sensor or arm, and an angle.",
                     Action::twist,
                     {sketch, card},
                     inputs,
                     metrics,
                     formulas,
                     Dimension::torque,
                     {},
                     "twist shaft rod tube torque wrench spring stiffness"};

} // namespace anvil::methods
