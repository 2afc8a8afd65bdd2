// Which piece and which step is next.
#include "three_pieces.h"
#include <anvil/plan/next.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::domain;
using namespace anvil::results;
using namespace anvil::plan;

namespace {

TEST(Outcomes, NextFollowsTheRunList) {
    auto d = threePieces();
    EXPECT_EQ(nextSpecimen(d)->label, "A1-1");
    d.study.plan.runOrder = {"A1-3", "gone", "A1-1", "A1-2"};
    EXPECT_EQ(nextSpecimen(d)->label, "A1-3");
    EXPECT_EQ(nextSpecimen(d, {3})->label, "A1-1") << "another one first";
    Pull p;
    p.specimen = 3;
    d.pulls = {p};
    EXPECT_EQ(nextSpecimen(d)->label, "A1-1");
    d.pulls[0].practice = true;
    EXPECT_EQ(nextSpecimen(d)->label, "A1-3") << "practice is no pull";
    d.study.plan.practice = true;
    EXPECT_EQ(nextSpecimen(d)->label, "A1-1") << "in a practice study it is one";
    d.study.plan.practice = false;
    d.pulls[0].practice = false;
    d.pulls[0].standing = Standing::notRead;
    EXPECT_EQ(nextSpecimen(d)->label, "A1-1") << "its number was lost, and it is broken all the same";
    EXPECT_EQ(nextSpecimen(d, {1, 2, 3}), nullptr);
}

TEST(Gauge, TheOnesDueComeFirst) {
    StudyData data;
    data.study.plan.method = "creep";
    data.study.plan.gaugeEvery = 3600;
    for (Id id = 1; id <= 4; ++id) {
        Specimen s;
        s.id = id;
        data.specimens.push_back(s);
    }
    const auto read = [&](Id specimen, std::vector<GaugeReading> gauge, std::optional<double> unloaded = {}) {
        Pull p;
        p.id = specimen + 100;
        p.specimen = specimen;
        p.outcome.entered.gauge = std::move(gauge);
        p.outcome.entered.unloadedFrom = unloaded;
        data.pulls.push_back(p);
    };
    read(1, {{0, 1}, {9000, 2}});
    read(2, {{0, 1}, {1000, 2}});
    read(3, {{0, 1}, {1000, 2}, {2000, 1}, {3000, 1}}, 2000);
    const auto all = gauges(data, 10000);
    ASSERT_EQ(all.size(), 3U) << "the third has been unloaded and looked at";
    EXPECT_EQ(all[0].specimen, 4);
    EXPECT_TRUE(all[0].due) << "never read";
    EXPECT_EQ(all[1].specimen, 2);
    EXPECT_TRUE(all[1].due);
    EXPECT_EQ(*all[1].dueAt, 4600);
    EXPECT_EQ(all[2].specimen, 1);
    EXPECT_FALSE(all[2].due);
    data.pulls[1].standing = Standing::voided;
    EXPECT_EQ(gauges(data, 10000).size(), 2U) << "a voided piece is not asked for again";
    data.study.plan.method = "axial-pull";
    EXPECT_TRUE(gauges(data, 10000).empty());
}

TEST(Ladder, GoesOnByItsSteps) {
    const auto next = nextStep({{100, 0.2, true}}, 100, 50, 0.2, 0.1);
    ASSERT_TRUE(next);
    EXPECT_EQ(next->load, 150);
    EXPECT_NEAR(*next->distance, 0.3, 1e-12);
    EXPECT_EQ(nextStep({}, 100, 50, {}, 0)->load, 100);
    EXPECT_FALSE(nextStep({{100, {}, false}}, 100, 50, {}, 0)) << "it has failed";
}

} // namespace
