// Tension of a coupon: a bar, sheet or strand is drawn until it breaks.
#include "common_metrics.h"
#include "tell.h"

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"breadth", "Breadth", "such as 12.5 mm", Dimension::length, Of::specimen, Form::repeated},
    {"thickness", "Thickness", "such as 2 mm", Dimension::length, Of::specimen, Form::repeated},
    {"diameter", "Diameter", "of a round one, a tube or one strand", Dimension::length, Of::specimen,
     Form::repeated},
    {"wall", "Wall", "of a tube", Dimension::length, Of::specimen, Form::repeated},
    {"strands", "Strands", "how many of that diameter", Dimension::ratio, Of::specimen},
    {"area", "Cross-section", "such as 25 mm²", Dimension::area, Of::specimen, Form::one, true},
    {"gauge_length", "Gauge length", "such as 50 mm", Dimension::length, Of::specimen},
    peakInput,
    {"yield", "Load at yield", "such as 3.1 kN", Dimension::force, Of::pull, Form::one, false, true},
    {"extension_at_break", "Extension at break", "of the gauge length", Dimension::length, Of::pull},
    {"stiffness", "Stiffness", "where no curve tells it", Dimension::stiffness, Of::pull},
};
constexpr Metric metrics[] = {
    peakRow,
    {.key = "strength",
     .title = "Tensile strength",
     .noun = "tensile strength",
     .dimension = Dimension::stress,
     .atEnd = true,
     .more = "is stronger than",
     .less = "is weaker than"},
    {.key = "yield_strength",
     .title = "Yield strength",
     .noun = "stress at yield",
     .dimension = Dimension::stress,
     .more = "yields later than",
     .less = "yields earlier than"},
    {.key = "modulus",
     .title = "Modulus",
     .noun = "elastic modulus",
     .dimension = Dimension::stress,
     .more = "is stiffer than",
     .less = "is less stiff than"},
    {.key = "elongation",
     .title = "Elongation at break",
     .noun = "elongation at break",
     .dimension = Dimension::ratio,
     .unit = "%",
     .atEnd = true,
     .more = "stretches further than",
     .less = "stretches less than"},
    firstSlipRow,
    stiffnessRow,
    energyRow,
    residualRow,
    loadAtTravelRow,
    travelAtLoadRow,
    relaxationRow,
    permanentRow,
};

/// Whether the section can be. Error: a wall thicker than half the tube, strands that are no whole number.
Expected<void> possible(const Evidence& e) {
    const auto d = e.value("diameter"), wall = e.value("wall"), n = e.value("strands");
    if (d && wall && 2 * *wall > *d) return fail("The wall is thicker than half the tube.");
    if (n && (*n < 1 || *n != std::floor(*n))) return fail("Strands are counted: 1, 2, 3 …");
    return {};
}

/// σ = F/A; E = k·L₀/A; elongation = ΔL/L₀: engineering values, on the section and length as they were.
/// The modulus is apparent where the way of the rig holds its own stretch (told); the elongation where it
/// broke outside of the gauge length says little (told). Source: Gere & Goodno, Mechanics of
/// Materials, ch. 1 and 2.
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    if (auto ok = oneSection(e); !ok) return tl::unexpected(ok.error());
    const auto peak = tellForceCurve(tell, e);
    if (auto ok = possible(e); !ok) return tl::unexpected(ok.error());
    const auto area = areaOf(e);
    constexpr const char* missing = "it needs the cross-section: breadth and thickness, diameter, or area";
    tellFromPeak(tell, "strength", peak, over(area), missing);
    if (area) {
        const auto* read = e.reading && e.reading->yield ? &*e.reading->yield : nullptr;
        if (const auto yield = e.doubted("yield"))
            tell.number("yield_strength", times(*yield, 1 / *area));
        else if (read)
            tell.exact("yield_strength", read->load / *area);
        tell.without("yield_strength",
                     e.reading ? "no load at yield was entered, and none was read: choose an offset "
                                 "in Curves"
                               : "no load at yield was entered");
    }
    for (const char* metric : {"yield_strength", "modulus"})
        if (!area) tell.without(metric, missing);
    const auto k = stiffnessOf(e), length = e.value("gauge_length"),
               extension = e.value("extension_at_break");
    if (k && length && area) {
        tell.exact("modulus", *k * *length / *area);
        const bool apparent = !e.has("stiffness") && e.reading && e.reading->stiffness->includesRigStretch;
        if (apparent) tell.note("The modulus is apparent: the way of the rig counts its own stretch too.");
    }
    tell.without("modulus", k ? "it needs the gauge length" : "it needs a stiffness");
    if (extension && length) tell.exact("elongation", *extension / *length);
    tell.without("elongation", extension ? "it needs the gauge length" : "no extension at break was entered");
    if (e.failure == Failure::outsideGauge || e.failure == Failure::brokeAtEnd)
        tell.note("It broke outside of the gauge length: its elongation says little, and the grips may have "
                  "weakened "
                  "it.");
    tellAsked(tell, e);
    return tell.done();
}

void sketch(Easel& e) {
    e.box(20, 74, 50, 40);
    e.box(70, 84, 110, 20);
    e.box(180, 74, 50, 40);
    e.measure({80, 124}, {170, 124}, "L0", "gauge_length");
    e.force({230, 94}, {282, 94}, "F", "peak", Beside::left);
    e.arrow({20, 94}, {2, 94});
    e.section(true, true, "thickness", "t");
}

/// A waisted strip with the marks of its gauge length.
void card(Easel& e) {
    e.area({{36, 34},
            {52, 34},
            {62, 40},
            {88, 40},
            {98, 34},
            {114, 34},
            {114, 56},
            {98, 56},
            {88, 50},
            {62, 50},
            {52, 56},
            {36, 56}},
           Tone::piece);
    for (const double x : {66.0, 84.0})
        e.line({x, 34}, {x, 56}, Tone::ground, 2);
    e.arrow({34, 45}, {8, 45});
    e.arrow({116, 45}, {142, 45});
}

} // namespace

extern const Method tensionCoupon;
const Method tensionCoupon{"tension-coupon",
                           "Tension of a coupon",
                           "Stress and strain at yield and break of a bar, sheet or strand.",
                           "The cross-section and gauge length of every piece.",
                           Action::pull,
                           {sketch, card},
                           inputs,
                           metrics,
                           formulas,
                           Dimension::force,
                           {},
                           "material sheet metal plastic filament print strip tensile stress modulus"};

} // namespace anvil::methods
