#include <anvil/stats/compare.h>
#include <anvil/stats/rank_sum.h>

#include "distributions.h"
#include <algorithm>
#include <cmath>
#include <map>

namespace anvil::stats {

const char* word(PairVerdict verdict) {
    static constexpr const char* words[] = {"stronger",  "weaker",     "same",
                                            "too_close", "not_enough", "not_yet"};
    static_assert(std::size(words) == static_cast<std::size_t>(PairVerdict::notYet) + 1);
    return words[static_cast<int>(verdict)];
}

const char* word(PairTest test) {
    static constexpr const char* words[] = {"", "welch", "paired_t", "ranks", "fisher", "censored"};
    static_assert(std::size(words) == static_cast<std::size_t>(PairTest::censored) + 1);
    return words[static_cast<int>(test)];
}

namespace {

/// The two sides' values block by block; empty unless every block holds one of each.
std::vector<std::pair<double, double>> inBlocks(const Side& a, const Side& b) {
    if (a.blocked.empty() || a.blocked.size() != b.blocked.size()) return {};
    const std::map<std::string, double> left(a.blocked.begin(), a.blocked.end()),
        right(b.blocked.begin(), b.blocked.end());
    if (left.size() != a.blocked.size() || right.size() != b.blocked.size()) return {}; // a block holds two
    std::vector<std::pair<double, double>> pairs;
    for (const auto& [block, value] : left) {
        const auto other = right.find(block);
        if (other == right.end()) return {};
        pairs.emplace_back(value, other->second);
    }
    return pairs;
}

/// Fills ratio interval and equivalence from the logarithm of the ratio and its standard error.
void onLogs(Comparison& c, double log, double se, double df, double margin) {
    const double half = studentQuantile(df, 0.975) * se;
    if (!std::isfinite(std::exp(log + half))) return;
    c.ratioInterval = {std::exp(log - half), std::exp(log + half)};
    const double edge = std::log1p(margin);
    c.tostP = std::max(studentUpperTail(df, (log + edge) / se), studentUpperTail(df, (edge - log) / se));
}

/// The pair by the differences within blocks.
void comparePaired(Comparison& c, const std::vector<std::pair<double, double>>& pairs, double ma, double mb,
                   double margin) {
    const auto n = static_cast<double>(pairs.size());
    double saa = 0, sbb = 0, sab = 0, sdd = 0;
    const double scale = std::max(std::abs(ma), std::abs(mb));
    for (const auto& [x, y] :
         pairs) { // in shares of the greater mean, so that no square leaves what a double holds
        const double a = (x - ma) / scale, b = (y - mb) / scale;
        saa += a * a;
        sbb += b * b;
        sab += a * b;
        sdd += (a - b) * (a - b);
    }
    const double df = n - 1, se = std::sqrt(sdd / df / n);
    constexpr double rounding = 1e-12; // of the mean: no spread at all
    if (!(se > rounding)) return;
    c.test = PairTest::paired;
    c.t = (ma - mb) / scale / se;
    c.df = df;
    c.p = std::min(1.0, 2 * studentUpperTail(df, std::abs(*c.t)));
    if (!(ma > 0 && mb > 0)) return;
    const double ra = ma / scale, rb = mb / scale;
    const double variance = (saa / (ra * ra) + sbb / (rb * rb) - 2 * sab / (ra * rb)) / df / n;
    if (variance > rounding * rounding)
        onLogs(c, std::log(ma) - std::log(mb), std::sqrt(variance), df, margin);
}

} // namespace

Comparison compare(const Side& sideA, const Side& sideB, double margin) {
    const auto &a = sideA.summary, &b = sideB.summary;
    Comparison c;
    if (!a.mean || !b.mean) return c;
    if (a.censored() || b.censored()) return c; // a ratio of bounds says nothing
    const double ma = *a.mean, mb = *b.mean;
    c.difference = finite(ma - mb);
    const bool positive = ma > 0 && mb > 0;
    if (positive) c.ratio = finite(ma / mb);
    if (a.n < 2 || b.n < 2) return c;
    if (const auto pairs = inBlocks(sideA, sideB); pairs.size() > 1 && pairs.size() == a.n) {
        comparePaired(c, pairs, ma, mb, margin);
        return c;
    }
    const auto na = static_cast<double>(a.n), nb = static_cast<double>(b.n);
    // Welch's degrees of freedom by the share of one side, so that no square leaves what a double holds.
    const auto welchDf = [&](double ea, double eb) { // standard errors of the two sides
        const double share = 1 / (1 + (eb / ea) * (eb / ea)), rest = 1 / (1 + (ea / eb) * (ea / eb));
        return 1 / (share * share / (na - 1) + rest * rest / (nb - 1));
    };
    const double ea = *a.sd / std::sqrt(na), eb = *b.sd / std::sqrt(nb);
    if (ea == 0 && eb == 0) return c;
    if (const double se = std::hypot(ea, eb), df = welchDf(ea, eb); std::isfinite((ma - mb) / se)) {
        c.test = PairTest::welch;
        c.t = (ma - mb) / se;
        c.df = df;
        c.p = std::min(1.0, 2 * studentUpperTail(df, std::abs(*c.t)));
    }
    if (!positive || !c.p) return c;
    const double ra = ea / ma, rb = eb / mb;
    onLogs(c, std::log(ma) - std::log(mb), std::hypot(ra, rb), welchDf(ra, rb), margin);
    return c;
}

Comparison compareGraded(std::span<const double> a, std::span<const double> b) {
    Comparison c;
    if (a.empty() || b.empty()) return c;
    c.test = PairTest::ranks;
    c.p = mannWhitneyP(a, b);
    // Which of the two has more of the higher steps, as the ranks see it.
    double more = 0;
    for (const double x : a)
        for (const double y : b)
            more += x > y ? 1 : x < y ? -1 : 0;
    c.difference = more / (static_cast<double>(a.size()) * static_cast<double>(b.size()));
    return c;
}

Comparison compareCounted(Tally a, Tally b) {
    Comparison c;
    if (a.tries < 1 || b.tries < 1) return c;
    c.test = PairTest::counts;
    c.p = fisherExact(a, b);
    const double x = static_cast<double>(a.successes) / a.tries,
                 y = static_cast<double>(b.successes) / b.tries;
    c.difference = x - y;
    if (x > 0 && y > 0) {
        c.ratio = x / y;
        if (const auto ends = ratioInterval(a, b); std::isfinite(ends.second)) c.ratioInterval = ends;
    }
    return c;
}

namespace {

/// The replicates that settle the margin at each spread, which is sorted here. They rise with it, so that
/// between two spreads that need as many nothing has to be computed: a family of 500 options has 124 750
/// pairs.
std::vector<std::optional<int>> replicatesForEach(std::vector<std::pair<double, std::size_t>>& close,
                                                  double margin, double level) {
    std::sort(close.begin(), close.end());
    std::vector<std::optional<int>> out(close.size());
    if (close.empty()) return out;
    const auto at = [&](std::size_t k) { return replicatesFor(close[k].first, margin, 0.8, level); };
    std::vector<std::pair<std::size_t, std::size_t>> open{{0, close.size() - 1}}; // both ends known
    out.front() = at(0);
    out.back() = at(close.size() - 1);
    while (!open.empty()) {
        const auto [low, high] = open.back();
        open.pop_back();
        if (high - low < 2) continue;
        if (out[low] == out[high] && close[low].first > 0) {
            std::fill(out.begin() + static_cast<std::ptrdiff_t>(low) + 1,
                      out.begin() + static_cast<std::ptrdiff_t>(high), out[low]);
            continue;
        }
        const auto middle = low + (high - low) / 2;
        out[middle] = at(middle);
        open.emplace_back(low, middle);
        open.emplace_back(middle, high);
    }
    return out;
}

/// The spread by which replicates for a pair are counted: what both sides share, or, where they were drawn,
/// that which would give the interval with as many exact values.
std::optional<double> spreadOf(const Comparison& c, const Summary& a, const Summary& b) {
    if (c.test != PairTest::censored)
        return a.cv && b.cv ? std::optional(std::hypot(*a.cv, *b.cv) / std::sqrt(2.0)) : std::nullopt;
    if (!c.ratioInterval) return std::nullopt;
    const double se = std::log(c.ratioInterval->second / c.ratioInterval->first) / (2 * 1.959963984540054);
    return se / std::sqrt(1 / static_cast<double>(a.n) + 1 / static_cast<double>(b.n));
}

} // namespace

PairVerdict verdictOf(const Comparison& c, const Summary& a, const Summary& b) {
    constexpr double level = 0.05;
    if ((a.n < 2 || b.n < 2) && c.test != PairTest::counts) return PairVerdict::notEnough;
    if ((a.censored() || b.censored()) && !c.p) return PairVerdict::notYet;
    if (c.tostP && *c.tostP < level) return PairVerdict::same;
    if (c.pHolm && *c.pHolm < level)
        return (c.t            ? *c.t > 0
                : c.difference ? *c.difference > 0
                               : *c.ratio > 1)
                   ? PairVerdict::stronger
                   : PairVerdict::weaker;
    return c.atLeast || c.atMost ? PairVerdict::notYet : PairVerdict::tooClose;
}

void judge(std::span<Comparison> family, std::span<const SidePair> groups, double margin) {
    std::vector<std::size_t> tested;
    for (std::size_t i = 0; i < family.size(); ++i) {
        if (family[i].test == PairTest::none)
            family[i] = compare(*groups[i].first, *groups[i].second, margin);
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
    for (std::size_t i = 0; i < family.size(); ++i)
        family[i].verdict = verdictOf(family[i], groups[i].first->summary, groups[i].second->summary);
}

void decide(std::span<Comparison> family, std::span<const SidePair> groups, double margin) {
    judge(family, groups, margin);
    std::size_t tested = 0;
    std::vector<std::pair<double, std::size_t>> close; // spread and place of pairs that are too close
    for (std::size_t i = 0; i < family.size(); ++i) {
        const auto& c = family[i];
        tested += c.p.has_value();
        if (c.verdict != PairVerdict::tooClose || !c.tostP) continue;
        if (const auto spread = spreadOf(c, groups[i].first->summary, groups[i].second->summary))
            close.emplace_back(*spread, i);
    }
    const double level = 0.05 / static_cast<double>(std::max<std::size_t>(1, tested)); // after Holm
    const auto needed = replicatesForEach(close, margin, level);
    for (std::size_t k = 0; k < close.size(); ++k) {
        const auto i = close[k].second;
        const auto fewer = std::min(groups[i].first->summary.n, groups[i].second->summary.n);
        if (needed[k]) family[i].moreEach = std::max(0, *needed[k] - static_cast<int>(fewer));
    }
}

} // namespace anvil::stats
