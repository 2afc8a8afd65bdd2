// Sag under a dead weight: stiffness without breaking anything.
#include "common_metrics.h"
#include "tell.h"

#include <algorithm>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"span", "Span", "between the supports", Dimension::length, Of::specimen},
    {.key = "weight",
     .title = "Weight",
     .hint = "such as 5 kg",
     .dimension = Dimension::force,
     .needed = true,
     .stays = true},
    {"unloaded", "Height unloaded", "such as 412 mm", Dimension::length, Of::pull, Form::one, true, false,
     true},
    {"loaded", "Height loaded", "such as 398 mm", Dimension::length, Of::pull, Form::one, true, false, true},
    {"after", "Height unloaded again", "if it was looked at", Dimension::length, Of::pull, Form::one, false,
     false, true},
};
constexpr Metric metrics[] = {
    {.key = "sag",
     .title = "Sag",
     .noun = "sag",
     .dimension = Dimension::length,
     .sense = Sense::less,
     .more = "sags more than",
     .less = "sags less than"},
    stiffnessRow,
    {.key = "bending_stiffness",
     .title = "Bending stiffness EI",
     .noun = "bending stiffness",
     .dimension = Dimension::bendingStiffness,
     .more = "is stiffer than",
     .less = "is less stiff than"},
    {"permanent_set", "Permanent set", "sag that stayed", Dimension::length, Sense::less},
};

/// δ = height unloaded − height loaded; k = W/δ; EI = W·L³/(48·δ), a beam on two supports with its load at
/// mid-span.
/// Valid for sags up to a tenth of the span (told) and a span of 16 depths or more, where shear adds little.
/// Source: Gere & Goodno, Mechanics of Materials, its table of deflections of simple beams.
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto unloaded = e.value("unloaded"), loaded = e.value("loaded"), weight = e.value("weight"),
               span = e.value("span"), after = e.value("after");
    if (!unloaded || !loaded) {
        for (const auto& m : method.metrics)
            tell.without(m.key, "it needs the height unloaded and loaded");
        return tell.done();
    }
    const double sag = *unloaded - *loaded;
    if (sag < 0)
        return fail(
            "Loaded it stood higher than unloaded: a sag below zero cannot be. Are the two heights swapped?");
    tell.said("sag", sag);
    if (span && sag > 0.1 * *span)
        tell.note("It sagged by more than a tenth of its span: the formula, made for small sags, is off.");
    if (weight && sag > 0) tell.exact("stiffness", *weight / sag);
    tell.without("stiffness", sag > 0 ? "it needs the weight" : "it did not sag");
    if (weight && span && sag > 0)
        tell.exact("bending_stiffness", *weight * *span * *span * *span / (48 * sag));
    tell.without("bending_stiffness", sag > 0 ? "it needs the weight and the span" : "it did not sag");
    if (after) tell.exact("permanent_set", std::max(0.0, *unloaded - *after));
    tell.without("permanent_set", "nobody looked at its height after unloading");
    return tell.done();
}

void sketch(Easel& e) {
    e.line({30, 50}, {270, 50}, Tone::ground, 1, Stroke::dashed);
    e.curve({{30, 50}, {90, 72}, {150, 80}, {210, 72}, {270, 50}}, Tone::piece, 6);
    e.box(136, 84, 28, 22, Tone::second);
    e.label({150, 122}, "W", "weight");
    e.line({20, 150}, {280, 150}, Tone::ground, 3);
    e.measure({60, 50}, {60, 150}, "h0", "unloaded", true);
    e.measure({186, 78}, {186, 150}, "h1", "loaded");
    e.measure({30, 34}, {270, 34}, "L", "span", true);
}

void card(Easel& e) {
    e.curve({{10, 18}, {45, 28}, {75, 31}, {105, 28}, {140, 18}}, Tone::piece, 5);
    e.line({75, 32}, {75, 54}, Tone::ground, 2);
    e.box(62, 54, 26, 20, Tone::second);
}

} // namespace

extern const Method sag;
const Method sag{"sag",
                 "Sag under a dead weight",
                 "Stiffness without breaking anything.",
                 "Heights unloaded and loaded, span and weight.",
                 Action::hang,
                 {sketch, card},
                 inputs,
                 metrics,
                 formulas,
                 {},
                 "Both heights are read off the same mark, so that a height never passes for a sag.",
                 "bend shelf beam stiffness droop deflection plank slat weight",
                 stats::Family::normal};

} // namespace anvil::methods
