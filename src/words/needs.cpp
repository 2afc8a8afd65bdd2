#include <anvil/words/needs.h>

#include <anvil/quantity/print.h>
#include <anvil/words/size.h>
#include <anvil/words/values.h>
#include <fmt/format.h>

namespace anvil::words {

using namespace results;

const char* text(NeedVerdict verdict) {
    switch (verdict) {
    case NeedVerdict::met:
        return "met";
    case NeedVerdict::notMet:
        return "not met";
    case NeedVerdict::cannotTell:
        return "cannot tell";
    }
    return "";
}

Table needTable(const domain::StudyData& data, const Verdict& verdict, std::span<const NeedResult> needs,
                const quantity::Unit& unit) {
    const bool several = data.conditions.size() > 1;
    Table t{"needs", {{"option", "Option"}}, {}};
    if (several) t.columns.push_back({"condition", "Condition"});
    for (const auto& column :
         {TableColumn{"n", "n", true}, TableColumn{"mean", "Mean", true}, TableColumn{"verdict", "Need"},
          TableColumn{"mean_meets", "Chance: mean meets it", true},
          TableColumn{"next_meets", "Chance: next piece does", true},
          TableColumn{"floor_meets", "90/95 floor does"}})
        t.columns.push_back(column);
    for (const auto& need : needs) {
        const auto& g = verdict.groups[need.group];
        Row row{{data.optionAt(g.option).name}, static_cast<long long>(need.group)};
        if (several) row.cells.push_back(data.conditionAt(g.condition).name);
        const auto chance = [](const std::optional<double>& c) { return c ? chanceText(*c) : "–"; };
        for (const auto& cell :
             {countText(g.summary), meanText(g.summary, unit), std::string(text(need.verdict)),
              need.allHeld ? std::string("nothing broke") : chance(need.meanMeets), chance(need.nextMeets),
              std::string(!need.floorMeets   ? "none from so few"
                          : *need.floorMeets ? "yes"
                                             : "no")})
            row.cells.push_back(cell);
        t.rows.push_back(std::move(row));
    }
    return t;
}

std::string sentence(const domain::StudyData& data, const Verdict& verdict, const NeedResult& need,
                     const quantity::Unit& unit) {
    const auto& g = verdict.groups[need.group];
    const auto in = data.conditions.size() > 1 ? " in " + data.conditionAt(g.condition).name : std::string();
    const bool less = verdict.goal.sense == Sense::less;
    const auto wanted = quantity::withUnit(*verdict.goal.need, unit) + (less ? " or less" : " or more");
    auto out = fmt::format("{}{}: {}.", data.optionAt(g.option).name, in, text(need.verdict));
    if (need.allHeld) out += fmt::format(" Nothing broke below {} in {} pulls.", wanted, g.summary.n);
    if (need.nextMeets)
        out +=
            fmt::format(" The chance that the next piece has {} is {}.", wanted, chanceText(*need.nextMeets));
    else
        out += " There are too few pulls to say a chance.";
    return out;
}

} // namespace anvil::words
