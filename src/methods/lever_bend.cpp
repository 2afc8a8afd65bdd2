// Weight on a lever arm: the moment at which a tube or bar gives way.
#include "common_metrics.h"
#include "ladder.h"

#include <algorithm>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"diameter", "Diameter", "of a tube or round bar", Dimension::length, Of::specimen, Form::repeated},
    {"wall", "Wall", "of a tube", Dimension::length, Of::specimen, Form::repeated},
    {"breadth", "Breadth", "of a flat bar, across the load", Dimension::length, Of::specimen, Form::repeated},
    {"depth", "Depth", "of a flat bar, along the load", Dimension::length, Of::specimen, Form::repeated},
    {.key = "own_moment",
     .title = "Moment of arm and fixture",
     .hint = "what they add by themselves",
     .dimension = Dimension::torque,
     .mayBeZero = true,
     .stays = true},
    {"steps", "Steps", "each weight and distance, and whether it held", Dimension::force, Of::pull,
     Form::steps, true},
};
constexpr Metric metrics[] = {
    momentRow,
    {.key = "bending_stress",
     .title = "Bending stress",
     .noun = "bending stress at failure",
     .dimension = Dimension::stress,
     .atEnd = true,
     .more = "is stronger than",
     .less = "is weaker than"},
    afterwardsRow,
};

/// c/I of the section, m⁻³: tube I = π(D⁴ − d⁴)/64, c = D/2; rectangle I = bd³/12, c = d/2. Error: a wall
/// thicker than the tube's radius.
Expected<std::optional<double>> outerFibre(const Evidence& e) {
    const auto diameter = e.value("diameter"), wall = e.value("wall"), b = e.value("breadth"),
               d = e.value("depth");
    if (diameter) {
        const double inner = wall ? *diameter - 2 * *wall : 0;
        if (inner < 0) return fail("The wall is thicker than half the tube.");
        const double i = std::numbers::pi * (std::pow(*diameter, 4) - std::pow(inner, 4)) / 64;
        return std::optional(*diameter / 2 / i);
    }
    if (b && d) return std::optional(6 / (*b * *d * *d));
    return std::optional<double>{};
}

/// M = W·a + the own moment of arm and fixture; σ = M·c/I.
/// Valid while the section stays elastic and plane; after yield it is the nominal stress of the elastic
/// formula. Source: Gere & Goodno, Mechanics of Materials, ch. 5 (flexure formula).
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto at = e.steps.find("steps");
    if (at == e.steps.end() || at->second.empty()) {
        for (const auto& m : method.metrics)
            tell.without(m.key, "no step has been taken yet");
        return tell.done();
    }
    if (std::any_of(at->second.begin(), at->second.end(),
                    [](const Step& s) { return !s.distance || !(*s.distance > 0); }))
        return fail("Every step needs a weight and a distance above zero.");
    const double own = e.value("own_moment").value_or(0);
    if (own < 0) return fail("The moment of arm and fixture cannot be below zero.");
    const auto ends = endsOf(
        at->second, [](const Step& s) { return s.load * *s.distance; }, e.bound, own);
    if (!ends) return tl::unexpected(ends.error());
    auto moment = ends->value;
    moment.value += own;
    moment.upper += own;
    tell.number("moment", moment);
    tell.bound("moment", ends->boundBy);
    const auto fibre = outerFibre(e);
    if (!fibre) return tl::unexpected(fibre.error());
    if (*fibre) tell.number("bending_stress", times(moment, **fibre));
    tell.without("bending_stress", "it needs diameter and wall, or breadth and depth");
    for (const auto& n : ends->notes)
        tell.note(n);
    tellAsked(tell, e);
    return tell.done();
}

void sketch(Easel& e) {
    e.box(20, 40, 14, 90, Tone::ground);
    e.box(34, 78, 180, 14);
    e.arrow({206, 94}, {206, 142});
    e.words({212, 138}, "W", Beside::right, Tone::ground);
    e.line({34, 112}, {206, 112});
    e.words({120, 127}, "a", Beside::middle, Tone::ground);
    e.section(true, true);
}

/// An arm held at one end, a weight at the other.
void card(Easel& e) {
    e.box(12, 18, 12, 54, Tone::ground);
    e.curve({{24, 38}, {60, 40}, {96, 46}, {126, 54}}, Tone::piece, 7);
    e.line({120, 56}, {120, 68}, Tone::ground, 2);
    e.box(108, 66, 24, 18, Tone::second);
}

} // namespace

extern const Method leverBend;
const Method leverBend{"lever-bend",
                       "Weight on a lever arm",
                       "The bending moment at which a tube or bar gives way.",
                       "Arm length, weights, and the arm's own moment.",
                       Action::bend,
                       {sketch, card},
                       inputs,
                       metrics,
                       formulas,
                       {},
                       {},
                       "bend weights arm moment cantilever bracket shelf stake rod peg"};

} // namespace anvil::methods
