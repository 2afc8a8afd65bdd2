// What a bound can say depends on the direction; equal is equal; one ruler for word, interval and chance.
#include "study_maker.h"
#include <algorithm>
#include <anvil/results/needs.h>
#include <anvil/results/sureness.h>
#include <anvil/results/treatment.h>
#include <anvil/results/trends.h>
#include <anvil/results/unlikely.h>
#include <anvil/stats/draws.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

using stats::PairVerdict;

Maker two() {
    Maker m;
    m.option("Pin").option("Bolt").condition("Dry");
    return m;
}

const Group& groupOf(const Verdict& v, const Maker& m, const char* name) {
    return *std::find_if(v.groups.begin(), v.groups.end(),
                         [&](const Group& g) { return m.data.optionAt(g.option).name == name; });
}

TEST(Directions, ToppingOutIsNoAdvantageWhereLessIsWanted) { // drops: >200 three times against 212, 220, 215
    auto m = two();
    for (int k = 0; k < 3; ++k)
        m.pull(1, 11, 200, Standing::atLeast);
    m.square(2, 11, {212, 220, 215});
    m.data.study.goal.sense = Sense::less;
    const auto v = m.verdict();
    EXPECT_EQ(groupOf(v, m, "Pin").rank, 0) << "its bound would make it look better than it may be";
    EXPECT_EQ(groupOf(v, m, "Bolt").rank, 1);
    const auto sure = surenessOf(Results(m.data, m.readings), v);
    for (const auto& [condition, ranking] : sure.rankings)
        for (const auto g : ranking.groups)
            EXPECT_EQ(m.data.optionAt(v.groups[g].option).name, "Bolt");
    ASSERT_EQ(v.pairs.size(), 1U);
    EXPECT_NE(v.pairs[0].comparison.verdict, PairVerdict::weaker) << "it may lie anywhere above 200";
}

TEST(Directions, AtMostIsDrawnWhereThatIsFair) {
    auto m = two();
    for (int k = 0; k < 3; ++k)
        m.pull(1, 11, 100, Standing::atMost);
    m.square(2, 11, {212, 220, 215});
    m.data.study.goal.sense = Sense::less;
    auto v = m.verdict();
    EXPECT_EQ(groupOf(v, m, "Pin").rank, 1) << "at most 100 is less than 212 whatever it is";
    EXPECT_EQ(groupOf(v, m, "Pin").summary.bound, stats::Bound::below);
    ASSERT_EQ(v.pairs.size(), 1U);
    EXPECT_EQ(v.pairs[0].comparison.verdict, PairVerdict::weaker) << "less of it, for sure";
    EXPECT_TRUE(v.pairs[0].comparison.atMost);
    EXPECT_FALSE(stats::overPair(v.pairs[0].comparison)->first > 0) << "open below";
    m.data.study.goal.sense = Sense::more;
    v = m.verdict();
    EXPECT_EQ(groupOf(v, m, "Pin").rank, 0) << "drawn at its bound it would look better than it is";
}

TEST(Directions, ABoundOutsideTheWindowIsOutside) { // 900, 860, >1700 in 300 to 1200
    auto m = two();
    m.square(1, 11, {900, 860});
    m.pull(1, 11, 1700, Standing::atLeast);
    m.square(2, 11, {500});
    m.pull(2, 11, 400, Standing::atLeast);
    m.data.study.goal.sense = Sense::inside;
    m.data.study.goal.window = {{300, 1200}};
    const auto v = m.verdict();
    const auto& pin = *groupOf(v, m, "Pin").inside;
    EXPECT_EQ(pin.inside, 2U);
    EXPECT_EQ(pin.of, 3U);
    EXPECT_EQ(pin.unknown, 0U);
    const auto& bolt = *groupOf(v, m, "Bolt").inside;
    EXPECT_EQ(bolt.unknown, 1U) << "400 or more may be inside or beyond";
    EXPECT_DOUBLE_EQ(bolt.share(), 0.5);
    EXPECT_DOUBLE_EQ(bolt.most(), 1);
}

