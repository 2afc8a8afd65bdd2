#include <anvil/results/trends.h>

#include "study_maker.h"
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

Maker along(std::initializer_list<double> values) {
    Maker m;
    m.option("Glue").condition("1").condition("2").condition("3");
    int k = 0;
    for (const double v : values) {
        m.data.conditions[static_cast<std::size_t>(k)].value = k + 1;
        m.square(1, 11 + k, {v});
        ++k;
    }
    return m;
}

TrendResult trendOf(const Maker& m) {
    const auto all = trendsOf(m.data, m.verdict());
    EXPECT_EQ(all.size(), 1U);
    return all.empty() ? TrendResult{} : all.front();
}

/// By hand: x 1, 2, 3 and y 10, 20, 33: b = 23/2, residuals ½, −1, ½, s² = 1.5, s_b = √0.75; t(0.975, 1)
/// = 12.7062.
TEST(Trends, HaveTheSlopeAndIntervalOfLeastSquares) {
    const auto t = trendOf(along({10, 20, 33}));
    EXPECT_EQ(t.points, 3U);
    EXPECT_DOUBLE_EQ(t.from, 1);
    EXPECT_DOUBLE_EQ(t.to, 3);
    EXPECT_NEAR(t.line.slope, 11.5, 1e-12);
    EXPECT_NEAR(t.mean, 21, 1e-12);
    ASSERT_TRUE(t.slopeInterval);
    EXPECT_NEAR(t.slopeInterval->first, 11.5 - 12.706205 * 0.8660254, 1e-5);
    EXPECT_NEAR(t.slopeInterval->second, 11.5 + 12.706205 * 0.8660254, 1e-5);
    EXPECT_EQ(t.medianSlope, 11.5) << "of 10, 13 and 11.5";
    EXPECT_EQ(t.verdict, TrendVerdict::rising);
}

TEST(Trends, FallAsTheyRise) {
    const auto t = trendOf(along({33, 20, 10}));
    EXPECT_NEAR(t.line.slope, -11.5, 1e-12);
    EXPECT_EQ(t.verdict, TrendVerdict::falling);
    EXPECT_EQ(trendOf(along({10, 30, 24})).verdict, TrendVerdict::cannotTell);
    EXPECT_EQ(trendOf(along({24, 30, 10})).verdict, TrendVerdict::cannotTell);
    auto flat = along({100, 100.1, 100});
    flat.data.study.goal.margin = 0.1;
    EXPECT_EQ(trendOf(flat).verdict, TrendVerdict::flat);
}

TEST(Trends, NeedThreePlaces) {
    auto m = along({10, 20});
    m.data.conditions.pop_back();
    EXPECT_TRUE(trendsOf(m.data, m.verdict()).empty());
}

TEST(Trends, AStepOfTheAxisIsOneOfItsUnit) {
    auto m = along({1, 2, 3});
    EXPECT_DOUBLE_EQ(axisStep(m.data), 1) << "nobody said a unit";
    m.data.study.plan.axisUnit = "min";
    EXPECT_DOUBLE_EQ(axisStep(m.data), 60);
    m.data.study.plan.axisUnit = "°F"; // with an offset, which is in no step
    EXPECT_NEAR(axisStep(m.data), 5.0 / 9, 1e-12);
    m.data.study.plan.axisUnit = "coats";
    EXPECT_DOUBLE_EQ(axisStep(m.data), 1);
}

} // namespace
} // namespace anvil::results
