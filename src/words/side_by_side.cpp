#include <anvil/words/side_by_side.h>

#include <anvil/words/values.h>
#include <fmt/format.h>
#include <map>

namespace anvil::words {
namespace {

std::string cell(const results::Group* group, const quantity::Unit& unit) {
    if (!group || !group->summary.typical) return "–";
    const auto mean = meanText(group->summary, unit);
    return group->rank ? fmt::format("{} ({})", mean, group->rank) : mean;
}

/// The best group of a condition; null where none has a rank.
const results::Group* leader(const results::Verdict& verdict, domain::Id condition) {
    for (const auto at : verdict.inCondition(condition))
        if (verdict.groups[at].rank == 1) return &verdict.groups[at];
    return nullptr;
}

/// Whether two options of a condition are told apart, whichever way round their pair stands.
bool apart(const results::Verdict& verdict, domain::Id a, domain::Id b, domain::Id condition) {
    for (const auto& pair : verdict.pairs) {
        const auto &x = verdict.groups[pair.a], &y = verdict.groups[pair.b];
        if (x.condition != condition || y.condition != condition) continue;
        if ((x.option == a && y.option == b) || (x.option == b && y.option == a))
            return pair.comparison.verdict == stats::PairVerdict::stronger ||
                   pair.comparison.verdict == stats::PairVerdict::weaker;
    }
    return false;
}

} // namespace

Table sideBySideTable(const domain::StudyData& data, std::span<const results::Verdict* const> verdicts,
                      const quantity::Units& units) {
    const bool conditions = data.conditions.size() > 1;
    Table t{"metrics", {{"option", "Option"}}, {}};
    if (conditions) t.columns.push_back({"condition", "Condition"});
    for (const auto* v : verdicts) {
        const auto& metric = *v->goal.metric;
        t.columns.push_back(
            {metric.key, std::string(metric.title) + (v == verdicts.front() ? ", decides" : ""), true});
    }
    for (std::size_t i = 0; i < verdicts.front()->groups.size(); ++i) {
        const auto& g = verdicts.front()->groups[i];
        Row row{{data.optionAt(g.option).name}, static_cast<long long>(i)};
        if (conditions) row.cells.push_back(data.conditionAt(g.condition).name);
        for (const auto* v : verdicts)
            row.cells.push_back(
                cell(v->group(g.option, g.condition), methods::unitFor(*v->goal.metric, units)));
        t.rows.push_back(std::move(row));
    }
    return t;
}

std::vector<std::string> sideBySideSentences(const domain::StudyData& data,
                                             std::span<const results::Verdict* const> verdicts) {
    const auto& deciding = *verdicts.front();
    std::vector<std::string> out{fmt::format("The {} decides.", deciding.goal.metric->noun)};
    for (std::size_t k = 1; k < verdicts.size(); ++k) {
        std::map<std::pair<domain::Id, domain::Id>, std::vector<std::string>> turns, close; // this, that one
        for (const auto& c : data.conditions) {
            const auto *best = leader(deciding, c.id), *other = leader(*verdicts[k], c.id);
            if (best && other && best->option != other->option)
                (apart(*verdicts[k], other->option, best->option, c.id)
                     ? turns
                     : close)[{other->option, best->option}]
                    .push_back(c.name);
        }
        for (const auto& [who, where] : turns)
            out.push_back(fmt::format("By {} {} would stand first instead of {}{}.",
                                      verdicts[k]->goal.metric->noun, data.optionAt(who.first).name,
                                      data.optionAt(who.second).name,
                                      data.conditions.size() > 1 ? ": " + listed(where) : std::string()));
        for (const auto& [who, where] : close)
            out.push_back(fmt::format("By {} {} has the better mean, but is not told apart from {}{}.",
                                      verdicts[k]->goal.metric->noun, data.optionAt(who.first).name,
                                      data.optionAt(who.second).name,
                                      data.conditions.size() > 1 ? ": " + listed(where) : std::string()));
    }
    if (out.size() == 1) out.push_back("No other number would put another option first.");
    return out;
}

} // namespace anvil::words
