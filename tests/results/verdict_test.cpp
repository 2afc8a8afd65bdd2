#include "study_maker.h"
#include <algorithm>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::domain;
using namespace anvil::results;

namespace {

TEST(Verdict, RanksWithinAConditionAndSaysWhoIsStronger) {
    Maker m;
    m.option("Pin").option("Bolt").condition("Dry");
    m.square(1, 11, {100, 102, 98}).square(2, 11, {200, 204, 196});
    const auto v = m.verdict();
    ASSERT_EQ(v.groups.size(), 2U);
    EXPECT_EQ(v.groups[0].option, 2);
    EXPECT_EQ(v.groups[0].rank, 1);
    ASSERT_EQ(v.pairs.size(), 1U);
    EXPECT_EQ(v.pairs[0].comparison.verdict, stats::PairVerdict::weaker) << "Pin stands first on the board";
    EXPECT_NEAR(*v.pairs[0].comparison.ratio, 0.5, 1e-12);
}

TEST(Verdict, ATieIsCalledOneAndSaysHowManyMore) {
    Maker m;
    m.option("Pin").option("Bolt").condition("Dry");
    m.square(1, 11, {100, 120, 140}).square(2, 11, {110, 130, 150});
    const auto v = m.verdict();
    EXPECT_EQ(v.groups[0].letters, "a");
    EXPECT_EQ(sharedLetters(v, v.groups[0]), "a");
    EXPECT_TRUE(v.pairs[0].open);
}

TEST(Verdict, AtLeastIsKeptApart) {
    Maker m;
    m.option("Pin").option("Bolt").condition("Dry");
    m.square(1, 11, {100, 102, 98}).square(2, 11, {200, 204});
    m.pull(2, 11, 250, Standing::atLeast);
    const auto v = m.verdict();
    EXPECT_EQ(v.groups[0].summary.basis, stats::MeanBasis::lognormal);
    EXPECT_GT(*v.groups[0].summary.mean, 218) << "more than with the bound counted at its limit";
    EXPECT_FALSE(v.groups[0].summary.meanInterval) << "two exact values bound no mean";
    EXPECT_EQ(v.pairs[0].comparison.test, stats::PairTest::censored);
    EXPECT_EQ(v.pairs[0].comparison.verdict, stats::PairVerdict::weaker);
}

TEST(Verdict, VoidAndSetAsideAreListedNotCounted) {
    Maker m;
    m.option("Pin").condition("Dry");
    m.square(1, 11, {100, 102});
    m.pull(1, 11, 900, Standing::aside);
    m.pull(1, 11, 5, Standing::voided);
    m.pull(1, 11, 0, Standing::notRead);
    const auto v = m.verdict();
    EXPECT_EQ(v.groups[0].summary.n, 2U);
    EXPECT_EQ(v.groups[0].summary.aside, 1U);
    EXPECT_DOUBLE_EQ(*v.groups[0].summary.mean, 101);
    ASSERT_EQ(v.groups[0].leftOut.size(), 3U);
    EXPECT_EQ(v.groups[0].leftOut[0].why, "set aside: because");
}

TEST(Verdict, HolmsFamilyIsOneCondition) {
    Maker m;
    m.option("A").option("B").option("C").condition("Dry").condition("Wet");
    for (const Id c : {11, 12})
        m.square(1, c, {100, 103, 97, 101})
            .square(2, c, {108, 112, 107, 111})
            .square(3, c, {130, 134, 128, 133});
    const auto v = m.verdict();
    ASSERT_EQ(v.pairs.size(), 2U * 3 + 3)
        << "three pairs in each condition, one across conditions for each option";
    std::vector<double> p, holm;
    for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_FALSE(v.pairs[i].acrossConditions);
        p.push_back(*v.pairs[i].comparison.p);
        holm.push_back(*v.pairs[i].comparison.pHolm);
    }
    EXPECT_NEAR(*std::min_element(holm.begin(), holm.end()), 3 * *std::min_element(p.begin(), p.end()),
                1e-15);
    EXPECT_NEAR(*std::max_element(holm.begin(), holm.end()),
                std::max(*std::max_element(p.begin(), p.end()), holm[1] < holm[0] ? holm[1] : holm[0]), 0.01);
}

TEST(Verdict, OneLandmarkServesTheWholeGroup) {
    Maker m;
    m.option("Pin").condition("Dry");
    m.pull(1, 11, 100);
    auto& second = m.pull(1, 11, 0);
    second.typed.reset();
    second.curve = 7;
    curve::Reading r;
    r.peak.load = 90;
    m.readings.byPull[second.id] = r;
    const auto slip = m.verdict(metric("first_slip"));
    EXPECT_EQ(slip.groups[0].summary.n, 0U);
    EXPECT_EQ(slip.groups[0].leftOut[0].why, "only its peak was recorded");
    EXPECT_EQ(slip.groups[0].leftOut[1].why, "it never slipped before its peak")
        << "its peak is not put in its place";
    EXPECT_TRUE(slip.empty());
    EXPECT_EQ(m.verdict().groups[0].summary.n, 2U);
}

