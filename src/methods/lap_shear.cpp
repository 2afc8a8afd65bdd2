// Lap shear: two sheets joined over an overlap are drawn apart.
#include "common_metrics.h"
#include "tell.h"

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"width", "Width", "such as 25 mm", Dimension::length, Of::specimen, Form::repeated, true},
    {"overlap", "Overlap", "such as 12.5 mm", Dimension::length, Of::specimen, Form::repeated, true},
    peakInput,
};
constexpr Metric metrics[] = {
    peakRow,
    {.key = "shear_strength",
     .title = "Shear strength",
     .noun = "shear strength of the joint",
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

/// τ = F/(width·overlap), the mean over the overlap.
/// The stress peaks at both ends of the overlap (Volkersen, Luftfahrtforschung 15, 1938): means compare
/// joints of one overlap, and are no strength of the glue. Source: Gere & Goodno, Mechanics of
/// Materials, ch. 1.
Expected<Measured> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto peak = tellForceCurve(tell, e);
    const auto width = e.value("width"), overlap = e.value("overlap");
    tellFromPeak(tell, "shear_strength", peak, width && overlap ? over(*width * *overlap) : std::nullopt,
                 "it needs width and overlap");
    tellAsked(tell, e);
    return tell.done();
}

} // namespace

extern const Method lapShear;
const Method lapShear{"lap-shear",
                      "Shear of a joint",
                      "Shear stress of a bond at failure.",
                      "Overlap and width of every piece.",
                      Action::shear,
                      inputs,
                      metrics,
                      formulas,
                      Dimension::force,
                      {},
                      "glue adhesive bond tape rivet overlap joint weld sheet shear"};

} // namespace anvil::methods
