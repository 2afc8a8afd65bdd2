// A treatment over all options at once.
#include <anvil/stats/summary.h>
#include <anvil/stats/treatment.h>
#include <anvil/stats/trend.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::stats {
namespace {

TreatedPair pairOf(std::vector<double> control, std::vector<double> treated) {
    return {logGroup(control), logGroup(treated)};
}

/// One pull a square: the paired t-test on the logarithms, worked by hand.
TEST(Treatment, OnePullASquareIsThePairedTest) {
    const std::vector<TreatedPair> options{pairOf({100}, {90}), pairOf({200}, {170}), pairOf({150}, {141})};
    const auto t = treatmentOf(options);
    ASSERT_TRUE(t);
    const double d[] = {std::log(0.9), std::log(0.85), std::log(0.94)};
    const double mean = (d[0] + d[1] + d[2]) / 3;
    double squares = 0;
    for (const double x : d)
        squares += (x - mean) * (x - mean);
    const double se = std::sqrt(squares / 2 / 3);
    EXPECT_EQ(t->options, 3U);
    EXPECT_EQ(t->df, 2);
    EXPECT_NEAR(t->ratio, std::exp(mean), 1e-12);
    EXPECT_NEAR(*t->p, 2 * studentUpperTail(2, std::abs(mean) / se), 1e-9);
    EXPECT_NEAR(t->ratioInterval->first, std::exp(mean - studentQuantile(2, 0.975) * se), 1e-12);
    EXPECT_FALSE(t->interactionP) << "that needs replicates";
}

/// Two options with two pulls each: sums of squares of the balanced two-way table (Montgomery, ch. 5).
TEST(Treatment, BalancedTableHandWorked) {
    const auto e = [](double x) { return std::exp(x); };
    const std::vector<TreatedPair> options{pairOf({e(1), e(1.2)}, {e(2), e(2.2)}),
                                           pairOf({e(3), e(3.2)}, {e(3.5), e(3.7)})};
    const auto t = treatmentOf(options);
    ASSERT_TRUE(t);
    // Differences 1 and 0.5, weights 1 each: effect 0.75; within 4 × 0.02, between 2 × 0.25².
    EXPECT_NEAR(t->ratio, e(0.75), 1e-12);
    EXPECT_EQ(t->df, 5);
    const double se = std::sqrt((0.08 + 0.125) / 5 / 2);
    EXPECT_NEAR(*t->p, 2 * studentUpperTail(5, 0.75 / se), 1e-9);
    // F = (0.125/1)/(0.08/4) = 6.25 with 1 and 4 degrees of freedom: t = 2.5 with 4.
    EXPECT_NEAR(*t->interactionP, 2 * studentUpperTail(4, 2.5), 1e-9);
}

TEST(Treatment, WhatIsNotThereIsLeftOut) {
    EXPECT_FALSE(treatmentOf({}));
    EXPECT_FALSE(treatmentOf(std::vector<TreatedPair>{pairOf({1, 2}, {})}));
    EXPECT_FALSE(treatmentOf(std::vector<TreatedPair>{pairOf({-1}, {2})})) << "no logarithm";
    const auto same =
        treatmentOf(std::vector<TreatedPair>{pairOf({100, 100}, {90, 90}), pairOf({10, 10}, {9, 9})});
    ASSERT_TRUE(same);
    EXPECT_NEAR(same->ratio, 0.9, 1e-12);
    EXPECT_FALSE(same->p) << "no spread, no p";
}

TEST(MedianSlope, IsNotMovedByOneOddPoint) {
    const std::vector<double> x{1, 2, 3, 4, 5}, y{2, 4, 6, 8, 100};
    EXPECT_DOUBLE_EQ(*medianSlope(x, y), 2);
    EXPECT_FALSE(medianSlope(std::vector<double>{1, 1}, std::vector<double>{2, 3}));
}

} // namespace
} // namespace anvil::stats
