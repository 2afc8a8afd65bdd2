#include <anvil/words/use.h>

#include <anvil/domain/outcomes.h>
#include <anvil/quantity/print.h>
#include <anvil/words/values.h>
#include <fmt/format.h>

namespace anvil::words {

using namespace domain;
using namespace results;
using quantity::briefly;
using quantity::significant;
using quantity::withUnit;

namespace {

void addPlace(const StudyData& data, Table& t) {
    t.columns.push_back({"option", "Option"});
    if (data.conditions.size() > 1) t.columns.push_back({"condition", "Condition"});
}

Row rowOf(const StudyData& data, const Verdict& verdict, std::size_t group) {
    const auto& g = verdict.groups[group];
    Row row{{data.optionAt(g.option).name}, static_cast<long long>(group)};
    if (data.conditions.size() > 1) row.cells.push_back(data.conditionAt(g.condition).name);
    return row;
}

} // namespace

Table limitTable(const StudyData& data, const Verdict& verdict, const std::vector<WorkingLimit>& limits,
                 const quantity::Unit& unit) {
    Table t{"limits", {}, {}};
    addPlace(data, t);
    for (const auto& column :
         {TableColumn{"floor", "90/95 floor", true}, TableColumn{"limit", "Working limit", true},
          TableColumn{"needed", "How many", true}, TableColumn{"why", "Remark"}})
        t.columns.push_back(column);
    for (const auto& w : limits) {
        auto row = rowOf(data, verdict, w.group);
        row.cells.push_back(w.floor ? withUnit(*w.floor, unit) : "none");
        row.cells.push_back(!w.limit                          ? "none"
                            : data.study.telling.use.step > 0 ? briefly(*w.limit, unit)
                                                              : withUnit(*w.limit, unit));
        row.cells.push_back(w.needed ? fmt::format("{}", *w.needed) : "–");
        row.cells.emplace_back(w.why);
        t.rows.push_back(std::move(row));
    }
    return t;
}

std::string ruleOfLimits(const Use& use, const quantity::Unit& unit) {
    if (!(use.designFactor >= 1))
        return "Nobody should work at the breaking load. Choose by how much the floor is divided, and why.";
    std::string text = fmt::format("Working limit = 90/95 floor ÷ {}", significant(use.designFactor, 3));
    if (use.step > 0) text += fmt::format(", rounded down to {}", briefly(use.step, unit));
    if (!use.why.empty()) text += ": " + use.why;
    if (text.back() != '.') text += '.';
    if (use.load > 0)
        text += fmt::format(" How many: {} in all{}, shared among them.", briefly(use.load, unit),
                            use.uneven > 1 ? fmt::format(", the most loaded one at {} times its even share",
                                                         significant(use.uneven, 3))
                                           : std::string());
    return text;
}

std::vector<std::string> limitCautions() {
    return {
        "A test in a shed is not a rating. For lifting, for holding people, for structures and vehicles "
        "follow "
        "local codes and the maker's instructions, and ask a licensed or competent person.",
        "One pull says nothing of repeated load, of wear, of weather or of a shock: each takes from what is "
        "left."};
}

Table forecastTable(const StudyData& data, const Verdict& verdict,
                    const std::vector<ForecastResult>& forecasts, const quantity::Unit& unit) {
    Table t{"forecasts", {}, {}};
    addPlace(data, t);
    for (const auto& column :
         {TableColumn{"by", "By"}, TableColumn{"expected", "Expected", true},
          TableColumn{"measured", "Measured", true}, TableColumn{"ratio", "Measured over expected", true},
          TableColumn{"inside", "Inside its band"}, TableColumn{"part", "Part expected"},
          TableColumn{"broke", "Part that broke most"}})
        t.columns.push_back(column);
    for (const auto& f : forecasts) {
        auto row = rowOf(data, verdict, f.group);
        const auto& said = *f.forecast;
        row.cells.push_back(said.by.empty() ? "somebody" : said.by);
        row.cells.push_back(
            fmt::format("{} ± {}", withUnit(said.value, unit, 3), quantity::percent(said.cv)));
        row.cells.push_back(meanText(verdict.groups[f.group].summary, unit));
        row.cells.push_back(f.ratio ? (f.atLeast ? "at least " : "") + significant(*f.ratio, 3) : "–");
        row.cells.push_back(!f.inside ? "–" : *f.inside ? "yes" : "no");
        row.cells.push_back(said.goesFirst.empty() ? "–" : said.goesFirst);
        row.cells.push_back(f.broke.empty() ? "not said"
                            : !said.goesFirst.empty() && samePart(f.broke, said.goesFirst)
                                ? f.broke + ", as expected"
                                : f.broke);
        t.rows.push_back(std::move(row));
    }
    return t;
}

} // namespace anvil::words
