// Load share: how legs share a load.
#include "common_metrics.h"
#include "tell.h"

#include <algorithm>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"direction", "Direction", "of a leg, in plan", Dimension::angle, Of::specimen, Form::perLeg, false,
     false, true},
    {"length", "Length", "of a leg", Dimension::length, Of::specimen, Form::perLeg},
    {"leg", "Load", "in a leg", Dimension::force, Of::pull, Form::perLeg, true, false, true},
    {"master", "Load on all", "in the line that carries them", Dimension::force, Of::pull},
};
constexpr Metric metrics[] = {
    {"unevenness", "Unevenness", "greatest load over the mean", Dimension::ratio, Sense::less},
    {"greatest_share", "Greatest share", "greatest share of one leg", Dimension::ratio, Sense::less, "%"},
    {"residual", "Difference to the master", "load the legs do not account for", Dimension::force,
     Sense::less},
    peakRow,
};

/// unevenness = max/mean; share = max/sum; residual = master − |vector sum of the legs|, or their plain sum
/// where no directions are known.
Expected<Measured> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    tellPeak(tell, e);
    const auto at = e.legs.find("leg");
    const auto n = at == e.legs.end() ? 0 : at->second.size();
    double sum = 0, most = 0, x = 0, y = 0;
    const auto directions = e.legs.find("direction");
    const bool plan = directions != e.legs.end() && directions->second.size() == n;
    if (directions != e.legs.end() && !plan) return fail("Some legs have a direction and some none.");
    for (std::size_t i = 0; i < n; ++i) {
        const double load = at->second[i].si;
        if (load < 0) return fail("A leg pulls or is slack: a load below zero cannot be.");
        sum += load;
        most = std::max(most, load);
        x += load * std::cos(plan ? directions->second[i].si : 0);
        y += load * std::sin(plan ? directions->second[i].si : 0);
    }
    if (n < 2 || !(sum > 0)) {
        for (const auto& m : method.metrics)
            tell.without(m.key, "it needs the loads of at least two legs");
        return tell.done();
    }
    tell.exact("unevenness", most * static_cast<double>(n) / sum);
    tell.exact("greatest_share", most / sum);
    if (const auto master = e.value("master")) {
        const double together = std::hypot(x, y);
        tell.exact("residual", *master - together);
        if (std::abs(*master - together) > 0.1 * *master)
            tell.note(
                "The legs together differ by more than a tenth from the load on all of them: look at zeros, "
                "directions and calibrations.");
    }
    tell.without("residual", "no load on all of them was entered");
    return tell.done();
}

} // namespace

extern const Method loadShare;
const Method loadShare{"load-share",
                       "Load share",
                       "How legs share a load, and what one lost leg does to the rest.",
                       "A reading on each leg at the same instant.",
                       Action::share,
                       inputs,
                       metrics,
                       formulas,
                       Dimension::force,
                       {},
                       "anchor legs tripod bridle share distribute sling foot points"};

} // namespace anvil::methods
