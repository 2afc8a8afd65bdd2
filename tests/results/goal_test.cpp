// What is wanted, and that every analysis follows it.
#include "study_maker.h"
#include <algorithm>
#include <anvil/results/verdict.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::domain;
using namespace anvil::results;

namespace {

TEST(Goal, KeysRoundTrip) {
    for (const auto s : {Sense::more, Sense::less, Sense::inside})
        EXPECT_EQ(senseFromKey(key(s)), s);
    EXPECT_FALSE(senseFromKey("window"));
}

TEST(Goal, AnotherMetricTakesNoLimitsWithIt) {
    Goal g;
    g.need = 3000;
    g.ceiling = 9000;
    g.margin = 0.2;
    g.control = 7;
    EXPECT_EQ(goalFor(g, metric("peak")), g);
    const auto other = goalFor(g, metric("sag"));
    EXPECT_EQ(other.sense, Sense::less);
    EXPECT_FALSE(other.need || other.ceiling);
    EXPECT_EQ(other.margin, 0.2);
    EXPECT_EQ(other.control, 7);
    auto changed = g;
    decideBy(changed, metric("residual")); // also a force: the limits may be meant for it
    EXPECT_EQ(changed.need, 3000);
    decideBy(changed, metric("stiffness"));
    EXPECT_FALSE(changed.need || changed.ceiling) << "3000 N are no stiffness";
    decideBy(changed, metric("creep"));
    EXPECT_EQ(changed.sense, Sense::less);
    changed.sense = Sense::inside;
    decideBy(changed, metric("peak"));
    EXPECT_EQ(changed.sense, Sense::inside) << "a window stays wanted";
}

TEST(Goal, NeedCeilingAndWindowBySense) {
    Goal g;
    EXPECT_FALSE(meetsNeed(g, 5));
    EXPECT_FALSE(isEnough(g, 5));
    EXPECT_FALSE(insideWindow(g, 5));
    g.need = 3;
    g.ceiling = 9;
    g.window = {{4, 6}};
    EXPECT_EQ(meetsNeed(g, 3), true);
    EXPECT_EQ(meetsNeed(g, 2.9), false);
    EXPECT_TRUE(isEnough(g, 9));
    EXPECT_FALSE(isEnough(g, 8.9));
    g.sense = Sense::less;
    EXPECT_EQ(meetsNeed(g, 3.1), false);
    EXPECT_TRUE(isEnough(g, 8.9));
    g.sense = Sense::inside;
    EXPECT_FALSE(meetsNeed(g, 3)) << "a window is its own need";
    EXPECT_FALSE(isEnough(g, 100));
    EXPECT_TRUE(insideWindow(g, 4));
    EXPECT_TRUE(insideWindow(g, 6));
    EXPECT_FALSE(insideWindow(g, 6.1));
}

Maker three() {
    Maker m;
    m.option("Pin").option("Bolt").option("Peg").condition("Dry");
    m.square(1, 11, {100, 102, 98}).square(2, 11, {200, 204, 196}).square(3, 11, {300, 304, 296});
    return m;
}

std::vector<Id> order(const Verdict& v) {
    std::vector<Id> out;
    for (const auto& g : v.groups)
        out.push_back(g.option);
    return out;
}

TEST(Goal, PlacesFollowTheSense) {
    auto m = three();
    EXPECT_EQ(order(m.verdict()), (std::vector<Id>{3, 2, 1}));
    m.data.study.goal.sense = Sense::less;
    const auto v = m.verdict();
    EXPECT_EQ(order(v), (std::vector<Id>{1, 2, 3}));
    EXPECT_EQ(v.groups[0].rank, 1);
    EXPECT_EQ(v.groups[0].letters, "a") << "the best carries the first letter";
    EXPECT_EQ(m.verdict(metric("stiffness")).groups[0].leftOut.size(), 3U);
}

TEST(Goal, InsideAWindowTheShareDecidesThenTheMiddle) {
    auto m = three();
    m.data.study.goal.sense = Sense::inside;
    EXPECT_EQ(order(m.verdict()), (std::vector<Id>{1, 2, 3})) << "board order while the ends are not said";
    EXPECT_EQ(m.verdict().groups[0].rank, 0) << "and no place";
    m.data.study.goal.window = {{190, 301}};
    const auto v = m.verdict();
    EXPECT_EQ(order(v), (std::vector<Id>{2, 3, 1}));
    EXPECT_EQ(v.groups[0].inside->inside, 3U);
    EXPECT_EQ(v.groups[1].inside->inside, 2U);
    EXPECT_EQ(v.groups[2].inside->inside, 0U);
    EXPECT_EQ(v.groups[0].letters, "") << "more or less is not what is asked";
}

TEST(Goal, BeyondTheCeilingAllShareTheFirstPlace) {
    auto m = three();
    m.data.study.goal.ceiling = 199;
    m.data.study.goal.need = 150;
    const auto v = m.verdict();
    EXPECT_EQ(v.groups[0].rank, 1);
    EXPECT_EQ(v.groups[1].rank, 1);
    EXPECT_EQ(v.groups[2].rank, 3);
    EXPECT_EQ(v.groups[0].letters, v.groups[1].letters) << "tied";
    EXPECT_NE(v.groups[2].letters, v.groups[0].letters);
    EXPECT_EQ(v.groups[1].meetsNeed, true);
    EXPECT_EQ(v.groups[2].meetsNeed, false);
    // Nobody is sent to pull more of what is good enough.
    m.square(2, 11, {330, 60}).square(3, 11, {250, 120});
    for (const auto& p : m.verdict().pairs)
        if (m.verdict().groups[p.a].enough && m.verdict().groups[p.b].enough) {
            EXPECT_FALSE(p.open);
        }
}

/// A mean that is "at least" says nothing against a need it does not reach.
TEST(Goal, ABoundBelowTheNeedIsNotShortOfIt) {
    auto m = three();
    for (auto& p : m.data.pulls)
        if (m.data.specimen(p.specimen)->option == 1) p.standing = Standing::atLeast;
    m.data.study.goal.need = 150;
    const auto of = [&](Id option) {
        const auto v = m.verdict();
        return *std::find_if(v.groups.begin(), v.groups.end(),
                             [&](const Group& g) { return g.option == option; });
    };
    EXPECT_EQ(of(1).summary.basis, stats::MeanBasis::bound);
    EXPECT_FALSE(of(1).meetsNeed) << "it may hold any more";
    m.data.study.goal.need = 90;
    EXPECT_EQ(of(1).meetsNeed, true);
    m.data.study.goal.sense = Sense::less;
    m.data.study.goal.ceiling = 150;
    EXPECT_EQ(of(1).meetsNeed, false);
    EXPECT_FALSE(of(1).enough) << "it may be any more";
}

TEST(Goal, PairsWithTheControlAreAFamily) {
    auto m = three();
    m.square(1, 11, {101}).square(2, 11, {150, 250}).square(3, 11, {260, 330});
    const auto holm = [&](Id a, Id b) {
        const auto v = m.verdict();
        for (const auto& p : v.pairs)
            if (v.groups[p.a].option == a && v.groups[p.b].option == b)
                return *p.comparison.pHolm / *p.comparison.p;
        return 0.0;
    };
    EXPECT_GT(holm(1, 2) + holm(1, 3) + holm(2, 3), 5.9)
        << "three tests: times 3, 2 and 1 where none is held up";
    m.data.study.goal.control = 2;
    EXPECT_NEAR(holm(1, 3), 1, 1e-12) << "the only pair without it";
    EXPECT_LE(holm(1, 2), 2 + 1e-12);
    EXPECT_LE(holm(2, 3), 2 + 1e-12);
    m.data.study.goal.control = 99; // not in this study any more
    EXPECT_GT(holm(1, 2) + holm(1, 3) + holm(2, 3), 5.9);
}

} // namespace
