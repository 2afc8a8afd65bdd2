#include <anvil/stats/compare.h>

#include "distributions.h"
#include <algorithm>
#include <cmath>

namespace anvil::stats {

const char* word(PairVerdict verdict) {
    static constexpr const char* words[] = {"stronger",  "weaker",     "same",
                                            "too_close", "not_enough", "not_yet"};
    return words[static_cast<int>(verdict)];
}

Comparison compare(const Summary& a, const Summary& b, double margin) {
    Comparison c;
    if (!a.mean || !b.mean) return c;
    if (a.censored() || b.censored()) return c; // a ratio of bounds says nothing
    const double ma = *a.mean, mb = *b.mean;
    c.difference = finite(ma - mb);
    const bool positive = ma > 0 && mb > 0;
    if (positive) c.ratio = finite(ma / mb);
    if (a.n < 2 || b.n < 2) return c;
    const auto na = static_cast<double>(a.n), nb = static_cast<double>(b.n);
    // Welch's degrees of freedom by the share of one side, so that no square leaves what a double holds.
    const auto welchDf = [&](double ea, double eb) { // standard errors of the two sides
        const double share = 1 / (1 + (eb / ea) * (eb / ea)), rest = 1 / (1 + (ea / eb) * (ea / eb));
        return 1 / (share * share / (na - 1) + rest * rest / (nb - 1));
    };
    const double ea = *a.sd / std::sqrt(na), eb = *b.sd / std::sqrt(nb);
    if (ea == 0 && eb == 0) return c;
    if (const double se = std::hypot(ea, eb), df = welchDf(ea, eb); std::isfinite((ma - mb) / se)) {
        c.t = (ma - mb) / se;
        c.df = df;
        c.p = std::min(1.0, 2 * studentUpperTail(df, std::abs(*c.t)));
    }
    if (!positive || !c.p) return c;
    const double ra = ea / ma, rb = eb / mb, se = std::hypot(ra, rb), df = welchDf(ra, rb);
    const double log = std::log(ma) - std::log(mb), half = studentQuantile(df, 0.975) * se;
    if (!std::isfinite(std::exp(log + half))) return c;
    c.ratioInterval = {std::exp(log - half), std::exp(log + half)};
    const double edge = std::log1p(margin);
    c.tostP = std::max(studentUpperTail(df, (log + edge) / se), studentUpperTail(df, (edge - log) / se));
    return c;
}

void decide(std::span<Comparison> family, std::span<const std::pair<Summary, Summary>> groups,
            double margin) {
    std::vector<std::size_t> tested;
    for (std::size_t i = 0; i < family.size(); ++i) {
        family[i] = compare(groups[i].first, groups[i].second, margin);
        if (family[i].p) tested.push_back(i);
    }
    std::stable_sort(tested.begin(), tested.end(),
                     [&](auto i, auto j) { return *family[i].p < *family[j].p; });
    double running = 0;
    for (std::size_t k = 0; k < tested.size(); ++k) {
        running =
            std::max(running, std::min(1.0, static_cast<double>(tested.size() - k) * *family[tested[k]].p));
        family[tested[k]].pHolm = running;
    }
    for (std::size_t i = 0; i < family.size(); ++i) {
        auto& c = family[i];
        const auto& [a, b] = groups[i];
        if (a.n < 2 || b.n < 2)
            c.verdict = PairVerdict::notEnough;
        else if (a.censored() || b.censored())
            c.verdict = PairVerdict::notYet;
        else if (c.tostP && *c.tostP < 0.05)
            c.verdict = PairVerdict::same;
        else if (c.pHolm && *c.pHolm < 0.05)
            c.verdict = *c.t > 0 ? PairVerdict::stronger : PairVerdict::weaker;
        else
            c.verdict = PairVerdict::tooClose;
        if (c.verdict == PairVerdict::tooClose && c.tostP) { // costly, and asked for here only
            const double cv = std::hypot(*a.cv, *b.cv) / std::sqrt(2.0);
            if (const auto n = replicatesFor(cv, margin))
                c.moreEach = std::max(0, *n - static_cast<int>(std::min(a.n, b.n)));
        }
    }
}

} // namespace anvil::stats
