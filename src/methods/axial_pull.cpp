// Axial pull: withdrawal, tie-down, hook, peg, along the line of pull.
#include "common_metrics.h"
#include "tell.h"

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"engagement", "Engagement", "how deep it sits, such as 40 mm", Dimension::length, Of::specimen},
    {"area", "Holding area", "such as of a bond, 400 mm²", Dimension::area, Of::specimen},
    {"weight", "Its own weight", "such as 120 g", Dimension::force, Of::specimen},
    peakInput,
};
constexpr Metric metrics[] = {
    peakRow,
    firstSlipRow,
    stiffnessRow,
    energyRow,
    residualRow,
    {.key = "peak_per_length",
     .title = "Peak per length",
     .noun = "peak force for each length of engagement",
     .dimension = Dimension::stiffness,
     .atEnd = true,
     .more = "is stronger than",
     .less = "is weaker than"},
    {.key = "peak_per_area",
     .title = "Peak per area",
     .noun = "peak force for each area",
     .dimension = Dimension::stress,
     .atEnd = true,
     .more = "is stronger than",
     .less = "is weaker than"},
    {.key = "peak_per_weight",
     .title = "Peak per weight",
     .noun = "peak force for each of its own weight",
     .dimension = Dimension::ratio,
     .atEnd = true,
     .more = "is stronger than",
     .less = "is weaker than"},
    loadAtTravelRow,
    travelAtLoadRow,
    relaxationRow,
    permanentRow,
    afterwardsRow,
};

/// Peak over engagement (N/m), area (Pa) and own weight; the rest from the curve.
/// Nominal values, by definition: load and resistance are taken as spread evenly along the engagement or the
/// area, which holds for comparing pieces of like size and says nothing of the stress at its worst place.
/// Source: Gere & Goodno, Mechanics of Materials, ch. 1 (average stress).
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto peak = tellForceCurve(tell, e);
    tellFromPeak(tell, "peak_per_length", peak, over(e.value("engagement")), "no engagement was entered");
    tellFromPeak(tell, "peak_per_area", peak, over(e.value("area")), "no area was entered");
    tellFromPeak(tell, "peak_per_weight", peak, over(e.value("weight")), "it needs its own weight");
    tellAsked(tell, e);
    return tell.done();
}

void sketch(Easel& e) {
    e.box(40, 96, 200, 40, Tone::band);
    e.box(130, 66, 18, 52);
    e.measure({158, 96}, {158, 118}, "e", "engagement");
    e.force({139, 62}, {139, 22}, "F", "peak");
    e.label({60, 126}, "A", "area");
}

void card(Easel& e) {
    e.box(50, 38, 50, 14);
    e.arrow({48, 45}, {10, 45});
    e.arrow({102, 45}, {140, 45});
}

} // namespace

extern const Method axialPull;
const Method axialPull{"axial-pull",
                       "Axial pull",
                       "Peak, first slip, stiffness, energy and what is still held, along the line of pull.",
                       "A pulling rig and a load cell; a displacement sensor for stiffness and energy.",
                       Action::pull,
                       {sketch, card},
                       inputs,
                       metrics,
                       formulas,
                       Dimension::force,
                       {},
                       "rope wire cord cable strap webbing chain knot splice fitting anchor hook nail screw "
                       "glue adhesive bond weld seam tear tensile strongest"};

} // namespace anvil::methods
