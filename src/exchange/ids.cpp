#include "ids.h"

#include <algorithm>
#include <tuple>

namespace anvil::exchange {
namespace {

void change(Id& id, const std::map<Id, Id>& map) {
    const auto at = map.find(id);
    id = at == map.end() ? 0 : at->second;
}

} // namespace

void renumber(domain::Study& s, const IdMaps& maps) {
    change(s.id, maps.study);
    change(s.goal.control, maps.option);
    for (auto& q : s.plan.squares) {
        change(q.option, maps.option);
        change(q.condition, maps.condition);
        change(q.otherEnd, maps.option);
    }
    for (auto& r : s.plan.reevings)
        change(r.option, maps.option);
    for (auto& a : s.plan.arrangements) {
        change(a.option, maps.option);
        change(a.base, maps.option);
    }
    for (auto& c : s.card.criteria) {
        change(c.study, maps.study);
        change(c.condition, maps.condition);
    }
    for (auto& p : s.telling.publications)
        for (auto& v : p.values)
            change(v.pull, maps.pull);
    for (auto& c : s.telling.corrections)
        change(c.pull, maps.pull);
}

void renumber(domain::StudyData& data, const IdMaps& maps) {
    renumber(data.study, maps);
    for (auto& o : data.options) {
        change(o.id, maps.option);
        change(o.study, maps.study);
    }
    for (auto& c : data.conditions) {
        change(c.id, maps.condition);
        change(c.study, maps.study);
    }
    for (auto& s : data.specimens) {
        change(s.id, maps.specimen);
        change(s.study, maps.study);
        change(s.option, maps.option);
        change(s.condition, maps.condition);
    }
    for (auto& p : data.pulls) {
        change(p.id, maps.pull);
        change(p.specimen, maps.specimen);
        change(p.curve, maps.curve);
        change(p.setup, maps.setup);
    }
    for (auto& a : data.attachments) {
        change(a.id, maps.attachment);
        change(a.pull, maps.pull);
        change(a.file, maps.file);
    }
    data.count();
}

std::vector<domain::StudyData> numbered(std::vector<domain::StudyData> studies, IdMaps& maps,
                                        const std::vector<store::SetupRow>& setups) {
    const auto count = [](const auto& all, std::map<Id, Id>& map) {
        for (const auto& x : all)
            map.emplace(x.id, static_cast<Id>(map.size() + 1));
    };
    for (auto& data : studies) {
        maps.study.emplace(data.study.id, static_cast<Id>(maps.study.size() + 1));
        count(data.options, maps.option);
        count(data.conditions, maps.condition);
        std::stable_sort(data.specimens.begin(), data.specimens.end(), [&](const auto& a, const auto& b) {
            return std::tuple(maps.option[a.option], maps.condition[a.condition], a.replicate, a.id) <
                   std::tuple(maps.option[b.option], maps.condition[b.condition], b.replicate, b.id);
        });
        std::stable_sort(data.pulls.begin(), data.pulls.end(),
                         [](const auto& a, const auto& b) { return a.id < b.id; });
        count(data.specimens, maps.specimen);
        count(data.pulls, maps.pull);
        count(data.attachments, maps.attachment);
        for (const auto& p : data.pulls)
            if (p.curve) maps.curve[p.curve] = maps.pull[p.id];
        for (const auto& a : data.attachments)
            maps.file[a.file] = a.file;
    }
    count(setups, maps.setup);
    for (auto& data : studies)
        renumber(data, maps);
    return studies;
}

} // namespace anvil::exchange
