// What a verdict hangs on, and whether a need is met.
#include "study_maker.h"
#include <algorithm>
#include <anvil/results/needs.h>
#include <anvil/results/sureness.h>
#include <anvil/stats/draws.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

Maker two() {
    Maker m;
    m.option("Pin").option("Bolt").condition("Dry");
    return m;
}

std::vector<Odd> oddOf(const Maker& m, const Verdict& v) {
    return oddOnesOut(Results(m.data, m.readings), v);
}

TEST(OddOneOut, TheLeaderMayHangOnOnePull) {
    auto m = two();
    m.square(1, 11, {100, 101, 99}).square(2, 11, {95, 96, 130});
    const auto v = m.verdict();
    ASSERT_EQ(m.data.optionAt(v.groups[0].option).name, "Bolt");
    const auto odd = oddOf(m, v);
    ASSERT_FALSE(odd.empty());
    EXPECT_EQ(odd.front().pull, m.data.pulls.back().id) << "without the 130 the pin leads";
    ASSERT_TRUE(odd.front().leader);
    EXPECT_EQ(m.data.optionAt(v.groups[*odd.front().leader].option).name, "Pin");
    EXPECT_EQ(odd.size(), 1U) << "no other does";
}

TEST(OddOneOut, AVerdictOfAPairMayTurn) {
    auto m = two();
    m.square(1, 11, {100, 101, 99, 100}).square(2, 11, {107, 108, 106, 80});
    const auto v = m.verdict();
    ASSERT_EQ(v.pairs[0].comparison.verdict, stats::PairVerdict::tooClose);
    const auto odd = oddOf(m, v);
    const auto at =
        std::find_if(odd.begin(), odd.end(), [&](const Odd& o) { return o.pull == m.data.pulls.back().id; });
    ASSERT_NE(at, odd.end());
    ASSERT_EQ(at->pairs.size(), 1U);
    // The same as if the value had never been there.
    auto less = two();
    less.square(1, 11, {100, 101, 99, 100}).square(2, 11, {107, 108, 106});
    EXPECT_EQ(at->pairs[0].now, less.verdict().pairs[0].comparison.verdict);
}

/// Leaving a value out says what a study without it says, for many random ones.
TEST(OddOneOut, AgreesWithTheStudyMadeWithoutTheValue) {
    stats::Draws random(5);
    int turned = 0;
    for (int set = 0; set < 60; ++set) {
        std::vector<std::vector<double>> values(3);
        for (auto& group : values)
            for (int k = 0; k < 4; ++k)
                group.push_back(std::round(1000 * (1 + 0.06 * random.normal())));
        const auto made = [&](int option, int left) {
            Maker m;
            m.option("A").option("B").option("C").condition("Dry");
            for (int o = 0; o < 3; ++o)
                for (int k = 0; k < 4; ++k)
                    if (o != option || k != left) m.pull(o + 1, 11, values[o][k]);
            return m;
        };
        const auto whole = made(-1, -1);
        const auto v = whole.verdict();
        const auto odd = oddOf(whole, v);
        for (int o = 0; o < 3; ++o)
            for (int k = 0; k < 4; ++k) {
                const auto less = made(o, k).verdict();
                const auto pull = whole.data.pulls[static_cast<std::size_t>(4 * o + k)].id;
                const auto at =
                    std::find_if(odd.begin(), odd.end(), [&](const Odd& x) { return x.pull == pull; });
                const bool other = less.groups[0].option != v.groups[0].option;
                EXPECT_EQ(at != odd.end() && at->leader.has_value(), other) << set;
                turned += other;
                for (std::size_t p = 0; p < v.pairs.size(); ++p) {
                    const auto own = [&](std::size_t g) { return v.groups[g].option == o + 1; };
                    if (!own(v.pairs[p].a) && !own(v.pairs[p].b)) continue;
                    const auto now = less.pairs[p].comparison.verdict;
                    const bool told = at != odd.end() &&
                                      std::any_of(at->pairs.begin(), at->pairs.end(),
                                                  [&](const auto& t) { return t.pair == p && t.now == now; });
                    EXPECT_EQ(told, now != v.pairs[p].comparison.verdict) << set;
                }
            }
    }
    EXPECT_GT(turned, 10) << "else nothing was tried";
}