TEST(Ties, EqualIsSaidAsEqual) {
    auto m = two();
    m.square(1, 11, {100, 110, 120}).square(2, 11, {105, 110, 115});
    auto v = m.verdict();
    EXPECT_EQ(v.groups[0].rank, 1);
    EXPECT_EQ(v.groups[1].rank, 1);
    EXPECT_TRUE(v.pairs[0].comparison.equal);
    auto off = two();
    for (const Id option : {1, 2})
        for (int k = 0; k < 3; ++k)
            off.pull(option, 11, 250, Standing::atLeast);
    v = off.verdict();
    EXPECT_EQ(v.groups[0].rank, v.groups[1].rank) << "board order never decides";
}

TEST(OneRuler, DoubtOfTheReadingsCounts) { // 12 ± 5 three times against 13.6 ± 5
    auto m = two();
    for (int k = 0; k < 3; ++k) {
        m.pull(1, 11, 12).typed->asTyped = "12 ± 5 N";
        m.pull(2, 11, 13.6).typed->asTyped = "13.6 ± 5 N";
    }
    const auto v = m.verdict();
    EXPECT_EQ(v.pairs[0].comparison.verdict, PairVerdict::tooClose);
    EXPECT_TRUE(v.pairs[0].comparison.withinDoubt);
    const auto& ends = *v.groups[0].summary.typicalInterval;
    EXPECT_GE(ends.second - ends.first, 10) << "± 5 does not shrink with n";
    auto sharp = two();
    for (int k = 0; k < 3; ++k) {
        sharp.pull(1, 11, 12).typed->asTyped = "12.0 N";
        sharp.pull(2, 11, 13.6).typed->asTyped = "13.6 N";
    }
    const auto w = sharp.verdict();
    EXPECT_EQ(w.pairs[0].comparison.verdict, PairVerdict::weaker) << "to the last digit typed";
    EXPECT_EQ(w.pairs[0].comparison.test, stats::PairTest::digits);
    EXPECT_FALSE(w.pairs[0].comparison.p);
}

TEST(OneRuler, BesideBoundsEveryAverageIsAMedian) {
    auto m = two();
    m.square(1, 11, {100, 110, 120, 130});
    m.square(2, 11, {90, 95});
    m.pull(2, 11, 120, Standing::atLeast);
    const auto v = m.verdict();
    const auto& pin = groupOf(v, m, "Pin").summary;
    EXPECT_EQ(pin.typicalBasis, stats::TypicalBasis::fittedMedian);
    EXPECT_NEAR(*pin.typical, std::pow(100.0 * 110 * 120 * 130, 0.25), 1e-9);
    EXPECT_NEAR(*pin.mean, 115, 1e-12) << "the mean is still told";
    const auto& bolt = groupOf(v, m, "Bolt").summary;
    ASSERT_TRUE(bolt.typical && pin.typical);
    EXPECT_NEAR(*v.pairs[0].comparison.ratio, *pin.typical / *bolt.typical, 1e-12)
        << "of the averages that are shown";
}

TEST(OneRuler, InWholeBlocksTheChanceSeesWhatThePairsSee) {
    Maker m;
    m.option("Pin").option("Bolt").option("Hook").condition("Dry");
    stats::Draws random(4);
    for (int block = 0; block < 8; ++block) {
        const double wood = 100 * (1 + 0.5 * block); // the boards differ far more than the options
        for (int option = 1; option <= 3; ++option) {
            m.pull(option, 11, wood * (1 + 0.06 * (3 - option) + 0.004 * random.normal()));
            m.data.specimens.back().block = "board " + std::to_string(block);
        }
    }
    const auto v = m.verdict();
    for (const auto& p : v.pairs)
        EXPECT_EQ(p.comparison.test, stats::PairTest::paired);
    const auto ranking = rankingOf(m.data, v, 11);
    ASSERT_TRUE(ranking);
    EXPECT_GT(ranking->places.front().best, 0.999) << "the paired tests are as sure";
}

TEST(OneRuler, KOfKAboveTheNeed) {
    for (int k = 1; k <= 8; ++k) {
        auto m = two();
        for (int i = 0; i < k; ++i)
            m.pull(1, 11, 500, Standing::atLeast);
        m.data.study.goal.need = 450;
        const auto need = needsOf(m.verdict()).front();
        EXPECT_NEAR(*need.meanMeets, 1 - std::pow(0.5, k), 1e-12);
        EXPECT_EQ(need.verdict == NeedVerdict::met, k >= 6) << k;
    }
}

