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
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
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

void sketch(Easel& e) {
    e.box(60, 60, 130, 20, Tone::band);
    e.box(60, 84, 130, 20);
    if (e.count("planes") == 2) e.box(60, 108, 130, 20, Tone::band);
    e.box(116, 44, 16, 96, Tone::second);
    e.force({190, 94}, {240, 94}, "F", "peak", Beside::left);
    e.arrow({60, 70}, {20, 70});
    e.label({124, 158}, "m", "planes");
    e.section(false, true);
}

/// A pin through three plates.
void card(Easel& e) {
    e.box(14, 28, 76, 9, Tone::second);
    e.box(60, 40, 76, 10);
    e.box(14, 53, 76, 9, Tone::second);
    e.box(71, 18, 9, 54, Tone::failed);
    e.arrow({12, 45}, {0, 45});
    e.arrow({136, 45}, {149, 45});
}

} // namespace

extern const Method pinShear;
const Method pinShear{"pin-shear",
                      "Shear of a pin",
                      "Shear stress at which a pin, bolt or rivet is cut across.",
                      "Its diameter or cross-section, and the number of shear planes.",
                      Action::shear,
                      {sketch, card},
                      inputs,
                      metrics,
                      formulas,
                      Dimension::force,
                      {},
                      "bolt pin rivet screw dowel cut shear clevis"};

} // namespace anvil::methods
