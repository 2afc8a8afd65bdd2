#include <anvil/results/over_time.h>

#include <algorithm>
#include <anvil/results/evidence.h>
#include <cmath>

namespace anvil::results {

std::vector<CreepCurve> creepOf(const StudyData& data) {
    std::vector<CreepCurve> out;
    for (const auto& pull : data.pulls) {
        const auto& piece = data.specimenAt(pull.specimen);
        if (pull.standing == Standing::voided || methodOf(data, piece).key != "creep") continue;
        const auto e = evidenceOf(data, pull, nullptr);
        if (!e) continue;
        const auto series = e->series.find("gauge");
        if (series == e->series.end() || series->second.size() < 2) continue;
        const auto first = series->second.front();
        CreepCurve one{pull.id, piece.option, piece.condition, piece.label, {}, {}, e->value("limit")};
        for (const auto& g : series->second)
            one.moved.push_back({g.at - first.at, std::abs(g.value - first.value)});
        if (const auto unloaded = e->value("unloaded_at")) one.unloadedAfter = *unloaded - first.at;
        out.push_back(std::move(one));
    }
    return out;
}

std::vector<HitHistory> hitsOf(const Results& results, const Metric& metric) {
    std::vector<HitHistory> out;
    const auto& data = results.data();
    for (const auto& o : data.options)
        for (const auto& c : data.conditions)
            for (const auto& attempt : results.attempts(o.id, c.id)) {
                const auto& pull = *attempt.pull;
                if (pull.standing == Standing::voided || methodOf(data, *attempt.piece).key != "drop")
                    continue;
                const auto value = results.value(attempt, o.id, metric);
                if (!value.value) continue;
                const auto same = std::find_if(out.begin(), out.end(), [&](const HitHistory& h) {
                    return h.piece == attempt.piece->label && h.where == pull.outcome.where &&
                           h.option == o.id;
                });
                auto& spot = same == out.end()
                                 ? out.emplace_back(
                                       HitHistory{o.id, c.id, attempt.piece->label, pull.outcome.where, {}})
                                 : *same;
                const auto e = evidenceOf(data, pull, results.readings().find(pull.id));
                const auto told = e ? e->value("hit") : std::nullopt;
                const int next = spot.hits.empty() ? 1 : spot.hits.back().number + 1;
                spot.hits.push_back(
                    {told ? static_cast<int>(std::lround(*told)) : next, *value.value, pull.id});
            }
    std::erase_if(out, [](const HitHistory& h) { return h.hits.size() < 2; });
    for (auto& h : out)
        std::stable_sort(h.hits.begin(), h.hits.end(),
                         [](const auto& a, const auto& b) { return a.number < b.number; });
    return out;
}

} // namespace anvil::results
