// Fits against closed forms, published values and an independent package.
#include "exact_values.h"
#include <anvil/stats/fit.h>
#include <cmath>
#include <gtest/gtest.h>
#include <random>

using namespace anvil::stats;

namespace {

TEST(Fit, NormalOfExactValuesIsMeanAndDeviation) {
    const auto f = fit(Family::normal, exact({3, 5, 10}));
    ASSERT_TRUE(f);
    EXPECT_NEAR(f->location, 6, 1e-12);
    EXPECT_NEAR(f->scale, std::sqrt(26.0 / 3), 1e-12) << "σ divides by n";
    EXPECT_NEAR(f->logLikelihood, -1.5 * std::log(2 * M_PI * 26 / 3) - 1.5, 1e-12);
    const auto logs = fit(Family::lognormal, exact({3, 5, 10}));
    EXPECT_NEAR(logs->location, std::log(150.0) / 3, 1e-12);
}

struct Reference {
    Family family;
    double location, scale, logLikelihood;
};

void expectFit(const std::vector<Value>& values, std::initializer_list<Reference> all) {
    for (const auto& r : all) {
        const auto f = fit(r.family, values);
        ASSERT_TRUE(f) << key(r.family);
        EXPECT_NEAR(f->location, r.location, 1e-7 * r.location) << key(r.family);
        EXPECT_NEAR(f->scale, r.scale, 2e-7 * r.scale) << key(r.family);
        EXPECT_NEAR(f->logLikelihood, r.logLikelihood, 1e-8 * std::abs(r.logLikelihood)) << key(r.family);
    }
}

// Endurance of ball bearings, Lieblein and Zelen (1956), 10⁶ revolutions; fitted by survreg of R's
// survival 3.5. The Weibull is that of the literature: shape 2.102, scale 81.9.
TEST(Fit, PublishedComplete) {
    const auto bearings =
        exact({17.88, 28.92, 33,    41.52, 42.12, 45.6,  48.4,   51.84,  51.96,  54.12,  55.56, 67.8,
               68.64, 68.64, 68.88, 84.12, 93.12, 98.64, 105.12, 105.84, 127.92, 128.04, 173.4});
    expectFit(bearings, {{Family::normal, 72.2208695652174, 36.6669254960218, -115.478714393589},
                         {Family::lognormal, 4.15038268832694, 0.52168651130174, -113.12855433022},
                         {Family::weibull, 4.40518830431168, 0.475772054206069, -113.69195908769}});
    const auto f = fit(Family::weibull, bearings);
    EXPECT_NEAR(f->shape(), 2.102, 5e-4);
    EXPECT_NEAR(f->weibullScale(), 81.87, 0.01);
    EXPECT_NEAR(f->quantile(0.9), 81.878 * std::pow(-std::log(0.9), 1 / 2.10185), 1e-2);
}

// Exact, above, below and between in one sample; the same package.
TEST(Fit, MixedCensoring) {
    const std::vector<Value> mixed{
        {482, Bound::exact, 0}, {510, Bound::exact, 0},     {455, Bound::exact, 0},
        {530, Bound::exact, 0}, {500, Bound::above, 0},     {500, Bound::above, 0},
        {440, Bound::below, 0}, {470, Bound::between, 490}, {9, Bound::exact, 0, true}};
    expectFit(mixed, {{Family::normal, 491.997359213412, 39.0920463434235, -25.1736722932567},
                      {Family::lognormal, 6.19697807767055, 0.0812961365664181, -25.2931727885733},
                      {Family::weibull, 6.22683531406952, 0.0618204423009344, -24.8250509908202}});
}

TEST(Fit, ThreeAreEnough) {
    expectFit(exact({2.1, 2.4, 2.2}),
              {{Family::normal, 2.23333333333333, 0.124721912892465, 1.98819055094956},
               {Family::lognormal, 0.801954480815849, 0.055343095922463, 2.0199310455056},
               {Family::weibull, 0.830397692310337, 0.052303721066061, 1.81477414855653}});
}

TEST(Fit, TheUnitOnlyMovesIt) {
    std::mt19937 random(7);
    std::weibull_distribution<> draw(6, 400);
    for (int set = 0; set < 50; ++set) {
        std::vector<Value> values, other;
        for (int i = 0; i < 8; ++i) {
            const double x = draw(random);
            const auto state = i % 4 == 3 ? Bound::above : Bound::exact;
            values.push_back({x, state, x});
            other.push_back({1e6 * x, state, 1e6 * x});
        }
        for (const auto family : {Family::normal, Family::lognormal, Family::weibull}) {
            const auto a = fit(family, values), b = fit(family, other);
            ASSERT_TRUE(a && b);
            EXPECT_NEAR(a->mean() * 1e6 / b->mean(), 1, 1e-9);
            EXPECT_NEAR(a->sd() * 1e6 / b->sd(), 1, 1e-8);
            EXPECT_NEAR(a->quantile(0.9) * 1e6 / b->quantile(0.9), 1, 1e-9);
        }
    }
}

TEST(Fit, NothingWithoutASpread) {
    EXPECT_FALSE(fit(Family::normal, exact({5})));
    EXPECT_FALSE(fit(Family::normal, exact({5, 5, 5})));
    EXPECT_FALSE(fit(Family::normal, {}));
    EXPECT_FALSE(fit(Family::lognormal, exact({0, 5, 6})));
    EXPECT_FALSE(fit(Family::weibull, exact({-1, 5, 6})));
    EXPECT_FALSE(fit(Family::normal, std::vector<Value>{{5, Bound::above, 5}, {6, Bound::above, 6}}));
    EXPECT_FALSE(fit(Family::normal, std::vector<Value>{{5, Bound::exact, 5}, {4, Bound::above, 4}}))
        << "one exact value says nothing of the spread";
    EXPECT_FALSE(fit(Family::normal, std::vector<Value>{{3, Bound::below, 3}, {5, Bound::above, 5}}));
    EXPECT_TRUE(fit(Family::normal, std::vector<Value>{{5, Bound::exact, 5}, {6, Bound::above, 6}}));
    EXPECT_TRUE(fit(Family::normal, std::vector<Value>{{1, Bound::between, 2}, {3, Bound::between, 4}}));
}

} // namespace
