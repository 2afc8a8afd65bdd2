// stats, rank.
#include "output.h"

#include <algorithm>
#include <anvil/domain/model.h>
#include <anvil/quantity/print.h>
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

/// A table of results as a study: its values stay in the table's own unit, under the peak, whatever they are.
struct Compared {
    const quantity::Unit* unit = nullptr;
    domain::StudyData data;
    std::vector<std::pair<domain::Id, domain::Id>> squares; ///< option, condition; in the order of the file
    results::Verdict verdict;
    std::vector<std::string> problems;

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

domain::Standing standingOf(stats::State state) {
    switch (state) {
    case stats::State::exact:
        return domain::Standing::counts;
    case stats::State::above:
        return domain::Standing::atLeast;
    case stats::State::below:
        return domain::Standing::atMost;
    case stats::State::between:
        return domain::Standing::between;
    case stats::State::aside:
        break;
    }
    return domain::Standing::aside;
}

void addRow(Compared& to, const tables::ValueRow& row) {
    domain::Specimen piece;
    piece.id = static_cast<domain::Id>(to.data.specimens.size()) + 1;
    piece.option = idOf(to.data.options, row.option);
    piece.condition = idOf(to.data.conditions, row.condition);
    piece.block = row.block;
    domain::Pull pull;
    pull.id = pull.specimen = piece.id;
    pull.standing = standingOf(row.value.state);
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
    for (const auto& p : values->problems)
        out.problems.push_back(fmt::format("Line {} {}: left out.", p.line, p.reason));
    for (const auto& row : values->rows)
        addRow(out, row);
    domain::Goal goal;
    goal.margin = margin;
    out.verdict = results::evaluate(out.data, {}, goal);
    return out;
}

Json named(const std::string& text) { return text.empty() ? Json(nullptr) : Json(text); }

Json interval(const std::optional<std::pair<double, double>>& v) {
    return v ? Json{number(v->first), number(v->second)} : Json(nullptr);
}

Json groupRow(const Compared& data, const results::Group& g) {
    const auto& s = g.summary;
    Json floors = {{"lowest", number(s.lowest)}, {"mean_minus_3sd", number(s.meanMinus3Sd)}};
    for (const char* later :
         {"normal_90_95", "normal_95_95", "normal_99_95", "lognormal_90_95", "weibull_90_95"})
        floors[later] = nullptr;
    return {{"option", data.option(g)},
            {"condition", named(data.condition(g))},
            {"n", s.n},
            {"n_above", s.above},
            {"n_below", s.below},
            {"n_between", s.between},
            {"n_aside", s.aside},
            {"mean", number(s.mean)},
            {"mean_basis",
             s.mean ? Json(s.basis == stats::MeanBasis::sample ? "sample" : "bound") : Json(nullptr)},
            {"sd", number(s.sd)},
            {"cv_percent", number(s.cv ? std::optional(*s.cv * 100) : std::nullopt)},
            {"median", number(s.median)},
            {"min", number(s.min)},
            {"max", number(s.max)},
            {"mean_ci95", interval(s.meanInterval)},
            {"drop_high_low_mean", number(s.dropHighLowMean)},
            {"floors", floors},
            {"fits", {{"normal", nullptr}, {"lognormal", nullptr}, {"weibull", nullptr}}},
            {"outliers", nullptr}};
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

Json pairRow(const Compared& data, const results::PairResult& p) {
    const auto &a = data.verdict.groups[p.a], &b = data.verdict.groups[p.b];
    const auto& c = p.comparison;
    Json row = {{"a", p.acrossConditions ? named(data.condition(a)) : Json(data.option(a))},
                {"b", p.acrossConditions ? named(data.condition(b)) : Json(data.option(b))},
                {"condition", p.acrossConditions ? Json(nullptr) : named(data.condition(a))},
                {"test", c.test == stats::PairTest::none ? Json(nullptr) : Json(stats::word(c.test))},
                {"ratio", number(c.ratio)},
                {"ratio_ci95", interval(c.ratioInterval)},
                {"t", number(c.t)},
                {"df", number(c.df)},
                {"p", number(c.p)},
                {"p_holm", number(c.pHolm)},
                {"p_pooled", nullptr},
                {"mann_whitney_p", nullptr},
                {"tost_p", number(c.tostP)},
                {"verdict", stats::word(c.verdict)},
                {"more_each", c.moreEach ? Json(*c.moreEach) : Json(nullptr)}};
    if (p.acrossConditions) row["option"] = data.option(a);
    return row;
}

Expected<Output> statistics(const TableFile& file, double marginPercent) {
    if (!(marginPercent > 0)) return fail("The margin must be more than 0 %.");
    const auto data = compareFile(file, marginPercent / 100);
    if (!data) return tl::unexpected(data.error());
    Json groups = Json::array(), comparisons = Json::array();
    std::vector<std::vector<std::string>> rows{
        {"Option", "Condition", "n", "Mean", "95 % interval", "s", "CV", "Lowest"}};
    for (std::size_t k = 0; k < data->squares.size(); ++k) {
        groups.push_back(groupRow(*data, data->group(k)));
        rows.push_back(groupLine(*data, data->group(k)));
    }
    Output out;
    out.text = table(rows);
    for (const auto& p : data->verdict.pairs) {
        comparisons.push_back(pairRow(*data, p));
        out.text += words::sentence(data->data, data->verdict, p) + "\n";
    }
    for (const auto& p : data->problems)
        out.text += p + "\n";
    out.json = {{"unit", data->unit && !data->unit->symbol.empty() ? Json(std::string(data->unit->symbol))
                                                                   : Json(nullptr)},
                {"groups", groups},
                {"comparisons", comparisons}};
    return out;
}

/// Ranking by means; the drawn probabilities are not there yet and stay null.
Expected<Output> rank(const TableFile& file) {
    const auto data = compareFile(file, 0.1);
    if (!data) return tl::unexpected(data.error());
    auto conditions = data->data.conditions;
    std::sort(conditions.begin(), conditions.end(),
              [](const auto& a, const auto& b) { return a.name < b.name; });
    Output out;
    out.json = {{"ranking", Json::array()}, {"spread", nullptr}};
    std::string left;
    std::vector<std::vector<std::string>> rows{{"Rank", "Option", "Condition", "Mean", "Ties"}};
    for (const auto& condition : conditions)
        for (const auto i : data->verdict.inCondition(condition.id)) {
            const auto& g = data->verdict.groups[i];
            if (!g.summary.mean) {
                if (g.summary.n > 0)
                    left +=
                        fmt::format("{}{} has no mean: some of its values say only \"at most\".\n",
                                    data->option(g), condition.name.empty() ? "" : " in " + condition.name);
                continue;
            }
            const bool bound = g.summary.basis == stats::MeanBasis::bound;
            out.json["ranking"].push_back({{"option", data->option(g)},
                                           {"condition", named(condition.name)},
                                           {"p_best", nullptr},
                                           {"expected_rank", nullptr},
                                           {"rank90", nullptr},
                                           {"letters", g.letters},
                                           {"at_least", bound}});
            rows.push_back({fmt::format("{}", g.rank), data->option(g), condition.name,
                            (bound ? "at least " : "") + significant(*g.summary.mean) +
                                (data->unit ? " " + std::string(data->unit->symbol) : ""),
                            results::sharedLetters(data->verdict, g)});
        }
    out.text = table(rows) + left;
    return out;
}

} // namespace

void addStatsCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands) {
    static TableFile file;
    static double margin = 10;
    auto* s = app.add_subcommand(
        "stats", "Summaries and comparisons of a table of results (option, value, condition, unit, state …)");
    const auto addFile = [](CLI::App* command) {
        command->add_option("FILE", file.path)->required();
        command->add_option("--sheet", file.sheet, "sheet of a spreadsheet, by name or number");
        command->add_flag("--allow-loss", file.allowLoss,
                          "take a table of which more than 2 % cannot be read");
    };
    addFile(s);
    s->add_option("--margin", margin, "smallest difference that matters, in percent");
    commands.emplace_back(s, [] { return statistics(file, margin); });

    auto* r = app.add_subcommand("rank", "Rank the options of a table of results by their means");
    addFile(r);
    static std::uint64_t seed = 1;
    static int draws = 20000;
    r->add_option("--seed", seed, "accepted for scripts; ranking by means draws nothing");
    r->add_option("--draws", draws, "accepted for scripts; ranking by means draws nothing");
    commands.emplace_back(r, [] { return rank(file); });
}

} // namespace anvil::cli
