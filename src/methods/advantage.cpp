// Mechanical advantage: output over input of a hauling system.
#include "common_metrics.h"
#include "tell.h"

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"ideal", "Ideal advantage", "by counting lines, such as 3", Dimension::ratio, Of::study},
    {"input", "Pulled with", "such as 400 N", Dimension::force, Of::pull, Form::one, true},
    {"output", "Load it moved", "such as 980 N", Dimension::force, Of::pull, Form::one, true},
};
constexpr Metric metrics[] = {
    {"advantage", "Advantage", "mechanical advantage", Dimension::ratio},
    {"efficiency", "Efficiency", "efficiency", Dimension::ratio, Sense::more, "%"},
    peakRow,
};

/// advantage = output/input; efficiency = advantage/ideal.
Expected<Measured> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    tellPeak(tell, e);
    const auto in = e.value("input"), out = e.value("output"), ideal = e.value("ideal");
    if (in && out) {
        tell.exact("advantage", *out / *in);
        if (ideal) {
            tell.exact("efficiency", *out / *in / *ideal);
            if (*out / *in > *ideal)
                tell.note(
                    "It gives more than the ideal: the two readings are not of one steady moment, or a line "
                    "was not counted.");
        }
    }
    tell.without("advantage", "it needs the load at both ends");
    tell.without("efficiency", in && out ? "it needs the ideal advantage" : "it needs the load at both ends");
    return tell.done();
}

} // namespace

extern const Method advantage;
const Method advantage{
    "advantage",
    "Mechanical advantage",
    "Output over input of a hauling system, and its worst device.",
    "Readings at both ends at the same steady moment.",
    Action::share,
    inputs,
    metrics,
    formulas,
    Dimension::force,
    "Both loads at the same steady moment.",
    "pulley tackle block rope reeving hoist winch rigging friction efficiency line tension",
    stats::Family::normal};

} // namespace anvil::methods
