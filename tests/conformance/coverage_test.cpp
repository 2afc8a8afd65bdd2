// Whether what is promised comes true: thousands of sets drawn from a law that is known.
#include <anvil/stats/compare.h>
#include <anvil/stats/density.h>
#include <anvil/stats/drawn_pair.h>
#include <anvil/stats/draws.h>
#include <anvil/stats/fitted_summary.h>
#include <anvil/stats/floors.h>
#include <anvil/stats/ranking.h>
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <random>

namespace anvil::conformance {
namespace {

using namespace stats;

/// Values of a log-normal law with this spread, those above the limit "at least".
struct Source {
    std::mt19937_64 random;
    std::normal_distribution<double> normal;
    double sigma, limit;

    Source(std::uint64_t seed, double spread, double bound) : random(seed), sigma(spread), limit(bound) {}
    std::vector<Value> group(int n, double centre = 0) {
        std::vector<Value> out;
        for (int i = 0; i < n; ++i) {
            const double v = std::exp(centre + sigma * normal(random));
            out.push_back(v < limit ? Value{v, Bound::exact, v} : Value{limit, Bound::above, limit});
        }
        return out;
    }
};

struct Coverage {
    int sets = 0, told = 0, covered = 0;
    double share() const { return told ? static_cast<double>(covered) / told : 0; }
};

template <class F> Coverage cover(int sets, const F& one) {
    Coverage c;
    for (; c.sets < sets; ++c.sets)
        if (const std::optional<bool> in = one()) {
            ++c.told;
            c.covered += *in;
        }
    return c;
}

constexpr double sigma = 0.1, sets = 4000;
/// Of a law with this spread 30 % lie beyond it.
const double limit70 = std::exp(sigma * 0.5244005127080407);
/// What 90 % of all pieces exceed, and the mean of the law.
const double exceededBy90 = std::exp(-sigma * 1.2815515655446004), lawsMean = std::exp(sigma * sigma / 2);

bool within(const std::pair<double, double>& interval, double truth) {
    return interval.first <= truth && truth <= interval.second;
}

/// Runs and prints it; the manual tells these numbers.
template <class F> Coverage told(const char* what, int n, const F& one) {
    const auto c = cover(static_cast<int>(sets), one);
    fmt::print("{:<40} n = {:2}: {:.1f} % of {} told\n", what, n, 100 * c.share(), c.told);
    return c;
}

void expectPromise(const Coverage& c) {
    EXPECT_GE(c.share(), 0.935);
    EXPECT_LE(c.share(), 0.965);
}

TEST(Coverage, MeansOfCompleteGroups) {
    for (const int n : {3, 5, 10}) {
        Source s(11, sigma, 1e300);
        expectPromise(told("mean", n, [&]() -> std::optional<bool> {
            return within(summarise(s.group(n)).meanInterval.value(), lawsMean);
        }));
    }
}

TEST(Coverage, FloorsOfCompleteGroups) {
    for (const int n : {3, 5, 10}) {
        Source s(12, sigma, 1e300);
        expectPromise(told("floor 90/95", n, [&]() -> std::optional<bool> {
            const auto v = s.group(n);
            double sum = 0, squares = 0;
            for (const auto& x : v)
                sum += std::log(x.value);
            for (const auto& x : v)
                squares += std::pow(std::log(x.value) - sum / n, 2);
            return std::exp(sum / n - toleranceFactor(n, 0.9, 0.95) * std::sqrt(squares / (n - 1))) <=
                   exceededBy90;
        }));
    }
}

/// The interval holds the truth where the chance to exceed it lies between 2.5 and 97.5 %; that is asked
/// directly, for it is much quicker, and compared with the ends now and then.
bool holdsMean(const Density& d, bool compare) {
    const double above = d.meanAtLeast(lawsMean);
    const bool in = above >= 0.025 && above <= 0.975;
    if (compare) {
        EXPECT_EQ(in, within({d.meanExceeded(0.975), d.meanExceeded(0.025)}, lawsMean));
    }
    return in;
}

bool floorHolds(const Density& d, bool compare) {
    const bool in = d.atLeast(-1.2815515655446004, std::log(exceededBy90)) <= 0.95;
    if (compare) {
        EXPECT_EQ(!in, d.floor(0.9, 0.95) > exceededBy90);
    }
    return in;
}

/// Of three pulls nothing is told unless all are exact, and of five only if three are: those that are told
/// are not any, and a little wider than they need to be.
TEST(Coverage, WithBounds) {
    for (const int n : {3, 5, 10}) {
        Source s(13, sigma, limit70);
        int floors = 0, set = 0;
        const auto means = told("mean, 30 % topped out", n, [&]() -> std::optional<bool> {
            const auto d = Density::of(Family::lognormal, s.group(n));
            if (!d) return {};
            const bool compare = ++set % 400 == 0;
            floors += floorHolds(*d, compare);
            return holdsMean(*d, compare);
        });
        fmt::print("{:<40} n = {:2}: {:.1f} %\n", "floor 90/95, 30 % topped out", n,
                   100.0 * floors / means.told);
        EXPECT_GE(means.share(), 0.935);
        EXPECT_GE(floors, 0.935 * means.told);
        if (n == 10) expectPromise(means);
    }
}

/// Welch's interval of three against three is wider than it says: 96.6 %.
TEST(Coverage, RatiosOfPairs) {
    for (const int n : {3, 5, 10}) {
        Source s(14, sigma, 1e300);
        const auto c = told("ratio", n, [&]() -> std::optional<bool> {
            return within(overPair(compare(summarise(s.group(n)), summarise(s.group(n, 0.1)), 0.1)).value(),
                          std::exp(-0.1));
        });
        EXPECT_GE(c.share(), 0.935);
        if (n > 3) {
            EXPECT_LE(c.share(), 0.965);
        }
    }
}

/// Of three against three it covers 96.9 %; see the manual.
TEST(Coverage, RatiosOfPairsWithBounds) {
    constexpr int draws = 500, n = 5;
    Source s(15, sigma, limit70);
    std::uint64_t seed = 0;
    expectPromise(told("ratio, 30 % topped out", n, [&]() -> std::optional<bool> {
        const auto a = s.group(n), b = s.group(n);
        if (onlyBounds(a) != Bound::exact || onlyBounds(b) != Bound::exact) return {};
        ++seed;
        const Contender both[] = {{a, 2 * seed}, {b, 2 * seed + 1}};
        const auto logs = drawLogMeans(both, seed, draws);
        if (!logs) return {};
        return within(
            overPair(compareDrawn({(*logs)[0], Bound::exact}, {(*logs)[1], Bound::exact}, 0.1)).value(), 1);
    }));
}

} // namespace
} // namespace anvil::conformance
