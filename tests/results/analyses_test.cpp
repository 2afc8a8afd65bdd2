// Analyses over the table pull × metric: one group, and how sure a ranking is.
#include "study_maker.h"
#include <algorithm>
#include <anvil/results/one_group.h>
#include <anvil/results/ranking.h>
#include <anvil/results/second_tests.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::domain;
using namespace anvil::results;

namespace {

Maker threeOptions() {
    Maker m;
    m.option("Pin").option("Bolt").option("Hook").condition("Dry");
    m.square(1, 11, {100, 104, 98}).square(2, 11, {120, 126, 118}).square(3, 11, {90, 97, 92});
    return m;
}

TEST(OneGroup, ValuesSetAsideAreInNoFit) {
    auto m = threeOptions();
    m.pull(1, 11, 5000, Standing::aside);
    const auto v = m.verdict();
    const auto one = analyse(*v.group(1, 11));
    ASSERT_TRUE(one.fit(stats::Family::normal));
    EXPECT_NEAR(one.fit(stats::Family::normal)->mean(), 302.0 / 3, 1e-9);
    EXPECT_TRUE(one.weibull);
    EXPECT_TRUE(one.floors.normal90_95);
    ASSERT_TRUE(one.outliers);
    EXPECT_TRUE(one.outliers->empty());
}

TEST(OneGroup, AnOutlierIsFoundByItsPlaceInTheGroup) {
    Maker m;
    m.option("Pin").condition("Dry").square(1, 11, {100, 101, 99, 100, 102, 180});
    const auto one = analyse(*m.verdict().group(1, 11));
    ASSERT_EQ(one.outliers->size(), 1U);
    EXPECT_EQ(m.verdict().group(1, 11)->values[one.outliers->front().index].value.value, 180);
}

TEST(Ranking, FollowsTheGoalAndNotTheBoard) {
    auto m = threeOptions();
    const auto v = m.verdict();
    const auto r = rankingOf(m.data, v, 11);
    ASSERT_TRUE(r);
    EXPECT_EQ(v.groups[r->groups[0]].option, 2);
    EXPECT_GT(r->places[0].best, 0.95);
    EXPECT_TRUE(std::is_sorted(r->places.begin(), r->places.end(),
                               [](const auto& a, const auto& b) { return a.expected < b.expected; }));
    m.data.study.goal.sense = Sense::less;
    const auto w = m.verdict();
    const auto least = rankingOf(m.data, w, 11);
    EXPECT_EQ(w.groups[least->groups[0]].option, 3) << "less is wanted";
    std::reverse(m.data.options.begin(), m.data.options.end());
    const auto turned = m.verdict();
    EXPECT_EQ(rankingOf(m.data, turned, 11)->places[0].best, least->places[0].best);
    m.data.study.goal.sense = Sense::inside;
    EXPECT_FALSE(rankingOf(m.data, m.verdict(), 11));
}

TEST(Ranking, LeavesOutWhatSaysOnlyAtMost) {
    auto m = threeOptions();
    m.option("Peg");
    m.pull(4, 11, 80, Standing::atMost);
    const auto v = m.verdict();
    const auto r = rankingOf(m.data, v, 11);
    ASSERT_TRUE(r);
    EXPECT_EQ(r->groups.size(), 3U);
}

TEST(SecondTests, StandBesideEveryPair) {
    auto m = threeOptions();
    m.condition("Wet").square(1, 12, {80, 83, 79});
    auto v = m.verdict();
    auto second = secondTests(v);
    ASSERT_EQ(second.size(), v.pairs.size());
    for (const auto& s : second) {
        EXPECT_NEAR(s.mannWhitneyP.value(), 0.1, 1e-12) << "all of one above all of the other";
        EXPECT_LT(s.pooledP.value(), 0.05);
    }
    m.pull(1, 11, 150, Standing::atLeast);
    v = m.verdict();
    second = secondTests(v);
    for (std::size_t k = 0; k < second.size(); ++k)
        if (v.pairs[k].comparison.verdict == stats::PairVerdict::notYet) {
            EXPECT_FALSE(second[k].mannWhitneyP);
            EXPECT_FALSE(second[k].pooledP);
        }
}

} // namespace
