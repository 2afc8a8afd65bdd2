// Step ladder: a bit more until it lets go.
#include "common_metrics.h"
#include "ladder.h"

#include <algorithm>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"steps", "Steps", "each load, and whether it held", Dimension::force, Of::pull, Form::steps, true, false,
     false, Dimension::ratio},
};
constexpr Metric metrics[] = {
    {"holding", "Holding load", "load that was held", Dimension::force},
};

/// Between the last load held and the first that failed.
Expected<Measured> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto at = e.steps.find("steps");
    if (at == e.steps.end() || at->second.empty()) {
        tell.without("holding", "no step has been taken yet");
        return tell.done();
    }
    if (std::any_of(at->second.begin(), at->second.end(),
                    [](const Step& s) { return s.distance.has_value(); }))
        return fail("A step of this ladder is a load alone; with a lever, take \"Weight on a lever arm\".");
    const auto ends = endsOf(at->second, [](const Step& s) { return s.load; });
    if (!ends) return tl::unexpected(ends.error());
    tell.number("holding", ends->value);
    for (const auto& n : ends->notes)
        tell.note(n);
    return tell.done();
}

} // namespace

extern const Method stepLadder;
const Method stepLadder{"step-ladder",
                        "Step ladder",
                        "The strength lies between the last load held and the first that failed.",
                        "Weights in steps of a tenth or less.",
                        Action::step,
                        inputs,
                        metrics,
                        formulas};

} // namespace anvil::methods
