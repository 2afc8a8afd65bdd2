#include <anvil/stats/compare.h>

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
    c.difference = ma - mb;
    const bool positive = ma > 0 && mb > 0;
    if (positive) c.ratio = ma / mb;
    if (a.n < 2 || b.n < 2) return c;
    const auto na = static_cast<double>(a.n), nb = static_cast<double>(b.n);
    const double va = *a.sd * *a.sd / na, vb = *b.sd * *b.sd / nb;
    if (va + vb > 0) {
        c.t = (ma - mb) / std::sqrt(va + vb);
        c.df = (va + vb) * (va + vb) / (va * va / (na - 1) + vb * vb / (nb - 1));
        c.p = std::min(1.0, 2 * studentUpperTail(*c.df, std::abs(*c.t)));
    }
    if (positive && va + vb > 0) {
        const double A = va / (ma * ma), B = vb / (mb * mb), se = std::sqrt(A + B);
        const double df = (A + B) * (A + B) / (A * A / (na - 1) + B * B / (nb - 1));
        const double log = std::log(*c.ratio), half = studentQuantile(df, 0.975) * se;
        c.ratioInterval = {std::exp(log - half), std::exp(log + half)};
        const double edge = std::log1p(margin);
        c.tostP = std::max(studentUpperTail(df, (log + edge) / se), studentUpperTail(df, (edge - log) / se));
        const double cv = std::sqrt((*a.cv * *a.cv + *b.cv * *b.cv) / 2);
        if (const auto n = replicatesFor(cv, margin))
            c.moreEach = std::max(0, *n - static_cast<int>(std::min(a.n, b.n)));
    }
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
        if (c.verdict != PairVerdict::tooClose) c.moreEach.reset();
    }
}

} // namespace anvil::stats
