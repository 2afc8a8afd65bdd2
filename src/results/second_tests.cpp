#include <anvil/results/second_tests.h>

#include <anvil/stats/pooled.h>
#include <anvil/stats/rank_sum.h>
#include <map>

namespace anvil::results {
namespace {

/// The values of a group that count; empty where any is a bound.
std::vector<double> exactValues(const Group& g) {
    std::vector<double> out;
    for (const auto& v : g.values) {
        if (v.value.aside) continue;
        if (!v.value.exact()) return {};
        out.push_back(v.value.value);
    }
    return out;
}

/// The spread the groups of each condition, or of each option, share.
std::map<Id, std::optional<stats::PooledSpread>>
sharedSpreads(const std::vector<Group>& groups, const std::vector<std::optional<stats::LogGroup>>& logs,
              Id Group::*family) {
    std::map<Id, std::vector<std::optional<stats::LogGroup>>> families;
    for (std::size_t i = 0; i < groups.size(); ++i)
        families[groups[i].*family].push_back(logs[i]);
    std::map<Id, std::optional<stats::PooledSpread>> out;
    for (const auto& [id, members] : families)
        out[id] = stats::pooledSpread(members);
    return out;
}

} // namespace

std::vector<SecondTests> secondTests(const Verdict& verdict, const std::vector<bool>& wanted) {
    std::vector<std::vector<double>> values;
    std::vector<std::optional<stats::LogGroup>> logs;
    for (const auto& g : verdict.groups) {
        values.push_back(exactValues(g));
        logs.push_back(stats::logGroup(values.back()));
    }
    const auto ofCondition = sharedSpreads(verdict.groups, logs, &Group::condition),
               ofOption = sharedSpreads(verdict.groups, logs, &Group::option);
    std::vector<SecondTests> out;
    out.reserve(verdict.pairs.size());
    for (std::size_t k = 0; k < verdict.pairs.size(); ++k) {
        const auto& p = verdict.pairs[k];
        const auto& a = verdict.groups[p.a];
        const auto& spread = p.acrossConditions ? ofOption.at(a.option) : ofCondition.at(a.condition);
        auto& tests = out.emplace_back();
        if (!wanted.empty() && !wanted[k]) continue;
        tests.mannWhitneyP = stats::mannWhitneyP(values[p.a], values[p.b]);
        if (spread && logs[p.a] && logs[p.b]) tests.pooledP = stats::pooledP(*logs[p.a], *logs[p.b], *spread);
    }
    return out;
}

} // namespace anvil::results
