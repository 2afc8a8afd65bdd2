#include "rows.h"

#include <anvil/results/one_group.h>
#include <anvil/stats/compare.h>
#include <cmath>

namespace anvil::cli {

Json named(const std::string& text) { return text.empty() ? Json(nullptr) : Json(text); }

Json interval(const std::optional<std::pair<double, double>>& v) {
    return v ? Json{number(v->first), number(v->second)} : Json(nullptr);
}

/// Its ends; null for one that is open.
Json ratioInterval(const std::optional<std::pair<double, double>>& v) {
    if (!v) return nullptr;
    return Json{v->first > 0 ? number(v->first) : Json(nullptr),
                std::isfinite(v->second) ? number(v->second) : Json(nullptr)};
}

namespace {

Json fitRow(const std::optional<stats::Fit>& fit) {
    if (!fit) return nullptr;
    return {
        {"mu", number(fit->location)}, {"sigma", number(fit->scale)}, {"loglik", number(fit->logLikelihood)}};
}

Json weibullRow(const results::OneGroup& one) {
    const auto& fit = one.fit(stats::Family::weibull);
    if (!fit) return nullptr;
    const auto ends = [&](std::pair<double, double> results::WeibullIntervals::*which) {
        return interval(one.weibull ? std::optional((*one.weibull).*which) : std::nullopt);
    };
    return {{"shape", number(fit->shape())},
            {"scale", number(fit->weibullScale())},
            {"loglik", number(fit->logLikelihood)},
            {"shape_ci95", ends(&results::WeibullIntervals::shape)},
            {"scale_ci95", ends(&results::WeibullIntervals::scale)}};
}

Json outlierRows(const results::OneGroup& one) {
    if (!one.outliers) return nullptr;
    Json out = Json::array();
    for (const auto& o : *one.outliers)
        out.push_back({{"value", number(o.value)}, {"test", "grubbs"}, {"p", number(o.p)}});
    return out;
}

} // namespace

Json groupRow(const domain::StudyData& data, const results::Group& g) {
    const auto& s = g.summary;
    const auto one = results::analyse(g);
    const auto& f = one.floors;
    return {{"option", data.optionAt(g.option).name},
            {"condition", named(data.conditionAt(g.condition).name)},
            {"n", s.n},
            {"n_above", s.above},
            {"n_below", s.below},
            {"n_between", s.between},
            {"n_aside", s.aside},
            {"mean", number(s.mean)},
            {"mean_basis", s.mean ? Json(stats::word(s.basis)) : Json(nullptr)},
            {"sd", number(s.sd)},
            {"cv_percent", number(s.cv ? std::optional(*s.cv * 100) : std::nullopt)},
            {"median", number(s.median)},
            {"min", number(s.min)},
            {"max", number(s.max)},
            {"mean_ci95", interval(s.meanInterval)},
            {"drop_high_low_mean", number(s.dropHighLowMean)},
            {"floors",
             {{"lowest", number(f.lowest)},
              {"mean_minus_3sd", number(f.meanMinus3Sd)},
              {"normal_90_95", number(f.normal90_95)},
              {"normal_95_95", number(f.normal95_95)},
              {"normal_99_95", number(f.normal99_95)},
              {"lognormal_90_95", number(f.lognormal90_95)},
              {"weibull_90_95", number(f.weibull90_95)}}},
            {"fits",
             {{"normal", fitRow(one.fit(stats::Family::normal))},
              {"lognormal", fitRow(one.fit(stats::Family::lognormal))},
              {"weibull", weibullRow(one)}}},
            {"outliers", outlierRows(one)}};
}

Json pairRow(const domain::StudyData& data, const results::Verdict& verdict, const results::PairResult& p,
             const results::SecondTests& second) {
    const auto &a = verdict.groups[p.a], &b = verdict.groups[p.b];
    const auto option = [&](const results::Group& g) { return data.optionAt(g.option).name; };
    const auto condition = [&](const results::Group& g) { return data.conditionAt(g.condition).name; };
    const auto& c = p.comparison;
    // With a named control the promise is made of the pairs with it, and of no others.
    const auto control = verdict.goal.control;
    const bool family = p.acrossConditions || !control || a.option == control || b.option == control;
    Json row = {{"a", p.acrossConditions ? named(condition(a)) : Json(option(a))},
                {"b", p.acrossConditions ? named(condition(b)) : Json(option(b))},
                {"condition", p.acrossConditions ? Json(nullptr) : named(condition(a))},
                {"test", c.test == stats::PairTest::none ? Json(nullptr) : Json(stats::word(c.test))},
                {"ratio", number(c.ratio)},
                {"ratio_ci95", ratioInterval(stats::overPair(c))},
                {"t", number(c.t)},
                {"df", number(c.df)},
                {"p", number(c.p)},
                {"p_holm", number(family ? c.pHolm : std::nullopt)},
                {"p_pooled", number(second.pooledP)},
                {"mann_whitney_p", number(second.mannWhitneyP)},
                {"tost_p", number(c.tostP)},
                {"verdict", stats::word(c.verdict)},
                {"more_each", c.moreEach ? Json(*c.moreEach) : Json(nullptr)}};
    if (p.acrossConditions) row["option"] = option(a);
    return row;
}

Json rankRow(const domain::StudyData& data, const results::Group& g, const stats::DrawnPlace* place) {
    return {{"option", data.optionAt(g.option).name},
            {"condition", named(data.conditionAt(g.condition).name)},
            {"p_best", place ? Json(place->best) : Json(nullptr)},
            {"expected_rank", place ? Json(place->expected) : Json(nullptr)},
            {"rank90", place ? Json{place->from, place->to} : Json(nullptr)},
            {"letters", g.letters},
            {"at_least", place ? place->atLeast : g.summary.bound != stats::Bound::exact}};
}

} // namespace anvil::cli
