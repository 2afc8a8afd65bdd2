// stats, rank.
#include "numbers.h"
#include "output.h"
#include "rows.h"

#include <algorithm>
#include <anvil/domain/model.h>
#include <anvil/quantity/print.h>
#include <anvil/results/one_group.h>
#include <anvil/results/pairs_that_matter.h>
#include <anvil/results/ranking.h>
#include <anvil/results/second_tests.h>
#include <anvil/results/verdict.h>
#include <anvil/stats/compare.h>
#include <anvil/tables/values.h>
#include <anvil/words/verdict.h>
#include <fmt/format.h>

namespace anvil::cli {
namespace {

using quantity::significant;

/// A table of results, and which of its sheets.
struct TableFile {
    std::string path, sheet;
    bool allowLoss = false; ///< take what can be read of it
};

/// How a ranking is drawn.
struct Drawing {
    std::uint64_t seed = 1;
    int draws = 20000;
};

/// A table of results as a study: its values stay in the table's own unit, under the peak, whatever they are.
struct Compared {
    const quantity::Unit* unit = nullptr;
    domain::StudyData data;
    std::vector<std::pair<domain::Id, domain::Id>> squares; ///< option, condition; in the order of the file
    results::Verdict verdict;
    std::vector<std::string> problems, notUsed;

