#include <anvil/results/use.h>

#include <algorithm>
#include <anvil/stats/floors.h>
#include <array>
#include <cmath>

namespace anvil::results {
namespace {

constexpr double mostNeeded = 1e6; // more of them are a slip of the finger

WorkingLimit limitOf(const Verdict& verdict, const Group& g, std::size_t at, const Use& use) {
    WorkingLimit w;
    w.group = at;
    const auto exact =
        std::count_if(g.values.begin(), g.values.end(), [](const GroupValue& v) { return v.value.exact(); });
    if (exact < 3) {
        w.why = "Fewer than three exact values promise nothing.";
        return w;
    }
    w.floor = stats::floorOf(floorLaw(verdict), valuesOf(g), 0.90, 0.95);
    if (!w.floor) {
        w.why = "So few values, or so widely spread, give no floor above zero.";
        return w;
    }
    if (!(use.designFactor >= 1)) {
        w.why = "No design factor is chosen yet.";
        return w;
    }
    const double allowed = *w.floor / use.designFactor;
    // A limit that is a multiple but for rounding is not taken down a whole step.
    const double limit = use.step > 0 ? std::floor(allowed / use.step + 1e-9) * use.step : allowed;
    if (!(limit > 0)) {
        w.why = "Less than one step is left.";
        return w;
    }
    w.limit = limit;
    const double each = use.load * use.uneven / limit;
    if (use.load > 0 && each < mostNeeded) w.needed = static_cast<int>(std::ceil(each - 1e-9));
    return w;
}

} // namespace

std::span<const FactorReason> factorReasons() {
    static constexpr std::array reasons{
        FactorReason{2, "A steady load, known well, that hurts nobody when it comes down"},
        FactorReason{3, "A load that varies, or pieces that age in the weather"},
        FactorReason{5, "Shocks, wear or rough handling; things of value beneath"},
        FactorReason{10, "Somebody could be hurt: local codes and a competent person decide, not this table"},
    };
    return reasons;
}

bool hasWorkingLimits(const Verdict& verdict) {
    return verdict.goal.metric->dimension == quantity::Dimension::force &&
           verdict.goal.sense == Sense::more && !verdict.empty();
}

std::vector<WorkingLimit> workingLimits(const Verdict& verdict, const Use& use) {
    std::vector<WorkingLimit> out;
    if (!hasWorkingLimits(verdict)) return out;
    for (std::size_t i = 0; i < verdict.groups.size(); ++i)
        if (verdict.groups[i].summary.n > 0) out.push_back(limitOf(verdict, verdict.groups[i], i, use));
    return out;
}

} // namespace anvil::results
