// What stands beside a verdict: two groups side by side, other scales, use, last time, corrections.
#include "study_maker.h"

#include <anvil/results/corrections.h>
#include <anvil/results/earlier.h>
#include <anvil/results/forecasts.h>
#include <anvil/results/probability.h>
#include <anvil/results/ratios.h>
#include <anvil/results/use.h>
#include <anvil/results/why.h>
#include <anvil/stats/power.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

Maker two() {
    Maker m;
    m.option("A").option("B").option("C").condition("Plain").condition("Salted");
    m.square(1, 11, {100, 104, 96, 100, 100})
        .square(2, 11, {50, 52, 48, 50, 50})
        .square(3, 11, {70, 71, 69, 70});
    m.square(1, 12, {80, 82, 78, 80, 80}).square(2, 12, {49, 51, 47, 49, 49}).square(3, 12, {40, 41, 39, 40});
    return m;
}

std::size_t at(const Verdict& v, Id option, Id condition) {
    return static_cast<std::size_t>(v.group(option, condition) - v.groups.data());
}

TEST(Why, CountsWhatBrokeAndSaysWhatDiffered) {
    auto m = two();
    for (auto& s : m.data.specimens)
        s.batch = s.option == 1 ? "box 1" : "box 2";
    for (auto& p : m.data.pulls) {
        p.performedAt = "2026-05-01T10:00:00";
        p.outcome.part = m.data.specimenAt(p.specimen).option == 1 ? "the wire" : "the fitting";
    }
    const Results table(m.data, m.readings);
    const auto v = evaluate(table, m.data.study.goal);
    const auto a = at(v, 1, 11), b = at(v, 2, 11);
    const auto why = whyOf(table, v, b, a);
    ASSERT_TRUE(why);
    EXPECT_EQ(why->a, a) << "in the order they were compared";
    ASSERT_EQ(why->broke.size(), 2u);
    EXPECT_EQ(why->broke[0].a + why->broke[0].b, 5u);
    ASSERT_EQ(why->differed.size(), 1u) << "the day is the same, and nobody is named";
    EXPECT_EQ(why->differed[0].what, Differed::What::batch);
    EXPECT_EQ(why->differed[0].a, "box 1");
    EXPECT_FALSE(why->withAside);
    EXPECT_FALSE(whyOf(table, v, at(v, 1, 11), at(v, 2, 12))) << "they share nothing";
}

TEST(Why, ShowsTheRatioWithWhatWasSetAside) {
    auto m = two();
    m.pull(1, 11, 300, Standing::aside);
    const Results table(m.data, m.readings);
    const auto v = evaluate(table, m.data.study.goal);
    const auto why = whyOf(table, v, at(v, 1, 11), at(v, 2, 11));
    ASSERT_TRUE(why && why->withAside);
    EXPECT_EQ(why->asideA, 1u);
    EXPECT_NEAR(why->comparison.ratio.value(), 2, 1e-12);
    EXPECT_NEAR(why->withAside->ratio.value(), (500.0 + 300) / 6 / 50, 1e-12);
}

TEST(Ratios, AreFormedFromTheMeansShown) {
    auto m = two();
    m.data.options[0].rating = 200;
    m.data.options[1].rating = 40;
    m.data.options[2].unitCost = 2;
    m.data.options[0].unitCost = 5;
    m.data.study.goal.control = 2;
    const auto v = evaluate(m.data, m.readings, m.data.study.goal);
    const auto rating = ratiosOf(m.data, v, RatioBase::rating);
    ASSERT_EQ(rating.size(), 4u);
    EXPECT_NEAR(rating[0].ratio, 50.0 / 40, 1e-12) << "greatest first";
    EXPECT_NEAR(rating[1].ratio, 0.5, 1e-12);
    EXPECT_NEAR(rating[0].interval->first, v.groups[rating[0].group].summary.meanInterval->first / 40, 1e-12);
    const auto control = ratiosOf(m.data, v, RatioBase::control);
    ASSERT_EQ(control.size(), 6u);
    EXPECT_NEAR(control[0].ratio, 2, 1e-12);
    for (const auto& r : control)
        if (v.groups[r.group].option == 2) {
            EXPECT_TRUE(r.itself);
        }
    const auto untreated = ratiosOf(m.data, v, RatioBase::untreated);
    ASSERT_EQ(untreated.size(), 3u) << "the first condition is what it is compared with";
    EXPECT_NEAR(untreated[0].ratio, 49.0 / 50, 1e-12);
    const auto cost = ratiosOf(m.data, v, RatioBase::cost);
    EXPECT_NEAR(cost[0].ratio, 35, 1e-12);
    EXPECT_TRUE(ratiosOf(m.data, v, RatioBase::weight).empty());
    EXPECT_EQ(ratioBases(m.data, v).size(), 4u);
    for (const auto base : ratioBases(m.data, v))
        EXPECT_EQ(ratioBaseFromKey(key(base)), base);
}

