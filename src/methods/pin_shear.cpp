// Pin shear: a pin, bolt or rivet is cut across in one or two planes.
#include "common_metrics.h"
#include "tell.h"

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"diameter", "Diameter", "such as 4.8 mm", Dimension::length, Of::specimen, Form::repeated, true},
    {"area", "Cross-section", "instead of the diameter", Dimension::area, Of::specimen, Form::one, true},
    {"planes", "Shear planes", "1 or 2", Dimension::ratio, Of::specimen},
    peakInput,
};
constexpr Metric metrics[] = {
    peakRow,
    {.key = "shear_strength",
     .title = "Shear strength",
     .noun = "shear strength",
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

/// τ = F/(m·A) over m planes, one where nobody says.
/// The average over the planes, which are taken to share alike; bending of a loose pin is not in it.
/// Source: Gere & Goodno, Mechanics of Materials, ch. 1 (single and double shear).
Expected<Measured> formulas(const Method& method, const Evidence& e) {
    const double planes = e.value("planes").value_or(1);
    if (planes != 1 && planes != 2) return fail("A pin is sheared in 1 or in 2 planes.");
    Tell tell(method, e);
    if (auto ok = oneSection(e); !ok) return tl::unexpected(ok.error());
    const auto peak = tellForceCurve(tell, e);
    const auto area = areaOf(e);
    tellFromPeak(tell, "shear_strength", peak, area ? over(planes * *area) : std::nullopt,
                 "it needs the diameter or the cross-section");
    if (!e.has("planes")) tell.note("One shear plane is taken.");
    tellAsked(tell, e);
    return tell.done();
}

} // namespace

extern const Method pinShear;
const Method pinShear{"pin-shear",
                      "Shear of a pin",
                      "Shear stress at which a pin, bolt or rivet is cut across.",
                      "Its diameter or cross-section, and the number of shear planes.",
                      Action::shear,
                      inputs,
                      metrics,
                      formulas,
                      Dimension::force,
                      {},
                      "bolt pin rivet screw dowel cut shear clevis"};

} // namespace anvil::methods
