// Three-point bend: a beam on two supports, pressed at mid-span.
#include "common_metrics.h"
#include "tell.h"

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"span", "Span", "between the supports, such as 160 mm", Dimension::length, Of::specimen, Form::one,
     true},
    {"breadth", "Breadth", "across the load", Dimension::length, Of::specimen, Form::repeated},
    {"depth", "Depth", "along the load", Dimension::length, Of::specimen, Form::repeated},
    {"diameter", "Diameter", "of a round one", Dimension::length, Of::specimen, Form::repeated, true},
    peakInput,
    {"deflection_at_peak", "Deflection at the peak", "at mid-span", Dimension::length, Of::pull},
    {"stiffness", "Stiffness", "where no curve tells it", Dimension::stiffness, Of::pull},
};
constexpr Metric metrics[] = {
    peakRow,
    {.key = "bending_strength",
     .title = "Bending strength",
     .noun = "bending strength",
     .dimension = Dimension::stress,
     .atEnd = true,
     .more = "is stronger than",
     .less = "is weaker than"},
    {.key = "bending_modulus",
     .title = "Bending modulus",
     .noun = "bending modulus",
     .dimension = Dimension::stress,
     .more = "is stiffer than",
     .less = "is less stiff than"},
    {.key = "strain_at_peak",
     .title = "Strain at the peak",
     .noun = "outer strain at the peak",
     .dimension = Dimension::ratio,
     .unit = "%",
     .atEnd = true,
     .more = "bends further than",
     .less = "bends less far than"},
    {.key = "short_beam_shear",
     .title = "Short-beam shear",
     .noun = "shear stress at the middle",
     .dimension = Dimension::stress,
     .atEnd = true,
     .more = "is stronger than",
     .less = "is weaker than"},
    firstSlipRow,
    stiffnessRow,
    energyRow,
    residualRow,
    loadAtTravelRow,
    travelAtLoadRow,
    relaxationRow,
    permanentRow,
};

/// The formulas by section, with the span L: rectangle σ = 3FL/(2bd²), E = kL³/(4bd³), τ = 0.75 F/(bd); round
/// σ = 8FL/(πd³), E = 4kL³/(3πd⁴).
struct Section {
    double depth = 0, stress = 0, modulus = 0; ///< m; Pa for each N; Pa for each N/m
    std::optional<double> shear{};             ///< Pa for each N
};

std::optional<Section> sectionOf(const Evidence& e, double span) {
    const auto b = e.value("breadth"), d = e.value("depth"), round = e.value("diameter");
    const double cube = span * span * span;
    if (b && d)
        return Section{*d, 3 * span / (2 * *b * *d * *d), cube / (4 * *b * *d * *d * *d), 0.75 / (*b * *d)};
    if (!round) return std::nullopt;
    const double r3 = *round * *round * *round;
    return Section{*round, 8 * span / (std::numbers::pi * r3),
                   4 * cube / (3 * std::numbers::pi * r3 * *round)};
}

/// The load as a bound, of what it did not break.
Peak atLeast(Peak peak) {
    if (peak.value && peak.value->bound == stats::Bound::exact) peak.value->bound = stats::Bound::above;
    return peak;
}

/// ε = 6Dd/L² at the outer fibre.
void tellStrain(Tell& tell, const Evidence& e, const std::optional<Section>& section, double span) {
    auto deflection = e.value("deflection_at_peak");
    if (!deflection && e.reading && e.reading->peak.travel) deflection = e.reading->peak.travel;
    if (!deflection) return tell.without("strain_at_peak", "it needs the deflection at the peak");
    if (*deflection > 0.1 * span)
        tell.note(
            "It bent by more than a tenth of its span: the formulas, made for small deflections, are off.");
    if (!section) return;
    const double strain = 6 * *deflection * section->depth / (span * span);
    tell.number("strain_at_peak", stats::Value{strain, e.bound, strain});
}

/// Strength, shear and modulus by the section (see sectionOf), strain ε = 6Dd/L² at the outer fibre.
/// Euler–Bernoulli beam on two supports: valid for spans of 16 depths or more and deflections up to a tenth
/// of the span (both told), while it is elastic; of a shorter beam shear may come first. Source: Gere &
/// Goodno, Mechanics of Materials, ch. 5 and its table of deflections of simple beams.
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    if (auto ok = oneSection(e); !ok) return tl::unexpected(ok.error());
    const auto peak = tellForceCurve(tell, e);
    const auto span = e.value("span");
    const auto section = span ? sectionOf(e, *span) : std::nullopt;
    if (section && section->depth > *span) return fail("The span is shorter than the piece is deep.");
    if (span) tellStrain(tell, e, section, *span);
    if (section) {
        // One load, two strengths: what did not fail is at least what was reached.
        const bool sheared = e.failure == Failure::sheared;
        tellFromPeak(tell, "bending_strength", sheared ? atLeast(peak) : peak, section->stress, "");
        tellFromPeak(tell, "short_beam_shear",
                     sheared || (!e.failureTold && *span < 16 * section->depth) ? peak : atLeast(peak),
                     section->shear, "it is told of a rectangle only");
        if (sheared) tell.bound("bending_strength", BoundBy::shearedFirst);
        if (const auto k = stiffnessOf(e)) tell.exact("bending_modulus", *k * section->modulus);
        tell.without("bending_modulus", "it needs a stiffness: a curve with the deflection");
        if (*span < 16 * section->depth)
            tell.note(
                "The span is less than 16 times the depth: shear bends it too, so the modulus comes out low, "
                "and it may fail by shear first.");
    }
    for (const auto& m : method.metrics)
        if (m.key != "peak" && !m.asked) // what was asked of the curve is told below
            tell.without(m.key, span ? "it needs breadth and depth, or the diameter" : "it needs the span");
    const auto b = e.value("breadth"), d = e.value("depth");
    if (e.failure == Failure::crushed)
        tell.note("It gave way on the side that is pressed: its bending strength is that of crushing.");
    if (e.failure == Failure::sheared)
        tell.note("It sheared along: its bending strength is at least what was reached.");
    if (b && d && *d > 3 * *b)
        tell.note("It is much deeper than broad: are the two swapped? The depth lies along the load.");
    tellAsked(tell, e);
    return tell.done();
}

void sketch(Easel& e) {
    e.curve({{20, 84}, {80, 96}, {110, 98}, {140, 96}, {200, 84}}, Tone::piece, 9);
    e.arrow({40, 138}, {40, 100}, Tone::ground);
    e.arrow({180, 138}, {180, 100}, Tone::ground);
    e.measure({40, 146}, {180, 146}, "L", "span");
    e.force({110, 40}, {110, 88}, "F", "peak");
    e.section(true, true);
}

void card(Easel& e) {
    e.curve({{10, 42}, {45, 48}, {75, 50}, {105, 48}, {140, 42}}, Tone::piece, 7);
    e.arrow({75, 8}, {75, 42});
    e.arrow({18, 84}, {18, 52}, Tone::ground);
    e.arrow({132, 84}, {132, 52}, Tone::ground);
}

} // namespace

extern const Method threePointBend;
const Method threePointBend{"three-point-bend",
                            "Three-point bend",
                            "Bending strength and stiffness of a beam.",
                            "Span, breadth and depth (or diameter); the deflection at mid-span.",
                            Action::bend,
                            {sketch, card},
                            inputs,
                            metrics,
                            formulas,
                            Dimension::force,
                            {},
                            "bend beam slat plank print plastic wood stiffness flexural break strip"};

} // namespace anvil::methods
