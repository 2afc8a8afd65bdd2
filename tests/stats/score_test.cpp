#include <anvil/stats/score.h>
#include <gtest/gtest.h>

namespace anvil::stats {
namespace {

using Row = std::vector<std::optional<double>>;

TEST(Score, MarksByBothRules) {
    EXPECT_EQ(marksOfBest({50, {}, 200}, true), (Row{0.25, {}, 1}));
    EXPECT_EQ(marksOfBest({50, {}, 200}, false), (Row{1, {}, 0.25}));
    EXPECT_EQ(marksOfBest({50, 0, 200}, true), (Row{0.25, 0, 1})) << "nothing is a rating too";
    EXPECT_EQ(marksOfBest({50, 0, 200}, false), (Row{0, 1, 0}));
    EXPECT_EQ(marksOfBest({50, -1, 200}, true), (Row{{}, {}, {}})) << "below nothing is none";
    EXPECT_EQ(marksBetween({50, 0, 200, {}}, 100, 0), (Row{0.5, 1, 0, {}}));
    EXPECT_EQ(marksBetween({50, 60}, 10, 10), (Row{{}, {}}));
}

TEST(Score, HandWorked) {
    // Weights 3 and 1: A 0.75·1 + 0.25·0.4 = 0.85; B has no second mark: 0.8 of what is tested, 0.75 of the
    // weight; filled 0.6 + 0.1 = 0.7 and 0.6 + 0.25 = 0.85; C 0.45 + 0.25 = 0.7.
    const auto s = scores({{1, 0.4}, {0.8, {}}, {0.6, 1}}, {3, 1});
    EXPECT_DOUBLE_EQ(s[0].score.value(), 0.85);
    EXPECT_DOUBLE_EQ(s[1].score.value(), 0.8);
    EXPECT_DOUBLE_EQ(s[1].tested, 0.75);
    EXPECT_DOUBLE_EQ(s[1].worst.value(), 0.7);
    EXPECT_DOUBLE_EQ(s[1].best.value(), 0.85);
    EXPECT_DOUBLE_EQ(s[2].score.value(), 0.7);
    EXPECT_EQ(winner(s), 0u);
}

TEST(Score, WinsOverAllWeightsInClosedForm) {
    // A wins where w > 0.8·w + 0.2… : 1·w + 0.4(1 − w) > 0.7, w > 0.5; C else. B never.
    const auto s = scores({{1, 0.4}, {0.7, 0.7}, {0.4, 1}}, {3, 1});
    EXPECT_NEAR(s[0].wins, 0.5, 0.012);
    EXPECT_NEAR(s[1].wins, 0, 1e-9);
    EXPECT_NEAR(s[2].wins, 0.5, 0.012);
    // Three criteria, each option the best in one: by symmetry a third each.
    const auto t = scores({{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}, {1, 1, 1});
    for (const auto& one : t)
        EXPECT_NEAR(one.wins, 1.0 / 3, 0.012);
    // w1 > 2·w2 has the share 1/3 of all weights.
    EXPECT_NEAR(scores({{1, 0}, {0, 2.0 / 2}}, {1, 1})[0].wins, 0.5, 0.012);
    EXPECT_NEAR(scores({{0.5, 0}, {0, 1}}, {1, 1})[0].wins, 1.0 / 3, 0.012);
}

TEST(Score, ATieIsSharedAndWeightsOfNothingDoNotCount) {
    const auto s = scores({{0.5, 1}, {0.5, 0}}, {1, 0});
    EXPECT_DOUBLE_EQ(s[0].wins, 0.5);
    EXPECT_DOUBLE_EQ(s[1].wins, 0.5);
    EXPECT_DOUBLE_EQ(s[0].score.value(), 0.5);
    const auto none = scores({{0.5}, {0.7}}, {0});
    EXPECT_FALSE(none[0].score);
    EXPECT_FALSE(winner(none));
    EXPECT_DOUBLE_EQ(none[0].wins, 0);
    const auto blank = scores({{std::nullopt}, {0.7}}, {1});
    EXPECT_FALSE(blank[0].score);
    EXPECT_DOUBLE_EQ(blank[0].tested, 0);
    EXPECT_DOUBLE_EQ(blank[0].best.value(), 0.7);
    EXPECT_DOUBLE_EQ(blank[1].wins, 1);
}

TEST(Score, TurnsWhereAnotherWins) {
    const auto t =
        turns({{1, 0.4}, {0.4, 1}}, {3, 1}); // from half down on the first, from half up on the other
    ASSERT_EQ(t.size(), 2u);
    EXPECT_NEAR(t[0].share, 0.5, 0.002);
    EXPECT_FALSE(t[0].above);
    EXPECT_EQ(t[0].now, 1u);
    EXPECT_NEAR(t[1].share, 0.5, 0.002);
    EXPECT_TRUE(t[1].above);
    EXPECT_TRUE(turns({{1, 1}, {0.4, 0.3}}, {3, 1}).empty());
    EXPECT_TRUE(turns({{1}, {0.4}}, {3}).empty());
}

TEST(Score, TheSameSeedTheSameAnswer) {
    const Marks marks{{1, 0.4, 0.2}, {0.7, 0.7, 0.5}, {0.4, 1, {}}};
    const auto a = scores(marks, {1, 2, 3}, 5), b = scores(marks, {3, 2, 1}, 5);
    for (std::size_t i = 0; i < a.size(); ++i)
        EXPECT_DOUBLE_EQ(a[i].wins, b[i].wins); // whatever the weights are now
}

} // namespace
} // namespace anvil::stats
