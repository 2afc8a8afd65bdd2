// Floors, outliers and tests by ranks and by a shared spread, against hand-worked cases and R 4.2.
#include "exact_values.h"
#include <anvil/stats/floors.h>
#include <anvil/stats/outliers.h>
#include <anvil/stats/pooled.h>
#include <anvil/stats/rank_sum.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil::stats;

namespace {

TEST(Floors, NormalAndLogNormalOfFive) {
    const auto f = floorsOf(exact({412, 455, 430, 448, 390})); // k(5; 90/95) = 3.40663
    EXPECT_NEAR(*f.normal90_95, 336.41942160497, 1e-6);
    EXPECT_NEAR(*f.lognormal90_95, 343.998034900908, 1e-6);
    EXPECT_EQ(*f.lowest, 390);
    EXPECT_LT(*f.normal99_95, *f.normal95_95);
    EXPECT_LT(*f.normal95_95, *f.normal90_95);
    ASSERT_TRUE(f.weibull90_95);
    EXPECT_LT(*f.weibull90_95, 390);
    EXPECT_GT(*f.weibull90_95, 200);
}

TEST(Floors, NoneFromTooFewWithoutSpreadOrBelowZero) {
    for (const auto& values : {exact({5, 6}), exact({5, 5, 5, 5}), exact({})}) {
        const auto f = floorsOf(values);
        EXPECT_FALSE(f.normal90_95);
        EXPECT_FALSE(f.lognormal90_95);
        EXPECT_FALSE(f.weibull90_95);
    }
    const auto wide = floorsOf(exact({1, 50, 120}));
    EXPECT_FALSE(wide.normal90_95) << "a strength below zero is none";
    EXPECT_TRUE(wide.lognormal90_95);
    const auto negative = floorsOf(exact({-1, 50, 52, 51}));
    EXPECT_FALSE(negative.lognormal90_95);
    EXPECT_FALSE(negative.weibull90_95);
}

TEST(Floors, ABoundBelowAllOthersChangesNextToNothing) {
    auto values = exact({412, 455, 430, 448, 390});
    const auto without = floorsOf(values);
    values.push_back({1, Bound::above, 1});
    const auto with = floorsOf(values);
    EXPECT_NEAR(*with.normal90_95 / *without.normal90_95, 1, 1e-4);
    EXPECT_NEAR(*with.weibull90_95 / *without.weibull90_95, 1, 1e-3);
    EXPECT_FALSE(with.meanMinus3Sd);
}

TEST(Outliers, GrubbsAsInR) {
    const auto found = outliers(exact({3.2, 3.3, 3.1, 3.4, 3.2, 3.3, 4.9}));
    ASSERT_TRUE(found);
    ASSERT_EQ(found->size(), 1U);
    EXPECT_EQ((*found)[0].value, 4.9);
    EXPECT_EQ((*found)[0].index, 6U);
    EXPECT_NEAR((*found)[0].p, 0.000192816087254863, 1e-12);
    EXPECT_TRUE(outliers(exact({3.2, 3.3, 3.1, 3.4}))->empty());
    EXPECT_TRUE(outliers(exact({5, 5, 5}))->empty()) << "no spread";
    EXPECT_EQ(outliers(exact({5, 5, 5, 5, 9}))->size(), 1U) << "all others are equal";
    EXPECT_FALSE(outliers(exact({1, 2})));
    EXPECT_FALSE(
        outliers(std::vector<Value>{{1, Bound::exact, 1}, {2, Bound::above, 2}, {3, Bound::exact, 3}}));
}

// The data of Rosner (1983): with up to ten looked for, three stand apart.
TEST(Outliers, RosnersData) {
    const auto found =
        outliers(exact({-0.25, 0.68, 0.94, 1.15, 1.20, 1.26, 1.26, 1.34, 1.38, 1.43, 1.49, 1.49, 1.55, 1.56,
                        1.58,  1.65, 1.69, 1.70, 1.76, 1.77, 1.81, 1.91, 1.94, 1.96, 1.99, 2.06, 2.09, 2.10,
                        2.14,  2.15, 2.23, 2.24, 2.26, 2.35, 2.37, 2.40, 2.47, 2.54, 2.62, 2.64, 2.90, 2.92,
                        2.92,  2.93, 3.21, 3.26, 3.30, 3.59, 3.68, 4.30, 4.64, 5.34, 5.42, 6.01}));
    ASSERT_TRUE(found);
    ASSERT_EQ(found->size(), 3U);
    EXPECT_EQ((*found)[0].value, 6.01);
    EXPECT_EQ((*found)[1].value, 5.42);
    EXPECT_EQ((*found)[2].value, 5.34);
    EXPECT_GT((*found)[0].p, 0.05) << "masked by the others, and told all the same";
}

TEST(RankSum, ExactAndByTheNormalLaw) {
    const std::vector<double> a{20, 22, 24, 21}, b{14, 18, 16, 20.5, 23};
    EXPECT_NEAR(*mannWhitneyP(a, b), 0.19047619047619, 1e-12);
    EXPECT_NEAR(*mannWhitneyP(b, a), 0.19047619047619, 1e-12);
    const std::vector<double> x{9.4, 10.2, 9.2, 11.6, 10.3, 9.2, 10.5, 10.7, 10.6, 9.7, 11.5, 10.4, 9.4, 7.8},
        y{11.7, 10.6, 10.6, 11.5, 11.4, 11.2, 11.5, 11.4, 10.7, 8.6, 11.2, 10.5};
    EXPECT_NEAR(*mannWhitneyP(x, y), 0.0189817951311062, 1e-12) << "with ties";
    const std::vector<double> low{1, 2, 3}, high{4, 5, 6}, equal{5, 5};
    EXPECT_NEAR(*mannWhitneyP(low, high), 0.1, 1e-15) << "2 of 20 orders";
    EXPECT_NEAR(*mannWhitneyP(low, std::vector<double>{0, 2.5, 7}), 1, 1e-12) << "at most 1";
    EXPECT_FALSE(mannWhitneyP(equal, equal));
    EXPECT_FALSE(mannWhitneyP(low, {}));
}

TEST(Pooled, SharedSpreadOnLogarithms) {
    const std::vector<double> a{20, 22, 24, 21}, b{14, 18, 16, 20.5, 23}, c{17, 19, 22}, bad{0, 1};
    const std::vector all{logGroup(a), logGroup(b), logGroup(c), logGroup(bad)};
    const auto spread = pooledSpread(all);
    ASSERT_TRUE(spread);
    EXPECT_NEAR(spread->variance, 0.0228375113178861, 1e-14);
    EXPECT_EQ(spread->df, 9);
    EXPECT_NEAR(*pooledP(*logGroup(a), *logGroup(b), *spread), 0.100127560702937, 1e-12);
    EXPECT_FALSE(logGroup(bad)) << "zero has no logarithm";
    EXPECT_FALSE(logGroup({}));
    const std::vector ones{logGroup(std::span(a).first(1)), logGroup(std::span(b).first(1))};
    EXPECT_FALSE(pooledSpread(ones));
}

} // namespace
