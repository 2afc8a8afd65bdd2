// Swinging hammer: the energy a piece swallows in breaking.
#include "common_metrics.h"
#include "tell.h"

#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"breadth", "Breadth", "of the section that breaks", Dimension::length, Of::specimen, Form::repeated},
    {"depth", "Depth", "likewise", Dimension::length, Of::specimen, Form::repeated},
    {.key = "mass",
     .title = "Hammer",
     .hint = "its mass, such as 2 kg",
     .dimension = Dimension::mass,
     .needed = true,
     .stays = true},
    {.key = "from",
     .title = "Let go at",
     .hint = "such as 600 mm, or 90°",
     .needed = true,
     .orElse = Dimension::angle,
     .stays = true,
     .orElseBy = "arm"},
    {.key = "to",
     .title = "Rose to",
     .hint = "such as 210 mm, or 40°",
     .needed = true,
     .mayBeZero = true,
     .orElse = Dimension::angle,
     .orElseBy = "arm"},
    {.key = "free",
     .title = "Rises freely to",
     .hint = "without a piece; empty: no loss",
     .orElse = Dimension::angle,
     .stays = true,
     .orElseBy = "arm"},
    {.key = "arm", .title = "Length of its arm", .hint = "where angles are read", .stays = true},
};
constexpr Metric metrics[] = {
    {.key = "energy",
     .title = "Energy swallowed",
     .noun = "energy swallowed",
     .dimension = Dimension::energy,
     .atEnd = true,
     .more = "swallows more than",
     .less = "swallows less than"},
    {.key = "energy_per_area",
     .title = "Energy per area",
     .noun = "energy swallowed for each area",
     .dimension = Dimension::energyPerArea,
     .atEnd = true,
     .more = "swallows more than",
     .less = "swallows less than"},
};

/// The height an entry stands for: itself, or R(1 − cos θ) of an angle. Error: an angle without an arm.
Expected<std::optional<double>> heightOf(const Evidence& e, const char* key) {
    const auto at = e.inputs.find(key);
    if (at == e.inputs.end()) return std::optional<double>{};
    const bool angle = at->second.unit && at->second.unit->dimension == Dimension::angle;
    if (!angle) return std::optional(at->second.si);
    const auto arm = e.value("arm");
    if (!arm) return fail("An angle needs the length of the hammer's arm.");
    if (std::abs(at->second.si) > std::numbers::pi) return fail("A hammer swings through 180° at most.");
    return std::optional(*arm * (1 - std::cos(at->second.si)));
}

/// E = m·g·(h₀ − h₁) less what a free swing loses, m·g·(h₀ − h_free).
/// Valid for a mass at the end of its arm (else m is the mass reduced to there), and a free swing from the
/// same height; what the broken piece carries away is counted as swallowed. Source: Dowling, Mechanical
/// Behavior of Materials, ch. 4 (notch-impact tests).
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto mass = e.value("mass");
    const auto from = heightOf(e, "from"), to = heightOf(e, "to"), free = heightOf(e, "free");
    for (const auto* h : {&from, &to, &free})
        if (!*h) return tl::unexpected(h->error());
    if (!mass || !*from || !*to) {
        for (const auto& m : method.metrics)
            tell.without(m.key, "it needs the hammer's mass, and where it was let go and rose to");
        return tell.done();
    }
    if (!(**from > 0)) return fail("A hammer needs a mass and a height above zero.");
    const double freely = free->value_or(**from);
    if (**to > freely)
        return fail(
            "The hammer rose higher than it does without a piece: energy cannot come out of one. Check the "
            "heights and their units.");
    if (freely > **from) return fail("A free swing cannot rise higher than it was let go.");
    const double energy = *mass * g0 * (freely - **to);
    const bool stopped = **to <= 0 && e.bound == stats::Bound::exact;
    const stats::Value value{energy, stopped ? stats::Bound::above : e.bound, energy};
    tell.number("energy", value);
    if (stopped) tell.bound("energy", BoundBy::hammerStopped);
    const auto breadth = e.value("breadth"), depth = e.value("depth");
    if (breadth && depth) tell.number("energy_per_area", times(value, 1 / (*breadth * *depth)));
    tell.without("energy_per_area", "it needs breadth and depth of the section");
    if (stopped) tell.note("The hammer was stopped: it swallowed all there was.");
    tell.note(fmt::format("Of {} that the hammer had.",
                          quantity::withUnit(*mass * g0 * **from, quantity::unit("J"))));
    return tell.done();
}

void sketch(Easel& e) {
    e.line({150, 10}, {60, 66}, Tone::ground, 2);
    e.line({150, 10}, {150, 118}, Tone::ground, 1, Stroke::dashed);
    e.line({150, 10}, {226, 88}, Tone::ground, 2, Stroke::dashed);
    e.box(44, 60, 26, 22);
    e.box(214, 82, 26, 22, Tone::band);
    e.box(144, 112, 12, 34, Tone::second);
    e.line({20, 146}, {280, 146}, Tone::ground, 1.5);
    e.measure({30, 74}, {30, 146}, "h0", "from");
    e.measure({256, 96}, {256, 146}, "h1", "to", true);
    e.label({76, 98}, "m", "mass");
    e.label({112, 30}, "R", "arm", Beside::left);
}

void card(Easel& e) {
    e.line({40, 8}, {104, 54}, Tone::ground, 2);
    e.box(96, 48, 22, 22);
    e.arrow({130, 30}, {120, 48});
    e.box(60, 60, 10, 24, Tone::second);
}

} // namespace

extern const Method hammer;
const Method hammer{"hammer",
                    "Swinging hammer",
                    "Energy swallowed in breaking.",
                    "Hammer mass, drop and rise heights or angles, the free swing.",
                    Action::swing,
                    {sketch, card},
                    inputs,
                    metrics,
                    formulas,
                    {},
                    "Heights are of the hammer's centre of mass above its lowest point.",
                    "impact brittle plastic swing pendulum snap blow shatter tough cold"};

} // namespace anvil::methods
