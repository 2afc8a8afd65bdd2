// Pairs in which a side holds bounds, and what they are made from.
#include <algorithm>
#include <anvil/stats/density.h>
#include <anvil/stats/drawn_means.h>
#include <anvil/stats/drawn_pair.h>
#include <anvil/stats/draws.h>
#include <anvil/stats/fitted_summary.h>
#include <anvil/stats/kaplan_meier.h>
#include <cmath>
#include <gtest/gtest.h>
#include <numeric>

namespace anvil::stats {
namespace {

Value exact(double v) { return {v, Bound::exact, v}; }
Value above(double v) { return {v, Bound::above, v}; }

std::vector<Value> all(std::initializer_list<double> exacts, std::initializer_list<double> aboves = {}) {
    std::vector<Value> out;
    for (const double v : exacts)
        out.push_back(exact(v));
    for (const double v : aboves)
        out.push_back(above(v));
    return out;
}

/// Two groups of one condition, compared as the only pair.
Comparison pairOf(const std::vector<Value>& a, const std::vector<Value>& b, int draws = 20000) {
    const std::vector<Contender> contenders{{a, streamOf(1, "a", "")}, {b, streamOf(1, "b", "")}};
    const auto means = drawLogMeans(contenders, 7, draws);
    if (!means) return {};
    std::vector<Comparison> family{
        compareDrawn({(*means)[0], onlyBounds(a)}, {(*means)[1], onlyBounds(b)}, 0.1)};
    const Side left(summarise(a)), right(summarise(b));
    const std::vector<SidePair> sides{{&left, &right}};
    decide(family, sides, 0.1);
    return family.front();
}

TEST(DrawnPair, AlwaysOffTheScaleAtTwiceTheOtherIsStronger) {
    const auto c = pairOf(all({}, {500, 500, 500}), all({241, 255, 238}));
    EXPECT_EQ(c.verdict, PairVerdict::stronger);
    EXPECT_EQ(c.test, PairTest::censored);
    EXPECT_TRUE(c.atLeast);
    EXPECT_FALSE(c.tostP) << "the same it can never be called";
    const auto turned = pairOf(all({241, 255, 238}), all({}, {500, 500, 500}));
    EXPECT_EQ(turned.verdict, PairVerdict::weaker);
    EXPECT_TRUE(turned.atMost);
}

TEST(DrawnPair, TwoAtTheLimitAreNotToldApart) {
    const auto c = pairOf(all({482}, {500, 500}), all({476, 490}, {500}));
    EXPECT_TRUE(c.verdict == PairVerdict::tooClose || c.verdict == PairVerdict::notYet) << word(c.verdict);
}

TEST(DrawnPair, BoundsAloneAreNeverWeakerNorTheSame) {
    EXPECT_EQ(pairOf(all({}, {100, 100, 100}), all({500, 510, 490})).verdict, PairVerdict::notYet);
    EXPECT_EQ(pairOf(all({}, {500, 501, 499}), all({500, 501, 499})).verdict, PairVerdict::notYet);
    const std::vector<double> logs{1, 2, 3};
    EXPECT_EQ(compareDrawn({logs, Bound::above}, {logs, Bound::above}, 0.1).test, PairTest::none)
        << "both may be any more";
}

/// Against the t-test where nothing is a bound: draws of one shared spread give its p.
TEST(DrawnPair, WithoutBoundsItIsThePooledTest) {
    const auto a = all({100, 106, 97, 103}), b = all({110, 118, 104, 113});
    const auto c = pairOf(a, b, 200000);
    double ma = 0, mb = 0, squares = 0;
    for (const auto& v : a)
        ma += std::log(v.value) / 4;
    for (const auto& v : b)
        mb += std::log(v.value) / 4;
    for (const auto& v : a)
        squares += std::pow(std::log(v.value) - ma, 2);
    for (const auto& v : b)
        squares += std::pow(std::log(v.value) - mb, 2);
    const double se = std::sqrt(squares / 6 * (0.25 + 0.25)), t = (mb - ma) / se;
    EXPECT_NEAR(*c.ratio, std::exp(ma - mb), 2e-3);
    EXPECT_NEAR(*c.p, 2 * studentUpperTail(6, t), 4e-3);
    EXPECT_NEAR(overPair(c)->first, std::exp(ma - mb - studentQuantile(6, 0.975) * se), 3e-3);
}

/// Two like groups are rarely called different, and one far above nearly always is.
TEST(DrawnPair, KeepsItsPromiseInSimulation) {
    constexpr int sets = 400;
    int different = 0, stronger = 0;
    Draws random(42);
    const auto group = [&](double mean, double limit) {
        std::vector<Value> out;
        for (int k = 0; k < 5; ++k) {
            const double v = mean * (1 + 0.1 * random.normal());
            out.push_back(v < limit ? exact(v) : above(limit));
        }
        return out;
    };
    for (int k = 0; k < sets; ++k) {
        const auto a = group(1000, 1050), b = group(1000, 1050);
        const auto verdict = pairOf(a, b, 4000).verdict;
        different += verdict == PairVerdict::stronger || verdict == PairVerdict::weaker;
        stronger += pairOf(group(2000, 1300), group(1000, 5000), 4000).verdict == PairVerdict::stronger;
    }
    EXPECT_LE(different, 0.075 * sets) << "called different though they are alike";
    EXPECT_GE(stronger, 0.88 * sets) << "always off the scale at twice the other";
}

/// Against the same densities summed up by brute force on a grid of 4000 × 1400 points, elsewhere.
TEST(Density, OfBoundsAgreesWithBruteForce) {
    const auto values = all({4910, 4829, 4853}, {4968, 5024});
    const auto d = Density::of(Family::lognormal, values);
    ASSERT_TRUE(d);
    EXPECT_NEAR(d->meanAtLeast(4781.4616), 0.97498, 1e-4);
    EXPECT_NEAR(d->meanAtLeast(4900), 0.81746, 2e-4);
    EXPECT_NEAR(d->meanAtLeast(5674.5833), 0.02486, 3e-4);
    EXPECT_NEAR(d->nextAtLeast(4500), 0.96068, 3e-4);
    EXPECT_NEAR(d->nextAtLeast(4800), 0.81119, 3e-4);
    EXPECT_NEAR(d->nextAtLeast(5000), 0.43076, 3e-4);
}

/// The condition of four options in which two hold bounds, drawn 200 000 times from such a grid.
TEST(DrawnPair, OfFourGroupsAgreesWithBruteForce) {
    const std::vector<std::vector<Value>> groups{
        all({4910, 4829, 4853}, {4968, 5024}), all({4238, 4329, 4445}, {4352, 4571}),
        all({3228, 3034, 3279, 3045}), all({3906, 3457, 3666, 3711, 3346})};
    std::vector<Contender> contenders;
    for (std::size_t k = 0; k < groups.size(); ++k)
        contenders.push_back({groups[k], streamOf(1, std::string(1, static_cast<char>('a' + k)), "")});
    const auto means = drawLogMeans(contenders, 7, 200000);
    ASSERT_TRUE(means);
    const auto c = compareDrawn({(*means)[0], Bound::exact}, {(*means)[1], Bound::exact}, 0.1);
    EXPECT_NEAR(*c.ratio, 1.1204, 4e-4);
    EXPECT_NEAR(overPair(c)->first, 1.0404, 1.5e-3);
    EXPECT_NEAR(overPair(c)->second, 1.2076, 1.5e-3);
    EXPECT_NEAR(*c.p, 0.0064, 1e-3);
    const auto d = compareDrawn({(*means)[2], Bound::exact}, {(*means)[3], Bound::exact}, 0.1);
    EXPECT_NEAR(*d.ratio, 0.8706, 4e-4);
    EXPECT_NEAR(overPair(d)->first, 0.8097, 1.5e-3);
    EXPECT_NEAR(overPair(d)->second, 0.9361, 1.5e-3);
}

TEST(KaplanMeier, PublishedRemissionTimes) { // Gehan 1965, as in every textbook of survival
    const auto steps =
        kaplanMeier(all({6, 6, 6, 7, 10, 13, 16, 22, 23}, {6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35}));
    const std::vector<double> at{6, 7, 10, 13, 16, 22, 23},
        left{0.8571, 0.8067, 0.7529, 0.6902, 0.6275, 0.5378, 0.4482};
    ASSERT_EQ(steps.size(), at.size());
    for (std::size_t k = 0; k < at.size(); ++k) {
        EXPECT_EQ(steps[k].value, at[k]);
        EXPECT_NEAR(steps[k].share, left[k], 5e-5);
    }
    EXPECT_EQ(medianOf(steps), 23);
    EXPECT_FALSE(medianOf(kaplanMeier(all({6}, {7, 8})))) << "two of three are left";
    auto open = all({6, 7});
    open.push_back({8, Bound::below, 8});
    EXPECT_TRUE(kaplanMeier(open).empty()) << "it says nothing of at most";
    EXPECT_TRUE(kaplanMeier(all({}, {7})).empty());
}

TEST(FittedSummary, IsTheSampleWhereNothingIsABound) {
    const auto a = all({100, 106, 97});
    const auto s = summarise(a, Family::lognormal), plain = summarise(a);
    EXPECT_EQ(s.basis, MeanBasis::sample);
    EXPECT_EQ(s.mean, plain.mean);
    EXPECT_EQ(s.meanInterval, plain.meanInterval);
}

TEST(FittedSummary, TakesMeanAndSpreadOfTheFit) {
    const auto a = all({100, 106, 97, 103}, {110, 110});
    const auto s = summarise(a, Family::normal);
    const auto f = fit(Family::normal, a);
    ASSERT_TRUE(f && s.meanInterval);
    EXPECT_EQ(s.basis, MeanBasis::normal);
    EXPECT_DOUBLE_EQ(*s.mean, f->location);
    EXPECT_DOUBLE_EQ(*s.sd, f->scale);
    EXPECT_LT(s.meanInterval->first, *s.mean);
    EXPECT_GT(s.meanInterval->second, *s.mean);
    EXPECT_DOUBLE_EQ(*s.median, 104.5) << "three of six are left from 103 to 106";
    EXPECT_FALSE(s.dropHighLowMean || s.meanMinus3Sd);
    EXPECT_EQ(summarise(all({}, {5, 6}), Family::lognormal).basis, MeanBasis::bound) << "no fit";
    EXPECT_EQ(summarise(all({-5, 6}, {7}), Family::lognormal).basis, MeanBasis::bound) << "not positive";
    for (const auto b : {MeanBasis::normal, MeanBasis::lognormal, MeanBasis::weibull})
        EXPECT_TRUE(isFitted(b)) << word(b);
}

/// For complete normal data the chances are Student's.
TEST(Density, ChancesOfMeanAndNextPieceAreStudents) {
    const auto a = all({100, 106, 97, 103, 101});
    const auto d = Density::of(Family::normal, a);
    const auto s = summarise(a);
    ASSERT_TRUE(d);
    for (const double q : {94.0, 99.0, 103.0}) {
        EXPECT_NEAR(d->meanAtLeast(q), 1 - studentUpperTail(4, (*s.mean - q) / (*s.sd / std::sqrt(5.0))),
                    5e-6);
        EXPECT_NEAR(d->nextAtLeast(q), 1 - studentUpperTail(4, (*s.mean - q) / (*s.sd * std::sqrt(1.2))),
                    1e-4);
    }
    EXPECT_NEAR(d->meanExceeded(0.975), s.meanInterval->first, 1e-5);
    EXPECT_NEAR(d->meanExceeded(0.025), s.meanInterval->second, 1e-5);
    const auto weibull = Density::of(Family::weibull, a), lognormal = Density::of(Family::lognormal, a);
    for (const auto* family : {&*weibull, &*lognormal}) {
        EXPECT_NEAR(family->meanAtLeast(family->meanExceeded(0.3)), 0.3, 1e-6);
        EXPECT_GT(family->nextAtLeast(80), family->nextAtLeast(100));
        EXPECT_EQ(family->meanAtLeast(-1), 1) << "what is positive lies above";
    }
}

} // namespace
} // namespace anvil::stats
