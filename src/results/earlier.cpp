#include <anvil/results/earlier.h>

#include <algorithm>
#include <set>

namespace anvil::results {
namespace {

std::string lastDay(const StudyData& data, const Group& g) {
    std::string last;
    for (const auto& v : g.values)
        if (const auto* pull = data.pull(v.pull); pull && pull->performedAt.size() >= 10)
            last = std::max(last, pull->performedAt.substr(0, 10));
    return last;
}

std::vector<std::string> batchesOf(const StudyData& data, const Group& g) {
    std::set<std::string> batches;
    for (const auto& v : g.values)
        if (const auto* piece = data.specimen(v.specimen); piece && !piece->batch.empty())
            batches.insert(piece->batch);
    return {batches.begin(), batches.end()};
}

std::string methodKey(const StudyData& data) {
    return data.study.plan.method.empty() ? "axial-pull" : data.study.plan.method;
}

std::optional<stats::Comparison> compared(const Group& now, const Earlier& then, double margin) {
    if (!now.summary.typical || !now.summary.sd || now.summary.censored() || then.atLeast || !then.mean ||
        !then.sd)
        return {};
    stats::Summary before;
    before.n = then.n;
    before.mean = before.typical = then.mean;
    before.sd = then.sd;
    auto c = stats::compare(now.summary, before, margin);
    c.pHolm = c.p;
    c.verdict = stats::verdictOf(c, now.summary, before);
    return c;
}

bool apart(const std::vector<std::string>& a, const std::vector<std::string>& b) {
    return !a.empty() && !b.empty() && std::none_of(a.begin(), a.end(), [&](const std::string& x) {
        return std::find(b.begin(), b.end(), x) != b.end();
    });
}

} // namespace

std::vector<Earlier> earlierOf(const std::string& project, const StudyData& data, const Verdict& verdict) {
    std::vector<Earlier> out;
    const auto& plan = data.study.plan;
    if (plan.practice || plan.rigCheck) return out;
    for (const auto& g : verdict.groups) {
        if (!g.summary.typical) continue;
        Earlier e;
        e.project = project;
        e.study = data.study.title;
        e.at = lastDay(data, g);
        e.method = methodKey(data);
        e.metric = verdict.goal.metric->key;
        e.option = data.optionAt(g.option).name;
        e.condition = data.conditionAt(g.condition).name;
        e.intent = domain::key(data.study.intent);
        e.rig = plan.rig;
        e.n = g.summary.n;
        e.mean = g.summary.typical;
        e.sd = g.summary.censored() ? std::nullopt : g.summary.sd;
        e.atLeast = g.summary.bound == stats::Bound::above;
        e.batches = batchesOf(data, g);
        out.push_back(std::move(e));
    }
    return out;
}

std::vector<ThenAndNow> lastTimes(const StudyData& data, const Verdict& verdict,
                                  const std::vector<Earlier>& earlier) {
    std::vector<ThenAndNow> out;
    for (std::size_t i = 0; i < verdict.groups.size(); ++i) {
        const auto& g = verdict.groups[i];
        if (!g.summary.typical) continue;
        const auto from = static_cast<std::ptrdiff_t>(out.size());
        for (const auto& e : earlier) {
            if (e.option != data.optionAt(g.option).name || e.metric != verdict.goal.metric->key ||
                e.method != methodKey(data))
                continue;
            ThenAndNow t;
            t.group = i;
            t.then = e;
            t.comparison = compared(g, e, verdict.goal.margin);
            t.otherCondition = e.condition != data.conditionAt(g.condition).name;
            t.otherIntent = e.intent != domain::key(data.study.intent);
            t.otherRig = !e.rig.empty() && !data.study.plan.rig.empty() && e.rig != data.study.plan.rig;
            t.otherBatch = apart(e.batches, batchesOf(data, g));
            out.push_back(std::move(t));
        }
        std::stable_sort(out.begin() + from, out.end(), [](const ThenAndNow& a, const ThenAndNow& b) {
            return a.otherCondition != b.otherCondition ? b.otherCondition : a.then.at > b.then.at;
        });
    }
    return out;
}

} // namespace anvil::results