    const results::Group& group(std::size_t square) const {
        return *verdict.group(squares[square].first, squares[square].second);
    }
    std::string option(const results::Group& g) const { return data.optionAt(g.option).name; }
    std::string condition(const results::Group& g) const { return data.conditionAt(g.condition).name; }
};

template <class T> domain::Id idOf(std::vector<T>& all, const std::string& name) {
    const auto known = std::find_if(all.begin(), all.end(), [&](const T& x) { return x.name == name; });
    if (known != all.end()) return known->id;
    T made;
    made.id = static_cast<domain::Id>(all.size()) + 1;
    made.name = name;
    all.push_back(made);
    return made.id;
}

void addRow(Compared& to, const tables::ValueRow& row) {
    domain::Specimen piece;
    piece.id = static_cast<domain::Id>(to.data.specimens.size()) + 1;
    piece.option = idOf(to.data.options, row.option);
    piece.condition = idOf(to.data.conditions, row.condition);
    piece.block = row.block;
    domain::Pull pull;
    pull.id = pull.specimen = piece.id;
    pull.standing = domain::standingOf(row.value);
    pull.typed = domain::TypedValue{domain::Metric(), row.value.value, row.value.upper, row.asTyped};
    const std::pair square(piece.option, piece.condition);
    if (std::find(to.squares.begin(), to.squares.end(), square) == to.squares.end())
        to.squares.push_back(square);
    to.data.specimens.push_back(std::move(piece));
    to.data.pulls.push_back(std::move(pull));
}

Expected<Compared> compareFile(const TableFile& from, double margin) {
    const auto& file = from.path;
    const auto bytes = readFile(file);
    if (!bytes) return tl::unexpected(bytes.error());
    auto values = tables::readValues(*bytes, from.sheet);
    if (!values) return fail(file + ": " + values.error().message);
    if (values->losesMuch() && !from.allowLoss)
        return fail(file + ": " + values->lossText() +
                    ": mend the table, or take the rest with --allow-loss");
    const auto unit = tables::unify(values->rows);
    if (!unit) return fail(file + ": " + unit.error().message);
    Compared out;
    out.unit = *unit;
    if (!values->notUsed.empty()) {
        std::string names;
        for (const auto& n : values->notUsed)
            names += (names.empty() ? "" : ", ") + fmt::format("\"{}\"", n);
        out.problems.push_back(fmt::format("Not used: {}.", names));
    }
    out.notUsed = values->notUsed;
    for (const auto& p : values->problems)
        out.problems.push_back(fmt::format("Line {} {}: left out.", p.line, p.reason));
    for (const auto& row : values->rows)
        addRow(out, row);
    domain::Goal goal;
    goal.margin = margin;
    out.verdict = results::evaluate(out.data, {}, goal);
    return out;
}

std::vector<std::string> groupLine(const Compared& data, const results::Group& g) {
    const auto& s = g.summary;
    const std::string unit = data.unit ? " " + std::string(data.unit->symbol) : "";
    const auto shown = [&](const std::optional<double>& v) {
        return v ? significant(*v) + unit : std::string("–");
    };
    return {data.option(g),
            data.condition(g),
            fmt::format("{}", s.n),
            (s.mean && s.basis == stats::MeanBasis::bound ? "at least " : "") + shown(s.mean),
            s.meanInterval
                ? significant(s.meanInterval->first) + " to " + significant(s.meanInterval->second) + unit
                : "–",
            shown(s.sd),
            s.cv ? quantity::percent(*s.cv) : "–",
            shown(s.lowest)};
}

Expected<Output> statistics(const TableFile& file, double marginPercent, bool allPairs) {
    if (!(marginPercent > 0)) return fail("The margin must be more than 0 %.");
    const auto data = compareFile(file, marginPercent / 100);
    if (!data) return tl::unexpected(data.error());
    Json groups = Json::array(), comparisons = Json::array();
    std::vector<std::vector<std::string>> rows{
        {"Option", "Condition", "n", "Mean", "95 % interval", "s", "CV", "Lowest"}};
    for (std::size_t k = 0; k < data->squares.size(); ++k) {
        groups.push_back(groupRow(data->data, data->group(k)));
        rows.push_back(groupLine(*data, data->group(k)));
    }
    Output out;
    out.text = table(rows);
    constexpr std::size_t most = 2000; // pairs told in words
    const auto& pairs = data->verdict.pairs;
    const auto given = results::pairsGiven(data->verdict, data->data.options.size(), allPairs);
    const auto second = results::secondTests(data->verdict, given);
    const bool few = pairs.size() <= most;
    std::size_t untold = 0, leftOut = 0;
    for (std::size_t k = 0; k < pairs.size(); ++k) {
        if (!given[k]) {
            ++leftOut;
            continue;
        }
        auto p = pairs[k];
        if (const auto& test = p.comparison.ratioTest)
            p.comparison.ratio = test->ratio(); // of the means beside it
        comparisons.push_back(pairRow(data->data, data->verdict, p, second[k]));
        // Of very many options nobody reads every pair: those with the first of each condition are told.
        const bool told = few || data->verdict.groups[p.a].rank == 1 || data->verdict.groups[p.b].rank == 1;
        if (told) out.text += words::sentence(data->data, data->verdict, p) + "\n";
        untold += !told;
    }
    if (untold > 0) out.text += fmt::format("{} more pairs are in --json.\n", untold);
    if (leftOut > 0) out.text += fmt::format("{} more pairs with --all-pairs.\n", leftOut);
    for (const auto& p : data->problems)
        out.text += p + "\n";
    out.json = {{"unit", data->unit && !data->unit->symbol.empty() ? Json(std::string(data->unit->symbol))
                                                                   : Json(nullptr)},
                {"groups", groups},
                {"comparisons", comparisons},
                {"columns_not_used", data->notUsed}};
    if (leftOut > 0) out.json["comparisons_left_out"] = leftOut; // of more than 60 options only
    return out;
}

/// The places of a condition's groups: drawn where they can be, else by their means.
void rankCondition(const Compared& data, const domain::Condition& condition, const Drawing& drawing,
                   Output& out, std::vector<std::vector<std::string>>& rows, std::string& left) {
    const auto drawn = results::rankingOf(data.data, data.verdict, condition.id, drawing.seed, drawing.draws);
    std::vector<std::size_t> order = drawn ? drawn->groups : std::vector<std::size_t>{};
    if (!drawn)
        for (const auto i : data.verdict.inCondition(condition.id))
            if (data.verdict.groups[i].summary.mean) order.push_back(i);
    for (const auto i : data.verdict.inCondition(condition.id)) {
        const auto& g = data.verdict.groups[i];
        if (g.summary.n > 0 && std::find(order.begin(), order.end(), i) == order.end())
            left += fmt::format("{}{} cannot be ranked: its values say only \"at most\".\n", data.option(g),
                                condition.name.empty() ? "" : " in " + condition.name);
    }
    if (drawn) {
        auto& spread = out.json["spread"];
        if (spread.is_null() || drawn->spread == stats::DrawnSpread::pooled)
            spread = stats::word(drawn->spread);
    }
    for (std::size_t k = 0; k < order.size(); ++k) {
        const auto& g = data.verdict.groups[order[k]];
        const auto* place = drawn ? &drawn->places[k] : nullptr;
        const char* bound = g.summary.bound == stats::Bound::above                        ? "at least "
                            : g.summary.bound == stats::Bound::below                      ? "at most "
                            : g.summary.typicalBasis == stats::TypicalBasis::fittedMedian ? "about "
                                                                                          : "";
        out.json["ranking"].push_back(rankRow(data.data, g, place));
        rows.push_back({fmt::format("{}", k + 1), data.option(g), condition.name,
                        g.summary.typical ? bound + significant(*g.summary.typical) +
                                                (data.unit ? " " + std::string(data.unit->symbol) : "")
                                          : "–",
                        place ? quantity::percent(place->best) : "–",
                        results::sharedLetters(data.verdict, g)});
    }
}

Expected<Output> rank(const TableFile& file, const Drawing& drawing) {
    if (drawing.draws < 100 || drawing.draws > 10'000'000)
        return fail("The number of draws must lie between 100 and 10 000 000.");
    const auto data = compareFile(file, 0.1);
    if (!data) return tl::unexpected(data.error());
    auto conditions = data->data.conditions;
    std::sort(conditions.begin(), conditions.end(),
              [](const auto& a, const auto& b) { return a.name < b.name; });
    Output out;
    out.json = {{"ranking", Json::array()}, {"spread", nullptr}};
    std::vector<std::vector<std::string>> rows{
        {"Rank", "Option", "Condition", "Typical", "Chance to be best", "Ties"}};
    std::string left;
    for (const auto& condition : conditions)
        rankCondition(*data, condition, drawing, out, rows, left);
    out.text = table(rows) + left;
    return out;
}

} // namespace

void addStatsCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands) {
    const auto file = std::make_shared<TableFile>();
    const auto margin = std::make_shared<double>(10);
    const auto drawing = std::make_shared<Drawing>();
    auto* s = app.add_subcommand(
        "stats", "Summaries and comparisons of a table of results (option, value, condition, unit, state …)");
    const auto addFile = [&](CLI::App* command) {
        command->add_option("FILE", file->path)->required();
        command->add_option("--sheet", file->sheet, "sheet of a spreadsheet, by name or number");
        command->add_flag("--allow-loss", file->allowLoss,
                          "take a table of which more than 2 % cannot be read");
    };
    addFile(s);
    addNumber(*s, "--margin", *margin, "smallest difference that matters, in percent");
    const auto allPairs = std::make_shared<bool>(false);
    s->add_flag("--all-pairs", *allPairs, "every pair of more than 60 options, not only those that matter");
    commands.emplace_back(s, [file, margin, allPairs] { return statistics(*file, *margin, *allPairs); });

    auto* r = app.add_subcommand("rank", "Rank the options of a table of results, and how sure that is");
    addFile(r);
    r->add_option("--seed", drawing->seed, "the same seed gives the same answer");
    r->add_option("--draws", drawing->draws, "how often the means are drawn: 20 000 tell a chance to 0.7 %");
    commands.emplace_back(r, [file, drawing] { return rank(*file, *drawing); });
}

} // namespace anvil::cli
