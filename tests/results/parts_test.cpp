#include <anvil/results/parts.h>

#include "study_maker.h"
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

/// A fitting broke thrice about 100 N, its rope twice about 102 N.
Maker joints() {
    Maker m;
    m.option("A").condition("Plain");
    for (const double v : {98.0, 100.0, 102.0})
        m.pull(1, 11, v).outcome.part = "fitting";
    for (const double v : {101.0, 103.0})
        m.pull(1, 11, v).outcome.part = "rope";
    return m;
}

TEST(Parts, AreCountedAndFittedFromAllPulls) {
    auto m = joints();
    m.data.study.goal.part.clear();
    const auto all = partsOf(m.data, m.verdict());
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].pulls, 5U);
    ASSERT_EQ(all[0].parts.size(), 2U);
    EXPECT_EQ(all[0].parts[0].part, "fitting") << "what broke most often stands first";
    EXPECT_EQ(all[0].parts[0].failed, 3U);
    EXPECT_EQ(all[0].parts[1].failed, 2U);
    ASSERT_TRUE(all[0].parts[0].goesFirst && all[0].parts[1].goesFirst);
    // One of the two goes first.
    EXPECT_NEAR(*all[0].parts[0].goesFirst + *all[0].parts[1].goesFirst, 1, 1e-3);
    EXPECT_GT(*all[0].parts[0].goesFirst, 0.5);
    // The rope held whenever the fitting broke: its law lies above the loads at which it broke itself.
    EXPECT_GT(all[0].parts[1].fit->location, all[0].parts[0].fit->location);
}

TEST(Parts, OfOneAloneTellNothing) {
    auto m = joints();
    for (auto& p : m.data.pulls)
        p.outcome.part = "rope";
    EXPECT_TRUE(partsOf(m.data, m.verdict()).empty());
}

TEST(Parts, WhatHeldIsABoundAndNoPart) {
    auto m = joints();
    m.pull(1, 11, 120, Standing::atLeast);
    const auto all = partsOf(m.data, m.verdict());
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].pulls, 6U);
    EXPECT_EQ(all[0].parts[0].failed + all[0].parts[1].failed, 5U);
    const auto without = partsOf(joints().data, joints().verdict());
    EXPECT_GT(all[0].parts[0].fit->location, without[0].parts[0].fit->location) << "both held 120 N once";
}

} // namespace
} // namespace anvil::results
