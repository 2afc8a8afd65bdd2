// Creep and blows from reading to reading; arrangements against both baselines; metrics of phases.
#include "study_maker.h"
#include <anvil/quantity/entry.h>
#include <anvil/results/arrangement.h>
#include <anvil/results/evidence.h>
#include <anvil/results/legs.h>
#include <anvil/results/over_time.h>
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

using domain::FieldText;
using domain::metric;

/// A piece with an entry of a method.
Pull& entered(Maker& m, Id option, std::initializer_list<FieldText> fields) {
    auto& p = m.pull(option, 11, 0);
    p.typed.reset();
    p.outcome.entered.fields.assign(fields.begin(), fields.end());
    return p;
}

TEST(CreepOf, CountsFromTheFirstReadingUnderLoad) {
    Maker m;
    m.option("Clip").condition("Plain");
    m.data.study.plan.method = "creep";
    auto& p = entered(m, 1, {{"limit", "3 mm"}});
    p.outcome.entered.gauge = {{1000, 0.012}, {4600, 0.0125}, {8200, 0.0115}, {90000, 0.0121}};
    p.outcome.entered.unloadedFrom = 80000;
    entered(m, 1, {}).outcome.entered.gauge = {{0, 0.01}}; // one reading tells nothing
    entered(m, 1, {}).standing = Standing::voided;
    m.data.pulls.back().outcome.entered.gauge = {{0, 0.01}, {60, 0.02}};
    const auto all = creepOf(m.data);
    ASSERT_EQ(all.size(), 1u);
    const auto& c = all.front();
    EXPECT_EQ(c.pull, m.data.pulls.front().id);
    ASSERT_EQ(c.moved.size(), 4u);
    EXPECT_DOUBLE_EQ(c.moved[1].at, 3600);
    EXPECT_NEAR(c.moved[1].value, 0.0005, 1e-15);
    EXPECT_NEAR(c.moved[2].value, 0.0005, 1e-15) << "whichever way it moved";
    EXPECT_DOUBLE_EQ(*c.unloadedAfter, 79000);
    EXPECT_DOUBLE_EQ(*c.limit, 0.003);
    m.data.study.plan.method = "axial-pull";
    EXPECT_TRUE(creepOf(m.data).empty());
}

TEST(HitsOf, AreGatheredBySpotAndNumber) {
    Maker m;
    m.option("Foam").condition("Plain");
    m.data.study.plan.method = "drop";
    m.data.study.goal.metric = metric("peak_deceleration");
    auto& first = entered(m, 1, {{"height", "1 m"}, {"peak", "80 g0"}});
    const auto piece = first.specimen;
    first.outcome.where = "rim";
    auto& again = entered(m, 1, {{"height", "1 m"}, {"peak", ">110 g0"}, {"hit", "3"}});
    again.outcome.where = "rim";
    again.specimen = piece;
    again.standing = Standing::atLeast;
    auto& second = entered(m, 1, {{"height", "1 m"}, {"peak", "95 g0"}, {"hit", "2"}});
    second.outcome.where = "rim";
    second.specimen = piece;
    auto& elsewhere = entered(m, 1, {{"height", "1 m"}, {"peak", "50 g0"}});
    elsewhere.outcome.where = "middle";
    elsewhere.specimen = piece;
    const Results table(m.data, m.readings);
    const auto spots = hitsOf(table, metric("peak_deceleration"));
    ASSERT_EQ(spots.size(), 1u) << "one hit alone has no history";
    ASSERT_EQ(spots[0].hits.size(), 3u);
    EXPECT_EQ(spots[0].where, "rim");
    for (int n = 1; n <= 3; ++n)
        EXPECT_EQ(spots[0].hits[static_cast<std::size_t>(n - 1)].number, n);
    EXPECT_NEAR(spots[0].hits[0].peak.value, 80 * 9.80665, 1e-9);
    EXPECT_EQ(spots[0].hits[2].peak.bound, stats::Bound::above);
}

Maker arranged() {
    Maker m;
    m.option("Plain tie").option("Doubled tie").condition("Dry");
    m.data.options[0].rating = 1000;
    m.square(1, 11, {1480, 1500, 1520, 1500}).square(2, 11, {2300, 2400, 2500, 2400});
    m.data.study.plan.arrangements = {{2, 1, 2}};
    return m;
}

TEST(Arrangement, BothBaselinesAreToldAndOneTurnsTheConclusionRound) {
    const auto m = arranged();
    const auto all = arrangedOf(m.data, m.verdict());
    ASSERT_EQ(all.size(), 1u);
    const auto& a = all.front();
    EXPECT_DOUBLE_EQ(a.mean, 2400);
    EXPECT_DOUBLE_EQ(a.byRating->predicted, 2000);
    EXPECT_DOUBLE_EQ(a.byRating->share, 1.2);
    EXPECT_DOUBLE_EQ(a.byMeasured->predicted, 3000);
    EXPECT_DOUBLE_EQ(a.byMeasured->share, 0.8);
    EXPECT_TRUE(a.turnsRound);
    // By rating: mean ± t(3) s/√n over 2000; s = √(20000/3), t = 3.182446.
    const double half = 3.182446305 * std::sqrt(20000.0 / 3) / 2 / 2000;
    EXPECT_NEAR(a.byRating->interval->first, 1.2 - half, 1e-6);
    EXPECT_NEAR(a.byRating->interval->second, 1.2 + half, 1e-6);
    // By measurement: the ratios r with |T(r)| below t at Welch's df, over 2 (Fieller).
    const double va = 20000.0 / 3 / 4, vb = 800.0 / 3 / 4;
    for (const double end : {a.byMeasured->interval->first, a.byMeasured->interval->second}) {
        const double r = 2 * end, rest = va + r * r * vb;
        const double df = rest * rest / (va * va / 3 + std::pow(r, 4) * vb * vb / 3);
        EXPECT_NEAR(std::abs(2400 - r * 1500) / std::sqrt(rest), stats::studentQuantile(df, 0.975), 1e-6);
    }
}