TEST(SinglePulls, SayWhatChanceWouldDo) {
    auto m = two();
    m.square(1, 11, {127}).square(2, 11, {100});
    auto v = m.verdict();
    const auto one = singlePulls(v, v.pairs[0]);
    ASSERT_TRUE(one);
    EXPECT_DOUBLE_EQ(one->ratio, 1.27);
    // ln 1.27 = 0.2390; √2 · 0.12 = 0.1697: 1.4085 standard deviations, 15.9 % beyond them.
    EXPECT_NEAR(one->chance, 0.159, 5e-4);
}

TEST(Bounds, AreNotDroppedByTrendsAndTreatments) {
    Maker m;
    m.option("Glue").condition("1").condition("2").condition("3");
    for (std::size_t k = 0; k < 3; ++k)
        m.data.conditions[k].value = static_cast<double>(k + 1);
    m.square(1, 11, {100, 104, 97}).square(1, 12, {150, 158, 149});
    for (int k = 0; k < 3; ++k)
        m.pull(1, 13, 200, Standing::atLeast);
    const auto trends = trendsOf(m.data, m.verdict());
    ASSERT_EQ(trends.size(), 1U);
    EXPECT_EQ(trends[0].points, 9U);
    EXPECT_EQ(trends[0].verdict, TrendVerdict::rising);
    EXPECT_GT(trends[0].line.slope, 45) << "from the exact ones alone it would end at 150";

    Maker t;
    t.option("A").option("B").option("C").condition("Plain").condition("Treated");
    t.square(1, 11, {100, 103}).square(1, 12, {150, 155});
    t.square(2, 11, {80, 82}).square(2, 12, {121, 119});
    t.square(3, 11, {120, 118});
    t.pull(3, 12, 170, Standing::atLeast);
    t.pull(3, 12, 170, Standing::atLeast);
    const auto all = treatmentsOf(t.data, t.verdict());
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].pooled.options, 3U) << "the one that topped out is among them";
    EXPECT_GT(all[0].pooled.ratio, 1.45);
    EXPECT_LT(*all[0].pooled.p, 0.01);
}

TEST(Unlikely, ComparesWhatOneDisplayWouldHaveShown) {
    Maker t;
    t.square(1, 11, {2000, 2100});
    t.data.pulls[1].typed->value = 205; // behind a lever of 1:10, with 50 N of its own
    t.data.pulls[1].outcome.path = domain::ReadThrough{10, 50, 0};
    const auto specimen = t.data.pulls[0].specimen;
    const auto peak = domain::metric("peak");
    EXPECT_EQ(fellowsOf(t.data, specimen, peak), (std::vector<double>{2000, 2100})) << "at the piece";
    EXPECT_EQ(fellowsOf(t.data, specimen, peak, domain::ReadThrough{10, 50, 0}),
              (std::vector<double>{195, 205}))
        << "on the same display";
}

TEST(Unlikely, NamesTheUnitThatWasMeant) {
    const std::vector<double> fellows{400, 410, 395};
    const auto typed = [](const char* text) {
        return *quantity::parseEntry(text, quantity::Dimension::force);
    };
    EXPECT_FALSE(unlikely(typed("430 N"), fellows));
    EXPECT_FALSE(unlikely(typed("900 N"), fellows)) << "twice is no slip of a unit";
    const auto pounds = unlikely(typed("405 lb"), fellows);
    ASSERT_TRUE(pounds && pounds->meant);
    EXPECT_EQ(pounds->meant->symbol, "N");
    const auto range = asMeant(typed("4\u20265 lbf"), *pounds->meant);
    EXPECT_NEAR(range.si, 4, 1e-12);
    EXPECT_NEAR(range.upperSi, 5, 1e-12) << "both bounds";
    EXPECT_NEAR(asMeant(typed("40 \u00b1 2 lbf"), *pounds->meant).plusMinusSi, 2, 1e-12);
    EXPECT_EQ(unlikely(typed("402 kg"), fellows)->meant->symbol, "N");
    EXPECT_EQ(unlikely(typed("405 kN"), fellows)->meant->symbol, "N");
    const auto ten = unlikely(typed("4050 N"), fellows);
    ASSERT_TRUE(ten);
    EXPECT_FALSE(ten->meant && ten->meant->symbol == "kN");
    EXPECT_FALSE(unlikely(typed("405 lb"), {})) << "without fellows there is nothing to compare with";
}

} // namespace
} // namespace anvil::results
