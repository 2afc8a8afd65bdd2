#include "tell.h"

#include <anvil/quantity/print.h>

namespace anvil::methods {
namespace {

using stats::Bound;
using stats::Value;

bool beyond(const Evidence& e, double load) {
    return e.calibratedTo > 0 && load + e.reading->baseline > e.calibratedTo;
}

} // namespace

void Tell::without(std::string_view metric, std::string_view why) {
    if (auto* n = find(metric); n && !n->value && n->whyNot.empty()) n->whyNot = why;
}

void Tell::note(std::string_view text) { m_out.notes.emplace_back(text); }

Peak peakOf(const Evidence& e, quantity::Dimension load) {
    if (auto typed = e.doubted("peak")) return {typed, false, {}};
    if (!e.reading) return {{}, false, "no peak was entered and there is no curve"};
    if (e.reading->loadKind != load)
        return {{},
                false,
                fmt::format("its curve is of {}, not of {}", quantity::name(e.reading->loadKind),
                            quantity::name(load))};
    const double v = e.reading->peak.load;
    return {Value{v, e.bound, v}, beyond(e, v), {}};
}

Peak tellPeak(Tell& tell, const Evidence& e) {
    auto peak = peakOf(e);
    tell.number("peak", peak.value, peak.guess);
    tell.without("peak", peak.whyNot);
    return peak;
}

void tellFromPeak(Tell& tell, std::string_view metric, const Peak& peak, std::optional<double> factor,
                  std::string_view missing) {
    if (factor && peak.value) tell.number(metric, times(*peak.value, *factor), peak.guess);
    tell.without(metric, factor ? std::string_view(peak.whyNot) : missing);
}

Peak tellForceCurve(Tell& tell, const Evidence& e) {
    auto peak = tellPeak(tell, e);
    const auto* r = e.reading && e.reading->loadKind == quantity::Dimension::force ? e.reading : nullptr;
    const auto seen = [&](double v) { return Value{v, Bound::exact, v}; };
    if (!r) {
        const auto why = e.reading ? peak.whyNot : std::string("only its peak was recorded");
        if (const auto k = stiffnessOf(e)) tell.exact("stiffness", *k);
        for (const char* metric : {"first_slip", "stiffness", "energy", "residual"})
            tell.without(metric, why);
        return peak;
    }
    if (r->firstSlip)
        tell.number("first_slip", seen(r->firstSlip->load), beyond(e, r->firstSlip->load));
    else
        tell.without("first_slip", "it never slipped before its peak");
    if (const auto k = stiffnessOf(e))
        tell.number("stiffness", seen(*k));
    else
        tell.without("stiffness", "no displacement channel, so no stiffness");
    if (r->energyToPeak)
        tell.number("energy", Value{*r->energyToPeak, e.bound, *r->energyToPeak}, r->guessed);
    else
        tell.without("energy", "no displacement channel, so no energy");
    if (e.bound == Bound::above)
        tell.without("residual", "the true peak was not seen, so what it held afterwards cannot be told");
    else if (r->residual)
        tell.number("residual", seen(r->residual->load), beyond(e, r->residual->load));
    else
        tell.without("residual", "the log ends too soon after the peak");
    return peak;
}

void tellAsked(Tell& tell, const Evidence& e) {
    const auto* r = e.reading;
    const char* noCurve = "there is no curve to read it from";
    const auto at = [&](const char* metric, const std::optional<curve::At>& asked, const char* notAsked) {
        if (!r) return tell.without(metric, noCurve);
        if (!asked) return tell.without(metric, notAsked);
        if (asked->value) return tell.exact(metric, *asked->value);
        tell.without(metric, "it was not reached");
    };
    at("force_at_displacement", r ? r->loadAtTravel : std::nullopt, "no displacement was chosen (Curves)");
    at("displacement_at_force", r ? r->travelAtLoad : std::nullopt, "no force was chosen (Curves)");
    at("torque_at_angle", r ? r->loadAtTravel : std::nullopt, "no angle was chosen (Curves)");
    if (r && r->hold) tell.exact("relaxation", r->hold->relaxation);
    tell.without("relaxation", r ? "no window in which it was held was chosen (Curves)" : noCurve);
    if (r && r->permanent) tell.exact("permanent_set", *r->permanent);
    tell.without("permanent_set", r ? "it was not let down after the peak" : noCurve);
    if (e.grade) tell.exact("afterwards", *e.grade);
    tell.without("afterwards", e.afterwards.empty()
                                   ? std::string("nobody said what it is like afterwards")
                                   : fmt::format("no step of the study's scale says \"{}\"", e.afterwards));
}

std::optional<double> stiffnessOf(const Evidence& e) {
    if (const auto typed = e.value("stiffness")) return typed;
    const bool read = e.reading && e.reading->loadKind == quantity::Dimension::force && e.reading->stiffness;
    return read ? std::optional(e.reading->stiffness->value) : std::nullopt;
}

namespace {
/// Of a strand: so many wires of one diameter.
double strandsOf(const Evidence& e) { return e.value("strands").value_or(1); }
} // namespace

Expected<void> oneSection(const Evidence& e) {
    const bool area = e.has("area"), round = e.has("diameter"),
               flat = e.has("breadth") && (e.has("thickness") || e.has("depth"));
    if (area + round + flat > 1)
        return fail(fmt::format("Two cross-sections were entered, {} and {}: leave one of them empty.",
                                area ? "an area" : "a diameter", area && round ? "a diameter" : "two sides"));
    if (e.has("strands") && !round && (area || flat))
        return fail("Strands are counted of round wires: enter their diameter, or the area of all of them.");
    return {};
}

std::optional<double> areaOf(const Evidence& e) {
    if (const auto area = e.value("area")) return area;
    const auto breadth = e.value("breadth"),
               thickness = e.has("thickness") ? e.value("thickness") : e.value("depth"),
               diameter = e.value("diameter"), wall = e.value("wall");
    if (breadth && thickness) return *breadth * *thickness;
    if (!diameter) return std::nullopt;
    const double inner = wall ? *diameter - 2 * *wall : 0;
    return strandsOf(e) * std::numbers::pi / 4 * (*diameter * *diameter - inner * inner);
}

} // namespace anvil::methods
