// Axial pull: withdrawal, tie-down, hook, peg, along the line of pull.
#include "common_metrics.h"
#include "tell.h"

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"engagement", "Engagement", "how deep it sits, such as 40 mm", Dimension::length, Of::specimen},
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
};

/// Peak over engagement, N/m; the rest from the curve.
Expected<Measured> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto peak = tellForceCurve(tell, e);
    tellFromPeak(tell, "peak_per_length", peak, over(e.value("engagement")), "no engagement was entered");
    return tell.done();
}

} // namespace

extern const Method axialPull;
const Method axialPull{"axial-pull",
                       "Axial pull",
                       "Peak, first slip, stiffness, energy and what is still held, along the line of pull.",
                       "A pulling rig and a load cell; a displacement sensor for stiffness and energy.",
                       Action::pull,
                       inputs,
                       metrics,
                       formulas,
                       Dimension::force,
                       {},
                       "rope wire cord cable strap webbing chain knot splice fitting anchor hook nail screw "
                       "glue adhesive bond weld seam tear tensile strongest"};

} // namespace anvil::methods
