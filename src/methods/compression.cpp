// Compression of a block or cylinder between flat plates.
#include "common_metrics.h"
#include "tell.h"

#include <cmath>

#include <algorithm>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"breadth", "Breadth", "such as 20 mm", Dimension::length, Of::specimen, Form::repeated},
    {"depth", "Depth", "such as 20 mm", Dimension::length, Of::specimen, Form::repeated},
    {"diameter", "Diameter", "of a round one", Dimension::length, Of::specimen, Form::repeated},
    {"area", "Cross-section", "such as 400 mm²", Dimension::area, Of::specimen, Form::one, true},
    {"height", "Height", "such as 40 mm", Dimension::length, Of::specimen, Form::repeated},
    peakInput,
};
constexpr Metric metrics[] = {
    peakRow,
    {.key = "strength",
     .title = "Compressive strength",
     .noun = "compressive strength",
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

/// σ = F/A, the engineering stress on the section as it was.
/// Valid for a height of 1 to 2 times the least width: lower, the friction of the plates holds it together;
/// higher, it may buckle. Both are told. Source: Gere & Goodno, Mechanics of Materials, ch. 1; Dowling,
/// Mechanical Behavior of Materials, ch. 4.
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    if (auto ok = oneSection(e); !ok) return tl::unexpected(ok.error());
    const auto peak = tellForceCurve(tell, e);
    tellFromPeak(tell, "strength", peak, over(areaOf(e)),
                 "it needs the cross-section: breadth and depth, diameter, or area");
    const auto breadth = e.value("breadth"), depth = e.value("depth"), height = e.value("height");
    auto width = breadth && depth ? std::optional(std::min(*breadth, *depth)) : e.value("diameter");
    if (const auto area = e.value("area"); !width && area)
        width = std::sqrt(*area); // at most, where it is oblong
    if (width && height) {
        const double slenderness = *height / *width;
        if (slenderness > 2)
            tell.note("It is more than twice as high as wide: it may bend aside before it crushes.");
        if (slenderness < 1)
            tell.note("It is lower than wide: the plates hold it together, so it looks stronger.");
    }
    tellAsked(tell, e);
    return tell.done();
}

void sketch(Easel& e) {
    e.line({40, 140}, {190, 140}, Tone::ground, 4);
    e.box(85, 70, 60, 68);
    e.line({40, 68}, {190, 68}, Tone::ground, 4);
    e.measure({160, 70}, {160, 138}, "h", "height");
    e.force({115, 20}, {115, 62}, "F", "peak");
    e.section(true, true);
}

void card(Easel& e) {
    e.box(55, 30, 40, 30);
    e.arrow({75, 4}, {75, 26});
    e.arrow({75, 86}, {75, 64});
}

} // namespace

extern const Method compression;
const Method compression{"compression",
                         "Compression of a block",
                         "Stress at crushing.",
                         "Breadth, depth and height; a press with flat, parallel plates.",
                         Action::press,
                         {sketch, card},
                         inputs,
                         metrics,
                         formulas,
                         Dimension::force,
                         {},
                         "crush squash press column post foam block buckle squeeze"};

} // namespace anvil::methods
