#include <anvil/stats/counts.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::stats {
namespace {

/// The chance of at most k of n by adding up, a second way to the interval.
double atMost(int k, int n, double p) {
    double sum = 0;
    for (int i = 0; i <= k; ++i)
        sum += std::exp(std::lgamma(n + 1.0) - std::lgamma(i + 1.0) - std::lgamma(n - i + 1.0) +
                        i * std::log(p) + (n - i) * std::log1p(-p));
    return sum;
}

TEST(ExactInterval, LeavesTheTailsItSays) {
    for (const auto& [k, n] : {std::pair{3, 10}, {1, 5}, {9, 10}, {50, 200}}) {
        const auto [low, high] = exactInterval({k, n});
        EXPECT_NEAR(1 - atMost(k - 1, n, low), 0.025, 1e-9) << k << " of " << n;
        EXPECT_NEAR(atMost(k, n, high), 0.025, 1e-9);
    }
}

TEST(ExactInterval, AtTheEnds) {
    const auto none = exactInterval({0, 10}), all = exactInterval({10, 10});
    EXPECT_EQ(none.first, 0);
    EXPECT_NEAR(none.second, 1 - std::pow(0.025, 0.1), 1e-12); // closed form
    EXPECT_EQ(all.second, 1);
    EXPECT_NEAR(all.first, std::pow(0.025, 0.1), 1e-12);
    EXPECT_EQ(exactInterval({0, 0}), (std::pair{0.0, 1.0}));
}

TEST(FisherExact, AgreesWithPublishedTables) {
    // Eight cups, four of each, all told right; and one of each told wrong (Fisher 1935).
    EXPECT_NEAR(fisherExact({4, 4}, {0, 4}), 2.0 / 70, 1e-12);
    EXPECT_NEAR(fisherExact({3, 4}, {1, 4}), 34.0 / 70, 1e-12);
    // fisher.test(matrix(c(9, 1, 4, 6), 2)) of R 4.2: 0.05728
    EXPECT_NEAR(fisherExact({9, 10}, {4, 10}), 0.0572755417956656, 1e-9);
    EXPECT_NEAR(fisherExact({2, 15}, {10, 12}), 0.00043523130075829, 1e-12);
}

TEST(FisherExact, IsSymmetricAndAtMostOne) {
    for (int a = 0; a <= 6; ++a)
        for (int b = 0; b <= 9; ++b) {
            const double p = fisherExact({a, 6}, {b, 9});
            EXPECT_NEAR(p, fisherExact({b, 9}, {a, 6}), 1e-12);
            EXPECT_NEAR(p, fisherExact({6 - a, 6}, {9 - b, 9}), 1e-12);
            EXPECT_LE(p, 1);
            EXPECT_GT(p, 0);
        }
    EXPECT_EQ(fisherExact({0, 0}, {3, 5}), 1);
}

TEST(RatioInterval, HoldsTheRatioAndWhatItCannotKnow) {
    const auto [low, high] = ratioInterval({8, 10}, {4, 10});
    EXPECT_LT(low, 2);
    EXPECT_GT(high, 2);
    EXPECT_TRUE(std::isinf(ratioInterval({3, 5}, {0, 5}).second));
    EXPECT_EQ(ratioInterval({0, 5}, {3, 5}).first, 0);
}

} // namespace
} // namespace anvil::stats
