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
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    const auto peak = tellForceCurve(tell, e);
    const auto width = e.value("width"), overlap = e.value("overlap");
    tellFromPeak(tell, "shear_strength", peak, width && overlap ? over(*width * *overlap) : std::nullopt,
                 "it needs width and overlap");
    tellAsked(tell, e);
    return tell.done();
}

void sketch(Easel& e) {
    e.box(20, 78, 160, 12);
    e.box(120, 92, 160, 12, Tone::second);
    e.measure({120, 116}, {180, 116}, "o", "overlap");
    e.force({280, 98}, {298, 98}, "F", "peak", Beside::left);
    e.arrow({20, 84}, {2, 84});
    e.label({60, 70}, "w", "width");
}

void card(Easel& e) {
    e.box(20, 34, 70, 10);
    e.box(60, 46, 70, 10, Tone::second);
    e.arrow({18, 39}, {2, 39});
    e.arrow({132, 51}, {148, 51});
}

} // namespace

extern const Method lapShear;
const Method lapShear{"lap-shear",
                      "Shear of a joint",
                      "Shear stress of a bond at failure.",
                      "Overlap and width of every piece.",
                      Action::shear,
                      {sketch, card},
                      inputs,
                      metrics,
                      formulas,
                      Dimension::force,
                      {},
                      "glue adhesive bond tape rivet overlap joint weld sheet shear"};

} // namespace anvil::methods
