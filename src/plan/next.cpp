#include <anvil/domain/pulls_of_pieces.h>
#include <anvil/plan/next.h>

#include <algorithm>
#include <anvil/results/evidence.h>
#include <cmath>

namespace anvil::plan {

using namespace domain;
using namespace results;
std::optional<LadderStep> nextStep(const std::vector<LadderStep>& steps, double firstLoad, double more,
                                   std::optional<double> firstDistance, double further) {
    if (steps.empty()) return LadderStep{firstLoad, firstDistance, true};
    if (!steps.back().held) return std::nullopt;
    auto next = steps.back();
    next.load += more;
    if (next.distance) *next.distance += further;
    return next;
}

std::vector<GaugeState> gauges(const StudyData& data, double now) {
    std::vector<GaugeState> out;
    if (methods::entryForm(methodOf(data.study.plan)) != methods::EntryForm::series) return out;
    const double every = data.study.plan.gaugeEvery.value_or(0);
    const PullsOfPieces pulls(data);
    for (const auto& s : data.specimens) {
        GaugeState g;
        g.specimen = s.id;
        bool done = false;
        for (const auto* pull : pulls.of(s.id)) {
            const auto& p = *pull;
            done = done || p.standing == Standing::voided;
            g.pull = p.id;
            const auto& e = p.outcome.entered;
            if (e.gauge.empty()) continue;
            g.lastAt = e.gauge.back().at;
            g.lastValue = e.gauge.back().value;
            done = done || (e.unloadedFrom && e.gauge.back().at > *e.unloadedFrom);
        }
        if (done) continue;
        if (g.lastAt && every > 0) g.dueAt = *g.lastAt + every;
        g.due = !g.lastAt || (g.dueAt && now >= *g.dueAt);
        out.push_back(g);
    }
    // Without a time between readings the turn goes round: who was read longest ago is next.
    std::stable_sort(out.begin(), out.end(), [](const GaugeState& a, const GaugeState& b) {
        const auto when = [](const GaugeState& g) {
            return g.dueAt ? *g.dueAt : g.lastAt.value_or(-HUGE_VAL);
        };
        return when(a) < when(b);
    });
    return out;
}

const Specimen* nextSpecimen(const StudyData& data, const std::set<Id>& skip) {
    std::set<Id> gone = skip;
    for (const auto& p : data.pulls)
        if (p.practice == data.study.plan.practice) gone.insert(p.specimen);
    const auto waits = [&](const Specimen& s) { return !gone.contains(s.id); };
    for (const auto& label : data.study.plan.runOrder)
        for (const auto& s : data.specimens)
            if (s.label == label && waits(s)) return &s;
    for (const auto& s : data.specimens)
        if (waits(s)) return &s;
    return nullptr;
}

const Specimen* nextOnLadder(const StudyData& data, const std::set<Id>& skip) {
    for (const auto& p : data.pulls) {
        const auto& steps = p.outcome.entered.steps;
        if (!steps.empty() && steps.back().held && !skip.contains(p.specimen) &&
            p.standing == Standing::atLeast && !p.outcome.limit)
            return data.specimen(p.specimen);
    }
    return nextSpecimen(data, skip);
}

} // namespace anvil::plan
