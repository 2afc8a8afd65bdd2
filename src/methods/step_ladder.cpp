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
    {.key = "holding",
     .title = "Holding load",
     .noun = "load that was held",
     .dimension = Dimension::force,
     .atEnd = true,
     .more = "holds more than",
     .less = "holds less than"},
    momentRow,
};

/// Between the last load held and the first that failed; with a lever, their moments load × distance. An
/// interval, not its middle (interval censoring: Lawless, Statistical Models and Methods for Lifetime
/// Data, 2.4); earlier steps are taken not to have weakened the piece.
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto at = e.steps.find("steps");
    if (at == e.steps.end() || at->second.empty()) {
        for (const auto& m : method.metrics)
            tell.without(m.key, "no step has been taken yet");
        return tell.done();
    }
    const auto lever = [](const Step& s) { return s.distance && *s.distance > 0; };
    const bool moments = std::all_of(at->second.begin(), at->second.end(), lever);
    if (!moments && std::any_of(at->second.begin(), at->second.end(),
                                [](const Step& s) { return s.distance.has_value(); }))
        return fail("Either every step has a distance above zero, or none has one.");
    const auto ends = endsOf(
        at->second, [](const Step& s) { return s.load * s.distance.value_or(1); }, e.bound);
    if (!ends) return tl::unexpected(ends.error());
    const char* metric = moments ? "moment" : "holding";
    tell.number(metric, ends->value);
    tell.bound(metric, ends->boundBy);
    tell.without(moments ? "holding" : "moment",
                 moments ? "its loads stood on a lever" : "its steps name no distance");
    for (const auto& n : ends->notes)
        tell.note(n);
    return tell.done();
}

void sketch(Easel& e) {
    for (int i = 0; i < 5; ++i)
        e.box(40 + 44.0 * i, 130 - 22.0 * i, 40, 14 + 22.0 * i, i < 4 ? Tone::piece : Tone::failed);
    e.words({192, 36}, "held", Beside::middle, Tone::ground);
    e.words({240, 26}, "failed", Beside::middle, Tone::failed);
}

void card(Easel& e) {
    for (int i = 0; i < 4; ++i)
        e.box(20 + 28.0 * i, 70 - 16.0 * i, 26, 14 + 16.0 * i, i < 3 ? Tone::piece : Tone::failed);
}

} // namespace

extern const Method stepLadder;
const Method stepLadder{"step-ladder",
                        "Step ladder",
                        "The strength lies between the last load held and the first that failed.",
                        "Weights in steps of a tenth or less.",
                        Action::step,
                        {sketch, card},
                        inputs,
                        metrics,
                        formulas,
                        {},
                        {},
                        "weights add step hang gauge no sensor water bucket increments"};

} // namespace anvil::methods
