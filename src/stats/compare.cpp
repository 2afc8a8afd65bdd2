#include <anvil/stats/compare.h>
#include <anvil/stats/rank_sum.h>

#include "distributions.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <system_error>
#include <thread>

namespace anvil::stats {

const char* word(PairVerdict verdict) {
    static constexpr const char* words[] = {"stronger",  "weaker",     "same",
                                            "too_close", "not_enough", "not_yet"};
    static_assert(std::size(words) == static_cast<std::size_t>(PairVerdict::notYet) + 1);
    return words[static_cast<int>(verdict)];
}

const char* word(PairTest test) {
    static constexpr const char* words[] = {"",       "welch",    "paired_t", "ranks",
                                            "fisher", "censored", "pooled_t", "digits"};
    static_assert(std::size(words) == static_cast<std::size_t>(PairTest::digits) + 1);
    return words[static_cast<int>(test)];
}

namespace {

/// The two sides' values by whole blocks, and how many blocks hold one of them only. Empty where a value has
/// no block, a block holds two of a side, or more than half of a side's blocks are broken.
struct Blocks {
    std::vector<std::pair<double, double>> whole;
    std::size_t broken = 0;
};

Blocks inBlocks(const Side& a, const Side& b) {
    if (a.blocked.empty() || b.blocked.empty()) return {};
    const std::map<std::string, double> left(a.blocked.begin(), a.blocked.end()),
        right(b.blocked.begin(), b.blocked.end());
    if (left.size() != a.blocked.size() || right.size() != b.blocked.size()) return {}; // a block holds two
    Blocks out;
    for (const auto& [block, value] : left)
        if (const auto other = right.find(block); other != right.end())
            out.whole.emplace_back(value, other->second);
    const auto whole = out.whole.size();
    if (whole < 2 || 2 * whole < left.size() || 2 * whole < right.size()) return {};
    out.broken = left.size() + right.size() - 2 * whole;
    return out;
}

/// Everything that follows from the test of the ratio.
void fill(Comparison& c, const RatioTest& test, double margin) {
    if (!std::isfinite(test.t(1))) return;
    c.t = test.t(1);
    c.df = test.df(1);
    c.p = test.p(1);
    if (!c.ratio) return;
    c.ratioTest = test;
    c.tostP = test.sameP(margin);
}

/// The pair by the differences within whole blocks.
void comparePaired(Comparison& c, const Blocks& blocks, double margin) {
    const auto n = static_cast<double>(blocks.whole.size());
    double ma = 0, mb = 0, scale = 0;
    for (const auto& [x, y] : blocks.whole)
        scale = std::max({scale, std::abs(x), std::abs(y)});
    for (const auto& [x, y] : blocks.whole)
        ma += x / scale / n, mb += y / scale / n;
    double saa = 0, sbb = 0, sab = 0, sdd = 0;
    for (const auto& [x, y] : blocks.whole) {
        const double a = x / scale - ma, b = y / scale - mb;
        saa += a * a;
        sbb += b * b;
        sab += a * b;
        sdd += (a - b) * (a - b);
    }
    const double df = n - 1;
    c.blocks = blocks.whole.size();
    c.brokenBlocks = blocks.broken;
    c.difference = finite((ma - mb) * scale);
    c.ratio = ma > 0 && mb > 0 ? finite(ma / mb) : std::nullopt;
    constexpr double rounding = 1e-12;           // of the mean: no spread at all
    if (!(std::sqrt(sdd / df / n) > rounding)) { // every block shows the same difference
        c.test = PairTest::digits;
        return;
    }
    c.test = PairTest::paired;
    fill(c, RatioTest::paired(ma, mb, std::sqrt(saa / df / n), std::sqrt(sbb / df / n), sab / df / n, n),
         margin);
}

/// Whether two averages are the same number.
bool alike(double a, double b) { return std::abs(a - b) <= 1e-9 * std::max(std::abs(a), std::abs(b)); }

/// No spread on either side: what differs by more than the readings resolve differs.
void compareDigits(Comparison& c, const Summary& a, const Summary& b) {
    c.test = PairTest::digits;
    const double step = std::max(a.resolution, b.resolution);
    c.withinDoubt = c.difference && !c.equal &&
                    std::abs(*c.difference) <= std::max(step * (1 + 1e-9), std::hypot(a.doubt, b.doubt));
}

} // namespace

Comparison compare(const Side& sideA, const Side& sideB, double margin) {
    const auto &a = sideA.summary, &b = sideB.summary;
    Comparison c;
    if (!a.typical || !b.typical) return c;
    if (a.censored() || b.censored()) return c; // a ratio of bounds says nothing
    const double ma = *a.typical, mb = *b.typical;
    c.difference = finite(ma - mb);
    c.equal = alike(ma, mb);
    const bool positive = ma > 0 && mb > 0;
    if (positive) c.ratio = finite(ma / mb);
    if (a.n < 2 || b.n < 2) return c;
    if (const auto blocks = inBlocks(sideA, sideB); !blocks.whole.empty()) {
        comparePaired(c, blocks, margin);
        if (c.test != PairTest::none) return c;
    }
    const auto na = static_cast<double>(a.n), nb = static_cast<double>(b.n);
    if (a.rounded() && b.rounded()) {
        compareDigits(c, a, b);
        return c;
    }
    const auto error = [](const Summary& s) {
        return std::max(*s.sd, s.resolution / std::sqrt(3.0)) / std::sqrt(static_cast<double>(s.n));
    };
    const double ea = error(a), eb = error(b);
    if (ea == 0 && eb == 0) return c;
    if (std::isfinite((ma - mb) / std::hypot(ea, eb))) {
        c.test = PairTest::welch;
        fill(c, RatioTest::welch(ma, mb, ea, eb, na, nb), margin);
        if (!c.p) c.test = PairTest::none;
    }
    return c;
}

Comparison comparePooled(const LogGroup& a, const LogGroup& b, const PooledSpread& spread, double margin) {
    Comparison c;
    const double log = a.mean - b.mean;
    c.ratio = finite(std::exp(log));
    c.equal = std::abs(log) <= 1e-9;
    if (!(spread.variance > 0) || !c.ratio) return c;
    c.difference = std::exp(a.mean) - std::exp(b.mean);
    c.test = PairTest::pooled;
    const double se =
        std::sqrt(spread.variance * (1 / static_cast<double>(a.n) + 1 / static_cast<double>(b.n)));
    fill(c, RatioTest::onLogs(log, se, spread.df), margin);
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

/// The spread by which replicates for a pair are counted: what both sides show, or the one that shows any.
std::optional<double> spreadOf(const Summary& a, const Summary& b) {
    if (a.cv && b.cv) return std::hypot(*a.cv, *b.cv) / std::sqrt(2.0);
    return a.cv ? a.cv : b.cv;
}

} // namespace

PairVerdict verdictOf(const Comparison& c, const Summary& a, const Summary& b) {
    constexpr double level = 0.05;
    if ((a.n < 2 || b.n < 2) && c.test != PairTest::counts) return PairVerdict::notEnough;
    if ((a.censored() || b.censored()) && !c.p) return PairVerdict::notYet;
    const bool more = c.t ? *c.t > 0 : c.difference ? *c.difference > 0 : c.ratio && *c.ratio > 1;
    if (c.test == PairTest::digits)
        return c.equal || c.withinDoubt || !c.difference ? PairVerdict::tooClose
               : more                                    ? PairVerdict::stronger
                                                         : PairVerdict::weaker;
    if (c.tostP && *c.tostP < level) return PairVerdict::same;
    if (c.pHolm && *c.pHolm < level && !c.withinDoubt && !c.equal)
        return more ? PairVerdict::stronger : PairVerdict::weaker;
    return c.atLeast || c.atMost ? PairVerdict::notYet : PairVerdict::tooClose;
}

namespace {

/// The level of each pair's interval: α/(tested − step), with the step at which Holm stopped for all after
/// it.
void setFamilyLevels(std::span<Comparison> family, const std::vector<std::size_t>& byP) {
    constexpr double level = 0.05;
    bool stopped = false;
    double at = level;
    for (std::size_t k = 0; k < byP.size(); ++k) {
        auto& c = family[byP[k]];
        if (!stopped) at = level / static_cast<double>(byP.size() - k);
        stopped = stopped || *c.p > at;
        c.familyLevel = at;
        c.family = byP.size();
    }
}

/// Compares the pairs that nothing told yet; of very many on every core, each pair by itself.
void compareAll(std::span<Comparison> family, std::span<const SidePair> groups, double margin) {
    const auto some = [&](std::size_t from, std::size_t to) {
        for (std::size_t i = from; i < to; ++i)
            if (family[i].test == PairTest::none)
                family[i] = compare(*groups[i].first, *groups[i].second, margin);
    };
    constexpr std::size_t worthAThread = 2000; // pairs: some 50 ms
    const auto threads = std::clamp<std::size_t>(family.size() / worthAThread, 1,
                                                 std::max(1U, std::thread::hardware_concurrency()));
    std::vector<std::jthread> others;
    for (std::size_t k = 1; k < threads; ++k) {
        const auto from = family.size() * k / threads, to = family.size() * (k + 1) / threads;
        try {
            others.emplace_back(some, from, to);
        } catch (const std::system_error&) { // the machine has no thread left
            some(from, to);
        }
    }
    some(0, family.size() / threads);
}

} // namespace

void judge(std::span<Comparison> family, std::span<const SidePair> groups, double margin) {
    compareAll(family, groups, margin);
    std::vector<std::size_t> tested;
    for (std::size_t i = 0; i < family.size(); ++i)
        if (family[i].p) tested.push_back(i);
    std::stable_sort(tested.begin(), tested.end(),
                     [&](auto i, auto j) { return *family[i].p < *family[j].p; });
    double running = 0;
    for (std::size_t k = 0; k < tested.size(); ++k) {
        running =
            std::max(running, std::min(1.0, static_cast<double>(tested.size() - k) * *family[tested[k]].p));
        family[tested[k]].pHolm = running;
    }
    setFamilyLevels(family, tested);
    for (std::size_t i = 0; i < family.size(); ++i) { // what the readings themselves are not sure of
        auto& c = family[i];
        const double doubt = std::hypot(groups[i].first->summary.doubt, groups[i].second->summary.doubt);
        if (doubt > 0 && c.difference && std::abs(*c.difference) <= doubt) c.withinDoubt = true;
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
        if (const auto spread = spreadOf(groups[i].first->summary, groups[i].second->summary))
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

std::optional<std::pair<double, double>> overPair(const Comparison& c) {
    return c.ratioTest ? std::optional(c.ratioTest->interval(0.05)) : c.ratioInterval;
}

std::optional<std::pair<double, double>> overFamily(const Comparison& c) {
    if (c.drawnFamily) return c.drawnFamily;
    return c.ratioTest && c.familyLevel < 0.05 ? c.ratioTest->interval(c.familyLevel) : overPair(c);
}

std::optional<std::pair<double, double>> ofSameness(const Comparison& c) {
    if (c.drawnSame) return c.drawnSame;
    return c.ratioTest ? std::optional(c.ratioTest->interval(0.10)) : std::nullopt;
}

std::optional<int> moreForSeen(const Comparison& c, const Summary& a, const Summary& b, double margin) {
    const auto spread = spreadOf(a, b);
    if (!c.ratio || !spread) return std::nullopt;
    const double seen = std::max(*c.ratio, 1 / *c.ratio) - 1;
    if (!(seen > margin)) return std::nullopt;
    const auto n = replicatesFor(*spread, seen, 0.8, 0.05 / static_cast<double>(c.family));
    return n ? std::optional(std::max(0, *n - static_cast<int>(std::min(a.n, b.n)))) : std::nullopt;
}

} // namespace anvil::stats
