#include <anvil/words/ranked.h>

#include <anvil/quantity/print.h>
#include <anvil/words/values.h>

namespace anvil::words {
namespace {

std::vector<TableColumn> columnsOf(const domain::StudyData& data, bool conditions) {
    std::vector<TableColumn> out{{"rank", "Rank", true}, {"option", "Option"}};
    if (conditions) out.push_back({"condition", "Condition"});
    out.insert(out.end(), {{"n", "n"},
                           {"mean", "Mean", true},
                           {"interval", "95 % interval", true},
                           {"sd", "s", true},
                           {"cv", "CV", true},
                           {"lowest", "Lowest", true},
                           {"mean_minus_3sd", "Mean − 3 s", true},
                           {"drop_high_low", "Without high and low", true},
                           {"ties", "Ties"}});
    if (std::any_of(data.options.begin(), data.options.end(),
                    [](const auto& o) { return o.unitCost.has_value(); }))
        out.push_back({"cost", "Cost each", true});
    return out;
}

std::string cell(const domain::StudyData& data, const results::Verdict& verdict, const results::Group& g,
                 const quantity::Unit& unit, std::string_view column) {
    const auto& s = g.summary;
    const auto& option = data.optionAt(g.option);
    const auto shown = [&](const std::optional<double>& x) {
        return x ? quantity::withUnit(*x, unit) : std::string("–");
    };
    if (column == "rank") return g.rank ? std::to_string(g.rank) : "–";
    if (column == "option") return option.name;
    if (column == "condition") return data.conditionAt(g.condition).name;
    if (column == "n") return countText(s);
    if (column == "mean") return meanText(s, unit);
    if (column == "interval") return intervalText(s, unit);
    if (column == "sd") return shown(s.sd);
    if (column == "cv") return s.cv ? quantity::percent(*s.cv) : "–";
    if (column == "lowest") {
        // The least that was recorded may be a bound: "at most 100" is no lowest of 100.
        const results::GroupValue* least = nullptr;
        for (const auto& v : g.values)
            if (!v.value.aside && (!least || v.value.value < least->value.value)) least = &v;
        const bool bound = least && least->value.bound == stats::Bound::below;
        return (bound ? "at most " : "") + shown(s.lowest);
    }
    if (column == "mean_minus_3sd") return s.meanMinus3Sd ? shown(s.meanMinus3Sd) : "none from so few";
    if (column == "drop_high_low") return shown(s.dropHighLowMean);
    if (column == "ties") return results::sharedLetters(verdict, g);
    return option.unitCost ? quantity::fixed(*option.unitCost, 2) + " " + option.currency : "–";
}

} // namespace

Table rankedTable(const domain::StudyData& data, const results::Verdict& verdict, const quantity::Unit& unit,
                  std::optional<domain::Id> condition) {
    Table t{"ranking", columnsOf(data, !condition && data.conditions.size() > 1), {}};
    for (std::size_t i = 0; i < verdict.groups.size(); ++i) {
        const auto& g = verdict.groups[i];
        if (condition && g.condition != *condition) continue;
        Row row{{}, static_cast<long long>(i)};
        for (const auto& c : t.columns)
            row.cells.push_back(cell(data, verdict, g, unit, c.key));
        t.rows.push_back(std::move(row));
    }
    return t;
}

namespace {

std::string meanRule(stats::MeanBasis basis) {
    switch (basis) {
    case stats::MeanBasis::sample:
        return "Sum of the values over their number.";
    case stats::MeanBasis::median:
        return "The middle one of the steps by order: a scale has no distances, so it has no mean.";
    case stats::MeanBasis::counts:
        return "All successes over all tries, with the exact interval of Clopper and Pearson.";
    case stats::MeanBasis::bound:
        return "Sum of the values over their number, bounds counted at their limit: the true mean is at "
               "least "
               "this.";
    case stats::MeanBasis::normal:
        return "Mean of the normal distribution that fits values and bounds best.";
    case stats::MeanBasis::lognormal:
        return "Mean of the log-normal distribution that fits values and bounds best.";
    case stats::MeanBasis::weibull:
        return "Mean of the Weibull distribution that fits values and bounds best.";
    }
    return {};
}

} // namespace

std::string ruleOf(std::string_view column, const stats::Summary& s) {
    if (column == "mean" && s.typicalBasis == stats::TypicalBasis::fittedMedian)
        return "Median of the distribution that fits values and bounds best: some value of this condition is "
               "only a bound, and then every average of it is told so.";
    if (column == "mean" && s.bound == stats::Bound::below)
        return "Sum of the values over their number, bounds counted at their limit: the true mean is at most "
               "this.";
    if (column == "mean") return meanRule(s.basis);
    if (column == "interval")
        return s.typicalBasis == stats::TypicalBasis::fittedMedian
                   ? "From what the values and bounds leave possible for the fitted median."
                   : "Mean ± t × s / √n, t from Student's distribution with n − 1 degrees of freedom.";
    if (column == "sd")
        return s.censored() ? "Standard deviation of the fitted distribution."
                            : "Standard deviation with n − 1.";
    if (column == "cv") return "s over the mean.";
    if (column == "lowest") return "The least value recorded.";
    if (column == "mean_minus_3sd")
        return "Mean less three standard deviations. From five pulls it promises with 65 % confidence that "
               "99 % exceed it.";
    if (column == "drop_high_low")
        return "Mean without one greatest and one least value; from four values on.";
    return "From the pulls below.";
}

} // namespace anvil::words
