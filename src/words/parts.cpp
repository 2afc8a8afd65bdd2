#include <anvil/words/parts.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <anvil/words/size.h>
#include <anvil/words/values.h>
#include <cmath>
#include <fmt/format.h>
#include <fmt/ranges.h>

namespace anvil::words {

using namespace results;
using quantity::significant;
using quantity::withUnit;

namespace {

std::string partName(const std::string& part) { return part.empty() ? "not said" : part; }

void addConditionHead(const domain::StudyData& data, Table& t) {
    if (data.conditions.size() > 1) t.columns.push_back({"condition", "Condition"});
}

Row rowOf(const domain::StudyData& data, const Group& g, std::size_t at) {
    Row row{{data.optionAt(g.option).name}, static_cast<long long>(at)};
    if (data.conditions.size() > 1) row.cells.push_back(data.conditionAt(g.condition).name);
    return row;
}

} // namespace

Table partTable(const domain::StudyData& data, const Verdict& verdict, std::span<const SquareParts> squares,
                const quantity::Unit& unit) {
    Table t{"parts", {{"option", "Option"}}, {}};
    addConditionHead(data, t);
    for (const auto& column : {TableColumn{"part", "What broke"}, TableColumn{"failed", "How often", true},
                               TableColumn{"strength", "It holds typically", true},
                               TableColumn{"first", "Chance that it goes first", true}})
        t.columns.push_back(column);
    for (const auto& square : squares)
        for (const auto& part : square.parts) {
            auto row = rowOf(data, verdict.groups[square.group], square.group);
            row.cells.push_back(partName(part.part));
            row.cells.push_back(fmt::format("{} of {}", part.failed, square.pulls));
            row.cells.push_back(part.fit ? "about " + withUnit(std::exp(part.fit->location), unit) : "–");
            row.cells.push_back(part.goesFirst ? chanceText(*part.goesFirst) : "–");
            t.rows.push_back(std::move(row));
        }
    return t;
}

std::vector<std::string> sentences(const domain::StudyData& data, const Verdict& verdict,
                                   std::span<const SquareParts> squares) {
    std::vector<std::string> out;
    for (const auto& square : squares) {
        if (square.parts.size() < 2) continue;
        std::vector<std::string> parts;
        parts.reserve(square.parts.size());
        for (const auto& p : square.parts)
            parts.push_back(fmt::format("{} in {}", partName(p.part), p.failed));
        out.push_back(fmt::format("{}: of {} pulls {}. What is not the weakest part shows only a bound.",
                                  groupName(data, verdict.groups[square.group]), square.pulls,
                                  fmt::join(parts, ", ")));
    }
    return out;
}

Table worthTable(const domain::StudyData& data, const Verdict& verdict, std::span<const Worth> worth,
                 const quantity::Unit& unit) {
    const bool weights = std::any_of(worth.begin(), worth.end(), [](const Worth& w) { return w.perWeight; });
    const auto currency =
        worth.empty() ? std::string() : data.optionAt(verdict.groups[worth[0].group].option).currency;
    Table t{"worth", {{"option", "Option"}}, {}};
    addConditionHead(data, t);
    for (const auto& column :
         {TableColumn{"cost", "Cost each", true}, TableColumn{"mean", "Mean", true},
          TableColumn{"floor", "90/95 floor", true},
          TableColumn{"per_cost", fmt::format("{} per {}", unit.symbol, currency.empty() ? "cost" : currency),
                      true},
          TableColumn{"per_cost_interval", "95 % interval", true}})
        t.columns.push_back(column);
    if (weights) {
        t.columns.push_back({"per_weight", fmt::format("{} per kg", unit.symbol), true});
        t.columns.push_back({"per_weight_interval", "95 % interval", true});
    }
    t.columns.push_back({"unbeaten", "Nobody beats it"});
    const auto shown = [&](const std::optional<double>& v) {
        return v ? significant(unit.fromSi(*v), 3) : std::string("–");
    };
    const auto ends = [&](const std::optional<std::pair<double, double>>& v) {
        return v ? shown(v->first) + " to " + shown(v->second) : std::string("–");
    };
    for (const auto& w : worth) {
        const auto& g = verdict.groups[w.group];
        auto row = rowOf(data, g, w.group);
        for (auto cell :
             {quantity::fixed(w.cost, 2) + " " + currency, meanText(g.summary, unit),
              w.floor ? withUnit(*w.floor, unit) : std::string("none"),
              (w.perCost && w.atLeast ? "at least " : "") + shown(w.perCost), ends(w.perCostInterval)})
            row.cells.push_back(std::move(cell));
        if (weights) {
            row.cells.push_back((w.perWeight && w.atLeast ? "at least " : "") + shown(w.perWeight));
            row.cells.push_back(ends(w.perWeightInterval));
        }
        row.cells.emplace_back(w.unbeaten ? "yes" : "no");
        t.rows.push_back(std::move(row));
    }
    return t;
}

std::vector<std::string> sentences(const domain::StudyData& data, const Verdict& verdict,
                                   std::span<const Worth> worth) {
    std::vector<std::string> out;
    for (const auto& condition : data.conditions) {
        std::vector<std::string> names;
        std::size_t all = 0;
        for (const auto& w : worth) {
            if (verdict.groups[w.group].condition != condition.id) continue;
            ++all;
            if (w.unbeaten) names.push_back(data.optionAt(verdict.groups[w.group].option).name);
        }
        if (all < 2) continue;
        out.push_back(fmt::format("{}othing here is both cheaper and stronger than {}.",
                                  data.conditions.size() > 1 ? condition.name + ": n" : std::string("N"),
                                  fmt::join(names, names.size() == 2 ? " or " : ", ")));
    }
    return out;
}

} // namespace anvil::words
