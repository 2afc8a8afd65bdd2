// Rating by eye: a judgement on a scale with words for its steps.
#include "common_metrics.h"
#include "tell.h"

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"rating", "Rating", "0 to 10, half steps too", Dimension::ratio, Of::pull, Form::one, true, false, true},
};
constexpr Metric metrics[] = {
    {.key = "rating",
     .title = "Rating by eye",
     .noun = "rating",
     .dimension = Dimension::ratio,
     .more = "is rated higher than",
     .less = "is rated lower than",
     .scale = Scale::graded},
};

/// The step of the scale as it was said. Steps have an order and no size: medians and ranks, never means.
/// Source: Stevens, Science 103, 1946 (scales of measurement).
Expected<Measured> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto rating = e.value("rating");
    if (rating && (*rating < 0 || *rating > 10 || 2 * *rating != std::floor(2 * *rating)))
        return fail("A rating is 0 to 10 in whole or half steps.");
    if (rating) tell.said("rating", *rating);
    tell.without("rating", "nobody has rated it");
    return tell.done();
}

} // namespace

extern const Method byEye;
const Method byEye{"by-eye",
                   "Rating by eye",
                   "A judgement on a scale with words for its steps.",
                   "The same eyes for all pieces.",
                   Action::look,
                   inputs,
                   metrics,
                   formulas,
                   {},
                   "By the same eyes for every piece, and before anybody looks at the other results.",
                   "look rate grade judge rust corrosion finish stain crack wear score appearance"};

} // namespace anvil::methods