TEST(Ratios, TheIntervalOfATurnedPairIsTurned) {
    auto m = two();
    m.data.study.goal.control = 3;
    const auto v = evaluate(m.data, m.readings, m.data.study.goal);
    for (const auto& r : ratiosOf(m.data, v, RatioBase::control)) {
        if (r.itself) continue;
        ASSERT_TRUE(r.interval);
        EXPECT_LT(r.interval->first, r.ratio);
        EXPECT_GT(r.interval->second, r.ratio);
        const auto* base = v.group(3, v.groups[r.group].condition);
        EXPECT_NEAR(r.ratio, *v.groups[r.group].summary.mean / *base->summary.mean, 1e-12);
    }
}

TEST(Baselines, SaySoWhereTheyTellTwoStories) {
    auto m = two();
    m.data.options[0].rating = 75;  // 107 % after salt, which took 20 %
    m.data.options[1].rating = 60;  // 82 % of the rating, 98 % of untreated
    m.data.options[2].rating = 100; // 40 %
    const auto v = evaluate(m.data, m.readings, m.data.study.goal);
    const auto b = baselinesOf(m.data, v);
    ASSERT_EQ(b.size(), 1u);
    EXPECT_EQ(b[0].condition, 12);
    EXPECT_EQ(v.groups[b[0].byRating].option, 1);
    EXPECT_EQ(v.groups[b[0].byUntreated].option, 2);
    EXPECT_NEAR(b[0].ofRating, 80.0 / 75, 1e-12);
    ASSERT_EQ(b[0].stillRated.size(), 1u);
    EXPECT_EQ(v.groups[b[0].stillRated[0]].option, 1);
    for (auto& o : m.data.options)
        o.rating = {};
    EXPECT_TRUE(baselinesOf(m.data, v).empty());
}

TEST(WorkingLimit, HandWorked) {
    Maker m;
    m.option("A")
        .option("B")
        .condition("Plain")
        .square(1, 11, {1000, 1040, 960, 1010, 990})
        .square(2, 11, {900, 910});
    const auto v = m.verdict();
    const double floor =
        1000 - stats::toleranceFactor(5, 0.9, 0.95) * std::sqrt((1600 + 1600 + 100 + 100) / 4.0);
    Use use;
    auto limits = workingLimits(v, use);
    ASSERT_EQ(limits.size(), 2u);
    EXPECT_NEAR(limits[0].floor.value(), floor, 1e-9);
    EXPECT_FALSE(limits[0].limit) << "no factor is chosen";
    EXPECT_STRNE(limits[0].why, "");
    use = {3, "weather", 50, 2000, 1.5};
    limits = workingLimits(v, use);
    EXPECT_DOUBLE_EQ(limits[0].limit.value(), 300) << floor / 3 << " rounded down";
    EXPECT_EQ(limits[0].needed, 10) << "3000 over 300";
    EXPECT_FALSE(limits[1].floor) << "two exact values promise nothing";
    EXPECT_FALSE(limits[1].limit);
    use.step = 1000;
    EXPECT_FALSE(workingLimits(v, use)[0].limit) << "less than a step is left";
    use.step = 0;
    EXPECT_NEAR(workingLimits(v, use)[0].limit.value(), floor / 3, 1e-9);
}

TEST(Earlier, ComparesWhatIsOfOneMethodAndMetricAndListsWhatDiffers) {
    auto m = two();
    m.data.study.title = "Last year";
    const auto v = evaluate(m.data, m.readings, m.data.study.goal);
    auto earlier = earlierOf("old", m.data, v);
    ASSERT_EQ(earlier.size(), 6u);
    EXPECT_EQ(earlier[0].method, "axial-pull");
    auto other = earlier[0];
    other.metric = "first_slip";
    earlier.push_back(other);
    Maker now;
    now.option("A").option("X").condition("Plain").square(1, 11, {120, 121, 119, 120}).square(2, 11, {1, 2});
    const auto nowV = now.verdict();
    const auto all = lastTimes(now.data, nowV, earlier);
    ASSERT_EQ(all.size(), 2u) << "A in both conditions of then; X was not there, the other metric is none";
    EXPECT_FALSE(all[0].otherCondition) << "its own condition first";
    EXPECT_TRUE(all[1].otherCondition);
    EXPECT_NEAR(all[0].comparison->ratio.value(), 1.2, 1e-12);
    EXPECT_EQ(all[0].comparison->verdict, stats::PairVerdict::stronger);
    m.data.study.plan.practice = true;
    EXPECT_TRUE(earlierOf("old", m.data, v).empty()) << "practice is none";
}