TEST(Arrangement, AHairEitherWayTurnsNothingRound) { // 101 % of one and 100 % of the other
    auto m = arranged();
    for (auto& o : m.data.options)
        if (o.rating) o.rating = *o.rating * 1.2 / 1.01;
    const auto all = arrangedOf(m.data, m.verdict());
    ASSERT_FALSE(all.empty());
    EXPECT_NEAR(all.front().byRating->share, 1.01, 1e-9);
    EXPECT_FALSE(all.front().turnsRound) << "its interval reaches both sides";
}

TEST(Arrangement, WithoutARatingOrAPlainOneTheOtherIsTold) {
    auto m = arranged();
    m.data.options[0].rating.reset();
    auto all = arrangedOf(m.data, m.verdict());
    ASSERT_EQ(all.size(), 1u);
    EXPECT_FALSE(all[0].byRating);
    EXPECT_TRUE(all[0].byMeasured);
    EXPECT_FALSE(all[0].turnsRound);
    m.data.options[0].rating = 1000;
    for (auto& p : m.data.pulls)
        if (m.data.specimenAt(p.specimen).option == 1) p.standing = Standing::voided;
    all = arrangedOf(m.data, m.verdict());
    ASSERT_EQ(all.size(), 1u);
    EXPECT_TRUE(all[0].byRating);
    EXPECT_FALSE(all[0].byMeasured);
}

TEST(Arrangement, BoundsArePromisedNothing) {
    auto m = arranged();
    for (auto& p : m.data.pulls)
        if (m.data.specimenAt(p.specimen).option == 2) p.standing = Standing::atLeast;
    EXPECT_TRUE(arrangedOf(m.data, m.verdict()).empty());
}

TEST(Phases, AreMetricsOfTheirOwn) {
    Maker m;
    m.option("Anchor").option("Plate").condition("Sand");
    const auto with = [&](Id option, const char* set, const char* reset, const char* travel) {
        auto& p = entered(m, option, {});
        for (const auto& [name, reading] : {std::pair{"Set", set}, {"Reset", reset}, {"Reset", travel}})
            p.outcome.phases.push_back({name, "down", "held", {*quantity::parseEntry(reading)}, {}});
    };
    with(1, "400 N", "0.31 kN", "120 mm");
    with(1, "420 N", "330 N", "100 mm");
    with(2, "500 N", "200 N", ">250 mm");
    with(2, "520 N", "210 N", "240 mm");
    const auto all = phaseMetricsOf(m.data);
    ASSERT_EQ(all.size(), 3u);
    EXPECT_EQ(all[0]->key, "phase.force.set");
    EXPECT_EQ(all[2]->key, "phase.length.reset");
    const auto set = m.verdict(metric("phase.force.set")), reset = m.verdict(metric("phase.force.reset"));
    EXPECT_DOUBLE_EQ(*set.group(2, 11)->summary.mean, 510);
    EXPECT_EQ(set.group(2, 11)->rank, 1);
    EXPECT_DOUBLE_EQ(*reset.group(1, 11)->summary.mean, 320);
    EXPECT_EQ(reset.group(1, 11)->rank, 1) << "another phase, another winner";
    const auto travel = m.verdict(metric("phase.length.reset"));
    EXPECT_EQ(travel.group(2, 11)->summary.above, 1u);
    EXPECT_TRUE(m.verdict().empty()) << "none of them is a peak";
    const auto none = valueOf(m.data, m.data.pulls[0], nullptr, metric("phase.torque.set"));
    EXPECT_EQ(none.whyNot, "none of its phases was read so");
}

TEST(LegsNow, AreThoseOfThePieceThatIsPulled) {
    Maker m;
    m.option("Foot").condition("Plain");
    m.data.study.plan.method = "load-share";
    entered(m, 1, {});
    auto& piece = m.data.specimens.back();
    piece.inputs = {{"direction.1", "0°"}, {"direction.2", "120°"}, {"direction.3", "240°"}};
    const std::vector<double> loads{600, 300, -2};
    const auto legs = legsNow(m.data, piece, loads);
    ASSERT_TRUE(legs);
    EXPECT_DOUBLE_EQ(legs->loads[2], 0) << "a cell without load shows some noise";
    EXPECT_NEAR(legs->shares[0], 2.0 / 3, 1e-12);
    EXPECT_EQ(legs->directions.size(), 3u);
    EXPECT_FALSE(legsNow(m.data, piece, std::vector<double>{600}));
    EXPECT_FALSE(legsNow(m.data, piece, std::vector<double>{0, -1}));
    piece.inputs.clear();
    EXPECT_TRUE(legsNow(m.data, piece, loads)->directions.empty());
}

} // namespace
} // namespace anvil::results
