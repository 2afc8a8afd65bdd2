// Drawn rankings against Student's law, and what they must never say.
#include <algorithm>
#include <anvil/stats/ranking.h>
#include <array>
#include <cmath>
#include <gtest/gtest.h>
#include <random>

using namespace anvil::stats;

namespace {

std::vector<Value> values(std::initializer_list<double> all, Bound state = Bound::exact) {
    std::vector<Value> v;
    for (const double x : all)
        v.push_back({x, state, x});
    return v;
}

std::optional<DrawnRanking> ranked(const std::vector<std::vector<Value>>& groups, std::uint64_t seed = 1,
                                   bool more = true, int draws = 20000) {
    std::vector<Contender> all;
    for (std::size_t i = 0; i < groups.size(); ++i)
        all.push_back({groups[i], streamOf(seed, std::string(1, static_cast<char>('A' + i)), "")});
    return drawRanking(all, more, streamOf(seed, "", ""), draws);
}

TEST(Ranking, TwoWithASharedSpreadAreStudents) {
    const auto a = values({410, 455, 432}), b = values({400, 440, 402, 431});
    const auto r = ranked({a, b}, 3, true, 400000);
    ASSERT_TRUE(r);
    EXPECT_EQ(r->spread, DrawnSpread::pooled);
    double ma = 0, mb = 0, squares = 0;
    for (const auto& v : a)
        ma += std::log(v.value) / 3;
    for (const auto& v : b)
        mb += std::log(v.value) / 4;
    for (const auto& v : a)
        squares += std::pow(std::log(v.value) - ma, 2);
    for (const auto& v : b)
        squares += std::pow(std::log(v.value) - mb, 2);
    const double t = (ma - mb) / std::sqrt(squares / 5 * (1.0 / 3 + 1.0 / 4));
    EXPECT_NEAR(r->places[0].best, 1 - studentUpperTail(5, t), 0.004);
    EXPECT_NEAR(r->places[0].best + r->places[1].best, 1, 1e-12);
    EXPECT_NEAR(r->places[0].expected, 2 - r->places[0].best, 1e-12);
}

TEST(Ranking, OwnSpreadsFromFiveOn) {
    const auto a = values({410, 455, 432, 440, 421}), b = values({400, 440, 402, 431, 420});
    const auto r = ranked({a, b});
    ASSERT_TRUE(r);
    EXPECT_EQ(r->spread, DrawnSpread::own);
    EXPECT_GT(r->places[0].best, 0.8);
    const auto same = ranked({a, a}, 5);
    EXPECT_NEAR(same->places[0].best, 0.5, 0.015);
    EXPECT_EQ(ranked({a, values({400, 440, 402, 431})})->spread, DrawnSpread::pooled);
    const auto less = ranked({a, b}, 1, false);
    EXPECT_NEAR(less->places[0].best, 1 - r->places[0].best, 1e-12);
}

TEST(Ranking, WhatToppedOutWins) {
    const auto a = values({500, 500, 500}, Bound::above), b = values({241, 255, 238});
    const auto r = ranked({a, b});
    ASSERT_TRUE(r);
    EXPECT_GT(r->places[0].best, 0.999);
    EXPECT_TRUE(r->places[0].atLeast);
    EXPECT_FALSE(r->places[1].atLeast);
    auto c = values({500, 500}, Bound::above), d = values({476, 490});
    c.push_back({482, Bound::exact, 482});
    d.push_back({500, Bound::above, 500});
    const auto close = ranked({c, d});
    ASSERT_TRUE(close);
    EXPECT_GT(close->places[0].best, 0.3);
    EXPECT_LT(close->places[0].best, 0.97) << "no winner";
}

TEST(Ranking, TheSameSeedTheSameAnswerWhateverTheOrder) {
    const auto a = values({410, 455, 432}), b = values({400, 440, 402}), c = values({390, 480, 433});
    const auto r = ranked({a, b, c}, 9), again = ranked({a, b, c}, 9), other = ranked({a, b, c}, 10);
    for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_EQ(r->places[i].best, again->places[i].best);
        EXPECT_NEAR(r->places[i].best, other->places[i].best, 0.02);
        EXPECT_LE(r->places[i].from, r->places[i].expected);
        EXPECT_GE(r->places[i].to, r->places[i].expected);
    }
    const std::vector<Contender> turned{
        {c, streamOf(9, "C", "")}, {a, streamOf(9, "A", "")}, {b, streamOf(9, "B", "")}};
    const auto t = drawRanking(turned, true, streamOf(9, "", ""));
    EXPECT_EQ(t->places[1].best, r->places[0].best) << "the streams belong to the options";
    EXPECT_EQ(r->places[0].best, 0.42595) << "pinned: the same on every machine";
}

TEST(Ranking, WhatCannotBeRanked) {
    EXPECT_FALSE(drawRanking({}, true, 1));
    EXPECT_FALSE(ranked({values({5}), values({6})})) << "no spread can be told";
    EXPECT_FALSE(ranked({values({-5, 5}), values({6, 7})})) << "logarithms of what is not above zero";
    EXPECT_FALSE(ranked({values({5, 5, 5}), values({6, 6, 6})})) << "nothing spreads";
    const auto one = ranked({values({5}), values({6, 7})});
    ASSERT_TRUE(one);
    EXPECT_GT(one->places[1].best, 0.5);
    const auto alone = ranked({values({6, 7})});
    EXPECT_EQ(alone->places[0].best, 1);
    EXPECT_EQ(alone->places[0].from, 1);
}

/// Forecast against frequency: of the options that are given a chance in a bin, so many are the best. Four
/// options of four, whose true means lie anywhere. (With two of three the forecasts are too careful by up to
/// 0.05.)
TEST(Ranking, ItsChancesComeTrue) {
    std::mt19937 random(11);
    std::normal_distribution<> draw;
    std::uniform_real_distribution<> anywhere(-0.3, 0.3); // on logarithms; one mean has a spread of 0.05
    constexpr std::size_t bins = 6, options = 4;
    double said[bins] = {}, right[bins] = {}, n[bins] = {};
    for (std::uint64_t set = 0; set < 6000; ++set) {
        std::vector<std::vector<Value>> groups(options);
        std::array<double, options> truth{};
        for (std::size_t g = 0; g < options; ++g) {
            truth[g] = anywhere(random);
            for (int k = 0; k < 4; ++k) {
                const double x = 100 * std::exp(0.1 * draw(random) + truth[g]);
                groups[g].push_back({x, Bound::exact, x});
            }
        }
        const auto r = ranked(groups, set, true, 1000);
        ASSERT_TRUE(r);
        const auto best =
            static_cast<std::size_t>(std::max_element(truth.begin(), truth.end()) - truth.begin());
        for (std::size_t g = 0; g < options; ++g) {
            const double p = r->places[g].best;
            const auto bin = std::min(bins - 1, static_cast<std::size_t>(p * bins));
            said[bin] += p;
            right[bin] += g == best;
            ++n[bin];
        }
    }
    for (std::size_t k = 0; k < bins; ++k) {
        ASSERT_GT(n[k], 300) << k;
        EXPECT_NEAR(right[k] / n[k], said[k] / n[k], 0.03) << k << " of " << n[k];
    }
}

} // namespace