TEST(Corrections, AreWhatChangedSinceItWasPublished) {
    auto m = two();
    const Metric metric;
    const auto published = publicationOf(Results(m.data, m.readings), metric, "2026-06-01T10:00:00");
    ASSERT_EQ(published.values.size(), m.data.pulls.size());
    m.data.study.telling.publications = {published};
    EXPECT_TRUE(correctionsOf(Results(m.data, m.readings), metric).empty());
    m.data.pulls[0].typed->value *= 1.1;
    m.data.pulls[1].standing = Standing::voided;
    auto& later = m.pull(1, 11, 105);
    later.performedAt = "2026-06-02T10:00:00";
    m.data.study.telling.corrections = {{m.data.pulls[0].id, "2026-06-03T09:00:00", "the ratio was wrong"}};
    const auto changed = correctionsOf(Results(m.data, m.readings), metric);
    ASSERT_EQ(changed.size(), 2u) << "a pull of a later day is none";
    EXPECT_DOUBLE_EQ(changed[0].was->value, 100);
    EXPECT_NEAR(changed[0].now->value, 110, 1e-9);
    EXPECT_EQ(changed[0].why, "the ratio was wrong");
    EXPECT_FALSE(changed[1].now) << "void now";
    EXPECT_TRUE(changed[1].why.empty());
}

TEST(Forecasts, StandBesideWhatCame) {
    auto m = two();
    m.data.study.plan.squareFor(1, 11).forecasts = {{"Ines", 105, 0.1, "the wire", "", {}},
                                                    {"Tobin", 50, 0.1, "", "", {}}};
    const auto v = evaluate(m.data, m.readings, m.data.study.goal);
    const auto f = forecastsOf(m.data, v);
    ASSERT_EQ(f.size(), 2u);
    EXPECT_NEAR(f[0].ratio.value(), 100.0 / 105, 1e-12);
    EXPECT_EQ(f[0].inside, true);
    EXPECT_EQ(f[1].inside, false);
    EXPECT_NEAR(f[1].ratio.value(), 2, 1e-12);
}

TEST(Family, IsChosenElseTheMethods) {
    Maker m;
    m.option("A").condition("Plain").square(1, 11, {30, 34, 38}).pull(1, 11, 40, Standing::atLeast);
    EXPECT_EQ(m.verdict().groups[0].summary.basis, stats::MeanBasis::lognormal);
    m.data.study.plan.method = "sag"; // may be nothing, or less
    EXPECT_EQ(m.verdict().groups[0].summary.basis, stats::MeanBasis::normal);
    m.data.study.goal.family = stats::Family::weibull;
    EXPECT_EQ(m.verdict().groups[0].summary.basis, stats::MeanBasis::weibull);
    EXPECT_EQ(goalFor(m.data.study.goal, metric("first_slip")).family, stats::Family::weibull);
}

TEST(ProbabilityPlot, PlacesAreHerdsAndJohnsons) {
    Maker m;
    m.option("A").condition("Plain").square(1, 11, {30, 10, 20});
    auto plot = probabilityPlot(*m.verdict().group(1, 11));
    ASSERT_TRUE(plot);
    ASSERT_EQ(plot->points.size(), 3u);
    for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_DOUBLE_EQ(plot->points[i].value, 10.0 * static_cast<double>(i + 1));
        EXPECT_NEAR(plot->points[i].below, static_cast<double>(i + 1) / 4, 1e-12);
    }
    m.pull(1, 11, 15, Standing::atLeast);
    plot = probabilityPlot(*m.verdict().group(1, 11));
    ASSERT_TRUE(plot); // ranks: 4/5, then 2 left of 3: 4/5·2/3, 4/5·2/3·1/2
    EXPECT_NEAR(plot->points[0].below, 1 - 0.8, 1e-12);
    EXPECT_NEAR(plot->points[1].below, 1 - 0.8 * 2 / 3, 1e-12);
    EXPECT_NEAR(plot->points[2].below, 1 - 0.8 * 2 / 3 / 2, 1e-12);
    EXPECT_EQ(plot->bounds.size(), 1u);
    const auto best =
        std::find_if(plot->lines.begin(), plot->lines.end(), [](const auto& l) { return l.best; });
    ASSERT_NE(best, plot->lines.end());
    ASSERT_FALSE(best->low.empty());
    for (std::size_t i = 0; i < best->low.size(); ++i)
        EXPECT_LT(best->low[i].value, best->high[i].value);
    m.pull(1, 11, 15, Standing::atMost);
    EXPECT_FALSE(probabilityPlot(*m.verdict().group(1, 11))) << "its place is open";
}

} // namespace
} // namespace anvil::results
