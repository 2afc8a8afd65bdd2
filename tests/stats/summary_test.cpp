#include "exact_values.h"
#include <anvil/stats/summary.h>
#include <gtest/gtest.h>

using namespace anvil::stats;

namespace {

// Hand-worked: 2, 4, 4, 4, 5, 5, 7, 9: mean 5, sum of squares 32, s = √(32/7); t(0.975, 7) = 2.364624 from
// printed tables.
TEST(Summary, HandWorkedGroup) {
    const auto s = summarise(exact({2, 4, 4, 4, 5, 5, 7, 9}));
    EXPECT_EQ(s.n, 8U);
    EXPECT_DOUBLE_EQ(*s.mean, 5);
    EXPECT_NEAR(*s.sd, 2.13808993529940, 1e-12);
    EXPECT_NEAR(*s.cv, 0.427617987059879, 1e-12);
    EXPECT_DOUBLE_EQ(*s.median, 4.5);
    EXPECT_DOUBLE_EQ(*s.min, 2);
    EXPECT_DOUBLE_EQ(*s.max, 9);
    EXPECT_NEAR(*s.dropHighLowMean, 29.0 / 6, 1e-12);
    const double half = 2.364624251 * 2.13808993529940 / 2.82842712474619;
    EXPECT_NEAR(s.meanInterval->first, 5 - half, 1e-8);
    EXPECT_NEAR(s.meanInterval->second, 5 + half, 1e-8);
    EXPECT_DOUBLE_EQ(*s.lowest, 2);
    EXPECT_FALSE(s.meanMinus3Sd) << "a floor below zero is none";
}

TEST(Summary, MeanMinusThreeSd) {
    const auto s = summarise(exact({98, 100, 102}));
    EXPECT_NEAR(*s.meanMinus3Sd, 94, 1e-12);
    EXPECT_FALSE(summarise(exact({98, 102})).meanMinus3Sd) << "fewer than three exact values";
}

// Student's quantiles as printed in tables.
TEST(Summary, StudentQuantiles) {
    for (const auto& [df, p, t] : {std::tuple{1.0, 0.975, 12.70620474},
                                   {2.0, 0.975, 4.30265273},
                                   {4.0, 0.975, 2.77644511},
                                   {9.0, 0.975, 2.26215716},
                                   {30.0, 0.95, 1.69726089},
                                   {1e6, 0.975, 1.95996636}})
        EXPECT_NEAR(studentQuantile(df, p), t, 1e-5);
    EXPECT_NEAR(studentUpperTail(4, 2.77644511), 0.025, 1e-8);
}

TEST(Summary, DropHighLowNeedsFour) {
    EXPECT_FALSE(summarise(exact({1, 2, 3})).dropHighLowMean);
    EXPECT_DOUBLE_EQ(*summarise(exact({1, 2, 3, 40})).dropHighLowMean, 2.5);
}

TEST(Summary, AtLeastIsNeverAveragedSilently) {
    auto values = exact({10, 12});
    values.push_back({15, Bound::above, 15});
    const auto s = summarise(values);
    EXPECT_EQ(s.basis, MeanBasis::bound);
    EXPECT_NEAR(*s.mean, 37.0 / 3, 1e-12);
    EXPECT_EQ(s.above, 1U);
    EXPECT_FALSE(s.sd);
    EXPECT_FALSE(s.meanInterval);
    EXPECT_FALSE(s.median);
    EXPECT_FALSE(s.meanMinus3Sd);
    EXPECT_FALSE(s.dropHighLowMean);
    EXPECT_DOUBLE_EQ(*s.max, 15);
}

TEST(Summary, AtMostLeavesTheMeanOpenAndBetweenCountsItsLowerBound) {
    auto values = exact({10, 12});
    values.push_back({14, Bound::between, 20});
    auto s = summarise(values);
    EXPECT_DOUBLE_EQ(*s.mean, 12);
    EXPECT_EQ(s.basis, MeanBasis::bound);
    EXPECT_DOUBLE_EQ(*s.max, 20);
    values.push_back({3, Bound::below, 3});
    EXPECT_FALSE(summarise(values).mean);
}

TEST(Summary, SetAsideIsListedNotCounted) {
    auto values = exact({10, 12});
    values.push_back({1000, Bound::exact, 1000, true});
    const auto s = summarise(values);
    EXPECT_EQ(s.n, 2U);
    EXPECT_EQ(s.aside, 1U);
    EXPECT_DOUBLE_EQ(*s.mean, 11);
    EXPECT_DOUBLE_EQ(*s.max, 12);
}

TEST(Summary, EdgesOfTheSmall) {
    EXPECT_FALSE(summarise({}).mean);
    const auto one = summarise(exact({7}));
    EXPECT_DOUBLE_EQ(*one.mean, 7);
    EXPECT_FALSE(one.sd);
    EXPECT_FALSE(one.meanInterval);
    const auto same = summarise(exact({5, 5, 5}));
    EXPECT_DOUBLE_EQ(*same.sd, 0);
    EXPECT_FALSE(summarise(exact({-5, 5})).cv) << "no CV about a mean of zero";
}

} // namespace