TEST(ValueOf, WhatAStoppedPullSays) {
    Pull p;
    p.standing = Standing::atLeast;
    curve::Reading r;
    r.peak.load = 500;
    r.firstSlip = curve::Landmark{1, 0, 300, {}, false};
    r.stiffness = curve::Stiffness{};
    r.stiffness->value = 4e5;
    r.residual = curve::Residual{200, 0.4};
    r.energyToPeak = 3;
    EXPECT_EQ(valueOf({}, p, &r, metric("peak")).value->bound, stats::Bound::above);
    EXPECT_EQ(valueOf({}, p, &r, metric("energy")).value->bound, stats::Bound::above);
    EXPECT_EQ(valueOf({}, p, &r, metric("first_slip")).value->bound, stats::Bound::exact)
        << "seen before the pull was stopped";
    EXPECT_EQ(valueOf({}, p, &r, metric("stiffness")).value->bound, stats::Bound::exact);
    EXPECT_FALSE(valueOf({}, p, &r, metric("residual")).value);
    p.standing = Standing::counts;
    r.offScale = true;
    EXPECT_EQ(valueOf({}, p, &r, metric("peak")).value->bound, stats::Bound::above)
        << "the reading itself says it topped out";
    EXPECT_TRUE(needsLook(p, Readings{{{p.id, r}}, {}}).empty()) << "that follows from the curve by itself";
    r.warnings = {"It starts loaded."};
    EXPECT_EQ(needsLook(p, Readings{{{p.id, r}}, {}}).size(), 1U);
    EXPECT_FALSE(valueOf({}, p, nullptr, metric("peak")).value);
}

TEST(ValueOf, WhatWasReadBeyondTheTableIsAGuess) {
    Pull p;
    p.settings.calibratedTo = 400;
    curve::Reading r;
    r.peak.load = 390;
    r.firstSlip = curve::Landmark{1, 0, 300, {}, false};
    r.energyToPeak = 3;
    EXPECT_FALSE(valueOf({}, p, &r, metric("peak")).guess);
    r.baseline = 20; // the unloaded reading uses up a part of the table
    r.guessed = true;
    const auto peak = valueOf({}, p, &r, metric("peak"));
    EXPECT_TRUE(peak.guess);
    EXPECT_DOUBLE_EQ(peak.value->value, 390);
    EXPECT_EQ(peak.value->bound, stats::Bound::exact) << "a doubtful number, no bound";
    EXPECT_TRUE(valueOf({}, p, &r, metric("energy")).guess) << "its last part was read up there";
    EXPECT_FALSE(valueOf({}, p, &r, metric("first_slip")).guess)
        << "it slipped where the table still reached";
    p.settings.calibratedTo = 310;
    EXPECT_TRUE(valueOf({}, p, &r, metric("first_slip")).guess);
    p.settings.calibratedTo.reset();
    EXPECT_FALSE(valueOf({}, p, &r, metric("peak")).guess)
        << "without a table nothing is known to be a guess";
}

TEST(Verdict, SaysHowManyValuesAreGuesses) {
    Maker m;
    m.option("Pin").option("Bolt").condition("Dry").condition("Wet");
    m.square(1, 11, {100, 102}).square(1, 12, {90, 92});
    const auto beyond = [&](Standing standing) {
        auto& p = m.pull(2, 11, 0, standing);
        p.typed.reset();
        p.curve = 7;
        p.settings.calibratedTo = 150;
        curve::Reading r;
        r.peak.load = 200;
        m.readings.byPull[p.id] = r;
    };
    EXPECT_EQ(m.verdict().guessesIn(11), 0U);
    beyond(Standing::counts);
    beyond(Standing::atLeast);
    beyond(Standing::aside);
    beyond(Standing::voided);
    const auto v = m.verdict();
    EXPECT_EQ(v.guessesIn(11), 2U) << "what is set aside or void is in no mean";
    EXPECT_EQ(v.guessesIn(12), 0U);
}

TEST(Verdict, NothingPulledIsEmptyNotZero) {
    Maker m;
    EXPECT_TRUE(m.verdict().empty());
    m.option("Pin").condition("Dry");
    EXPECT_TRUE(m.verdict().groups.empty());
    m.pull(1, 11, 100, Standing::voided);
    const auto v = m.verdict();
    EXPECT_EQ(v.groups[0].rank, 0);
}

TEST(Keys, RoundTrip) {
    for (const auto s : {Standing::counts, Standing::atLeast, Standing::atMost, Standing::between,
                         Standing::aside, Standing::voided, Standing::notRead})
        EXPECT_EQ(standingFromKey(key(s)), s);
}

} // namespace
