// stats, rank.
#include "output.h"

#include <anvil/quantity/print.h>
#include <anvil/stats/compare.h>
#include <anvil/study/verdict.h>
#include <anvil/tables/values.h>
#include <anvil/words/verdict.h>
#include <fmt/format.h>
#include <map>

namespace anvil::cli {
namespace {

using quantity::significant;

struct Group {
    std::string option, condition;
    std::vector<stats::Value> values;
    std::vector<std::string> blocks{}; ///< of each value; empty where it names none
    stats::Summary summary{};
};

struct Pair {
    std::size_t a = 0, b = 0;
    bool acrossConditions = false;
    stats::Comparison comparison;
};

struct Compared {
    const quantity::Unit* unit = nullptr;
    bool hasConditions = false;
    std::vector<Group> groups;
    std::vector<Pair> pairs;
    std::vector<std::string> problems;
};

/// The group as a side of a pair: by its blocks where every value has one.
stats::Side sideOf(const Group& g) {
    stats::Side side(g.summary);
    for (std::size_t i = 0; i < g.values.size(); ++i) {
        if (g.values[i].state == stats::State::aside) continue;
        if (g.values[i].state != stats::State::exact || g.blocks[i].empty()) return {g.summary};
        side.blocked.emplace_back(g.blocks[i], g.values[i].value);
    }
    return side;
}

/// A table of results, and which of its sheets.
struct TableFile {
    std::string path, sheet;
    bool allowLoss = false; ///< take what can be read of it
};

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
    out.hasConditions = values->hasConditions;
    for (const auto& p : values->problems)
        out.problems.push_back(fmt::format("Line {} {}: left out.", p.line, p.reason));
    std::vector<std::string> options, conditions; // in file order
    for (const auto& row : values->rows) {
        const auto remember = [](std::vector<std::string>& names, const std::string& name) {
            if (std::find(names.begin(), names.end(), name) == names.end()) names.push_back(name);
        };
        remember(options, row.option);
        remember(conditions, row.condition);
        auto at = std::find_if(out.groups.begin(), out.groups.end(), [&](const Group& g) {
            return g.option == row.option && g.condition == row.condition;
        });
        if (at == out.groups.end())
            at = out.groups.insert(out.groups.end(), Group{row.option, row.condition, {}});
        at->values.push_back(row.value);
        at->blocks.push_back(row.block);
    }
    for (auto& g : out.groups)
        g.summary = stats::summarise(g.values);
    const auto addFamily = [&](const std::vector<std::size_t>& members, bool across) {
        std::vector<Pair> family;
        std::vector<std::pair<stats::Side, stats::Side>> sides;
        for (std::size_t i = 0; i < members.size(); ++i)
            for (std::size_t j = i + 1; j < members.size(); ++j) {
                family.push_back({members[i], members[j], across, {}});
                sides.emplace_back(sideOf(out.groups[members[i]]), sideOf(out.groups[members[j]]));
            }
        std::vector<stats::Comparison> results(family.size());
        stats::decide(results, sides, margin);
        for (std::size_t k = 0; k < family.size(); ++k) {
            family[k].comparison = results[k];
            out.pairs.push_back(family[k]);
        }
    };
    const auto members = [&](const std::string& name, bool byCondition,
                             const std::vector<std::string>& order) {
        std::vector<std::size_t> m;
        for (const auto& other : order)
            for (std::size_t i = 0; i < out.groups.size(); ++i)
                if ((byCondition ? out.groups[i].condition : out.groups[i].option) == name &&
                    (byCondition ? out.groups[i].option : out.groups[i].condition) == other)
                    m.push_back(i);
        return m;
    };
    for (const auto& c : conditions)
        addFamily(members(c, true, options), false);
    if (out.hasConditions)
        for (const auto& o : options)
            addFamily(members(o, false, conditions), true);
    return out;
}

Json named(const std::string& text) { return text.empty() ? Json(nullptr) : Json(text); }

Json interval(const std::optional<std::pair<double, double>>& v) {
    return v ? Json{number(v->first), number(v->second)} : Json(nullptr);
}

Expected<Output> statistics(const TableFile& file, double marginPercent) {
    if (!(marginPercent > 0)) return fail("The margin must be more than 0 %.");
    const auto data = compareFile(file, marginPercent / 100);
    if (!data) return tl::unexpected(data.error());
    Json groups = Json::array(), comparisons = Json::array();
    std::vector<std::vector<std::string>> rows{
        {"Option", "Condition", "n", "Mean", "95 % interval", "s", "CV", "Lowest"}};
    const std::string unit = data->unit ? " " + std::string(data->unit->symbol) : "";
    for (const auto& g : data->groups) {
        const auto& s = g.summary;
        Json floors = {{"lowest", number(s.lowest)}, {"mean_minus_3sd", number(s.meanMinus3Sd)}};
        for (const char* later :
             {"normal_90_95", "normal_95_95", "normal_99_95", "lognormal_90_95", "weibull_90_95"})
            floors[later] = nullptr;
        groups.push_back(
            {{"option", g.option},
             {"condition", named(g.condition)},
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
             {"outliers", nullptr}});
        const auto shown = [&](const std::optional<double>& v) {
            return v ? significant(*v) + unit : std::string("–");
        };
        rows.push_back({g.option, g.condition, fmt::format("{}", s.n),
                        (s.mean && s.basis == stats::MeanBasis::bound ? "at least " : "") + shown(s.mean),
                        s.meanInterval ? significant(s.meanInterval->first) + " to " +
                                             significant(s.meanInterval->second) + unit
                                       : "–",
                        shown(s.sd), s.cv ? quantity::percent(*s.cv) : "–", shown(s.lowest)});
    }
    study::Goal goal;
    goal.margin = marginPercent / 100;
    Output out;
    out.text = table(rows);
    for (const auto& p : data->pairs) {
        const auto &a = data->groups[p.a], &b = data->groups[p.b];
        const auto& c = p.comparison;
        Json row = {{"a", p.acrossConditions ? named(a.condition) : Json(a.option)},
                    {"b", p.acrossConditions ? named(b.condition) : Json(b.option)},
                    {"condition", p.acrossConditions ? Json(nullptr) : named(a.condition)},
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
        if (p.acrossConditions) row["option"] = a.option;
        comparisons.push_back(row);
        out.text += words::sentence(p.acrossConditions ? a.option + " " + a.condition : a.option,
                                    p.acrossConditions ? b.condition : b.option,
                                    p.acrossConditions ? "" : a.condition, c, a.summary, b.summary, goal) +
                    "\n";
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
    std::vector<std::string> conditions;
    for (const auto& g : data->groups)
        if (std::find(conditions.begin(), conditions.end(), g.condition) == conditions.end())
            conditions.push_back(g.condition);
    std::sort(conditions.begin(), conditions.end());
    Output out;
    out.json = {{"ranking", Json::array()}, {"spread", nullptr}};
    std::string left;
    std::vector<std::vector<std::string>> rows{{"Rank", "Option", "Condition", "Mean", "Ties"}};
    for (const auto& condition : conditions) {
        std::vector<std::size_t> members;
        for (std::size_t i = 0; i < data->groups.size(); ++i)
            if (data->groups[i].condition == condition && data->groups[i].summary.mean) members.push_back(i);
        std::stable_sort(members.begin(), members.end(), [&](auto i, auto j) {
            return *data->groups[i].summary.mean > *data->groups[j].summary.mean;
        });
        std::vector<std::vector<stats::PairVerdict>> verdicts(
            members.size(), std::vector<stats::PairVerdict>(members.size(), stats::PairVerdict::notEnough));
        std::map<std::size_t, std::size_t> placeOf;
        for (std::size_t k = 0; k < members.size(); ++k)
            placeOf[members[k]] = k;
        for (const auto& p : data->pairs) {
            const auto a = placeOf.find(p.a), b = placeOf.find(p.b);
            if (!p.acrossConditions && a != placeOf.end() && b != placeOf.end())
                verdicts[std::min(a->second, b->second)][std::max(a->second, b->second)] =
                    p.comparison.verdict;
        }
        const auto letters = stats::tieLetters(members.size(), verdicts);
        for (std::size_t k = 0; k < members.size(); ++k) {
            const auto& g = data->groups[members[k]];
            const bool bound = g.summary.basis == stats::MeanBasis::bound;
            out.json["ranking"].push_back({{"option", g.option},
                                           {"condition", named(g.condition)},
                                           {"p_best", nullptr},
                                           {"expected_rank", nullptr},
                                           {"rank90", nullptr},
                                           {"letters", letters[k]},
                                           {"at_least", bound}});
            rows.push_back({fmt::format("{}", k + 1), g.option, g.condition,
                            (bound ? "at least " : "") + significant(*g.summary.mean) +
                                (data->unit ? " " + std::string(data->unit->symbol) : ""),
                            stats::sharedLetters(letters, k)});
        }
        for (const auto& g : data->groups)
            if (g.condition == condition && !g.summary.mean && g.summary.n > 0)
                left += fmt::format("{}{} has no mean: some of its values say only \"at most\".\n", g.option,
                                    condition.empty() ? "" : " in " + condition);
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