TEST(OddOneOut, SaysNothingWhereNothingCanBeLeftOut) {
    auto m = two();
    m.square(1, 11, {100}).square(2, 11, {90});
    EXPECT_TRUE(oddOf(m, m.verdict()).empty());
    m.data.study.goal.sense = Sense::inside;
    EXPECT_TRUE(oddOf(m, m.verdict()).empty());
}

TEST(Sureness, HoldsTheChancesOfEveryCondition) {
    auto m = two();
    m.condition("Wet").square(1, 11, {100, 101, 99}).square(2, 11, {200, 204, 196});
    const auto v = m.verdict();
    const auto sure = surenessOf(Results(m.data, m.readings), v);
    ASSERT_EQ(sure.rankings.size(), 1U) << "nothing was pulled wet";
    const auto* best = sure.placeOf(v, 0);
    ASSERT_TRUE(best);
    EXPECT_GT(best->best, 0.99);
    EXPECT_NEAR(best->best + sure.placeOf(v, 1)->best, 1, 1e-12);
}

NeedResult needOf(std::initializer_list<double> values, double need, Sense sense = Sense::more) {
    auto m = two();
    m.square(1, 11, values);
    m.data.study.goal.need = need;
    m.data.study.goal.sense = sense;
    const auto all = needsOf(m.verdict());
    EXPECT_EQ(all.size(), 1U);
    return all.empty() ? NeedResult{} : all.front();
}

TEST(Needs, ByStudentsTHandWorked) {
    // m = 102, s = 2, n = 3: t = (102 − 96)/(2/√3) = 5.196 with 2 df: P = 0.98244; next: 6/(2·√(4/3))
    // = 2.598, P = 0.93908.
    const auto r = needOf({100, 102, 104}, 96);
    EXPECT_EQ(r.verdict, NeedVerdict::met);
    EXPECT_NEAR(*r.meanMeets, (1 + std::sqrt(27.0 / 29)) / 2, 1e-12);
    EXPECT_NEAR(*r.nextMeets, (1 + std::sqrt(6.75 / 8.75)) / 2, 1e-12);
    EXPECT_EQ(r.floorMeets, false) << "102 − 6.155·2 = 89.7";
    EXPECT_EQ(needOf({100, 102, 104}, 101).verdict, NeedVerdict::cannotTell);
    EXPECT_EQ(needOf({100, 102, 104}, 110).verdict, NeedVerdict::notMet);
    const auto less = needOf({100, 102, 104}, 96, Sense::less);
    EXPECT_EQ(less.verdict, NeedVerdict::notMet);
    EXPECT_NEAR(*less.nextMeets, (1 - std::sqrt(6.75 / 8.75)) / 2, 1e-12);
    EXPECT_FALSE(needOf({100}, 96).meanMeets) << "one pull has no spread";
    EXPECT_EQ(needOf({100, 100, 100}, 96).verdict, NeedVerdict::met);
}

TEST(Needs, WhatNeverBrokeMeetsWhatItHeld) {
    auto m = two();
    for (int k = 0; k < 6; ++k)
        m.pull(1, 11, 500, Standing::atLeast);
    m.pull(2, 11, 400);
    m.pull(2, 11, 420);
    m.pull(2, 11, 430);
    m.pull(2, 11, 500, Standing::atLeast);
    m.data.study.goal.need = 450;
    const auto v = m.verdict();
    for (const auto& r : needsOf(v)) {
        if (v.groups[r.group].option == 1) {
            EXPECT_TRUE(r.allHeld);
            EXPECT_EQ(r.verdict, NeedVerdict::met);
            EXPECT_NEAR(*r.meanMeets, 1 - 1.0 / 64, 1e-12);
            EXPECT_NEAR(*r.nextMeets, 7.0 / 8, 1e-12);
        } else {
            EXPECT_EQ(r.verdict, NeedVerdict::cannotTell);
            EXPECT_GT(*r.nextMeets, 0.2);
            EXPECT_LT(*r.nextMeets, 0.6);
        }
    }
    m.data.study.goal.need = 600;
    EXPECT_NE(needsOf(m.verdict()).front().verdict, NeedVerdict::met) << "nobody pulled so far";
    m.data.study.goal.need.reset();
    EXPECT_TRUE(needsOf(m.verdict()).empty());
}

} // namespace
} // namespace anvil::results
