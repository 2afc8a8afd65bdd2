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
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto rating = e.value("rating");
    if (rating && (*rating < 0 || *rating > 10 || 2 * *rating != std::floor(2 * *rating)))
        return fail("A rating is 0 to 10 in whole or half steps.");
    if (rating) tell.said("rating", *rating);
    tell.without("rating", "nobody has rated it");
    return tell.done();
}

void sketch(Easel& e) {
    e.line({30, 96}, {270, 96}, Tone::ground, 2);
    for (int i = 0; i <= 10; ++i) {
        e.line({30 + 24.0 * i, 90}, {30 + 24.0 * i, 102});
        if (i % 5 == 0) e.words({30 + 24.0 * i, 120}, std::to_string(i), Beside::middle, Tone::ground);
    }
    e.label({150, 70}, "rating", "rating");
}

void card(Easel& e) {
    e.curve({{20, 45}, {50, 26}, {75, 22}, {100, 26}, {130, 45}, {100, 64}, {75, 68}, {50, 64}, {20, 45}},
            Tone::piece, 3);
    e.dot({75, 45}, Dot::disc, 22, Tone::load);
}

} // namespace

extern const Method byEye;
const Method byEye{"by-eye",
                   "Rating by eye",
                   "A judgement on a scale with words for its steps.",
                   "The same eyes for all pieces.",
                   Action::look,
                   {sketch, card},
                   inputs,
                   metrics,
                   formulas,
                   {},
                   "By the same eyes for every piece, and before anybody looks at the other results.",
                   "look rate grade judge rust corrosion finish stain crack wear score appearance"};

} // namespace anvil::methods
