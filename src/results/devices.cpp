#include <anvil/results/devices.h>

#include <algorithm>
#include <anvil/results/groups.h>
#include <cmath>
#include <set>

namespace anvil::results {
namespace {

const domain::OptionReeving* reevingOf(const StudyData& data, Id option) {
    for (const auto& r : data.study.plan.reevings)
        if (r.option == option) return &r;
    return nullptr;
}

std::optional<double> predictedBy(const methods::Reeving& reeving,
                                  const std::vector<methods::DeviceEfficiency>& devices) {
    std::vector<double> shares;
    const auto add = [&](const std::string& device) {
        for (const auto& d : devices)
            if (d.device == device && d.efficiency) {
                shares.push_back(*d.efficiency);
                return true;
            }
        return false;
    };
    if (reeving.redirect.empty())
        shares.push_back(1);
    else if (!add(reeving.redirect))
        return std::nullopt;
    for (const auto& d : reeving.devices)
        if (!add(d)) return std::nullopt;
    return methods::advantageOf(reeving, shares);
}

} // namespace

Expected<DeviceStudy> devicesOf(const Results& results) {
    const auto& data = results.data();
    const auto goal = goalFor(data.study.goal, domain::metric("advantage"));
    DeviceStudy out;
    for (const auto& o : data.options) {
        const auto* reeving = reevingOf(data, o.id);
        if (!reeving || reeving->reeving.devices.empty()) continue;
        for (const auto& c : data.conditions) {
            const auto g = groupOf(results, goal, o.id, c.id);
            if (!g.summary.typical || g.summary.censored() || g.summary.n == 0) continue;
            const double sd = g.summary.sd ? *g.summary.sd / std::sqrt(static_cast<double>(g.summary.n)) : 0;
            out.reevings.push_back({o.id, c.id, g.summary.n, {reeving->reeving, *g.summary.typical, sd}, {}});
        }
    }
    if (out.reevings.empty())
        return fail("No option says over which devices its line runs, or none of them was measured yet.");
    const bool allSpread = std::all_of(out.reevings.begin(), out.reevings.end(),
                                       [](const MeasuredReeving& r) { return r.hauled.sd > 0; });
    std::vector<methods::Hauled> hauled;
    for (const auto& r : out.reevings) {
        hauled.push_back(r.hauled);
        if (!allSpread) hauled.back().sd = 0; // a single one without a spread would weigh nothing, or all
    }
    auto devices = methods::deviceEfficiencies(hauled);
    if (!devices) return tl::unexpected(devices.error());
    out.devices = std::move(*devices);
    std::stable_sort(out.devices.begin(), out.devices.end(), [](const auto& a, const auto& b) {
        return a.efficiency.value_or(-1) > b.efficiency.value_or(-1);
    });
    std::size_t most = 1;
    for (auto& r : out.reevings) {
        r.predicted = predictedBy(r.hauled.reeving, out.devices);
        const std::set<std::string> unlike(r.hauled.reeving.devices.begin(), r.hauled.reeving.devices.end());
        if (unlike.size() <= most) continue;
        most = unlike.size();
        out.longest = r.option;
        out.orders = methods::everyOrder(r.hauled.reeving, out.devices);
    }
    return out;
}

} // namespace anvil::results
