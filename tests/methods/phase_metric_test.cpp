// Metrics of phases: one row a name, found again by its key.
#include <anvil/methods/phase_metric.h>
#include <gtest/gtest.h>

namespace anvil::methods {
namespace {

using quantity::Dimension;

TEST(PhaseMetric, OneNameHasOneRow) {
    const auto& row = phaseMetric("Reset", Dimension::force);
    EXPECT_EQ(&row, &phaseMetric("  reset ", Dimension::force));
    EXPECT_NE(&row, &phaseMetric("reset", Dimension::length));
    EXPECT_EQ(row.key, "phase.force.reset");
    EXPECT_EQ(row.noun, "force in the phase \"reset\"");
    EXPECT_EQ(row.sense, Sense::more);
    EXPECT_EQ(phaseMetric("pulled  straight", Dimension::length).key, "phase.length.pulled straight");
    EXPECT_EQ(phaseMetric("reset", Dimension::length).sense, Sense::less);
}

TEST(PhaseMetric, IsFoundByItsKeyAndByNoOther) {
    EXPECT_EQ(findMetric("phase.force.reset"), &phaseMetric("reset", Dimension::force));
    EXPECT_EQ(findMetric("phase.torque.turned in"), &phaseMetric("turned in", Dimension::torque));
    for (const char* key : {"phase.force.", "phase.force", "phase.mass.set", "phase.", "phase", "force.set"})
        EXPECT_EQ(findMetric(key), nullptr) << key;
}

TEST(PhaseMetric, ABoundOfThePullIsOneOfItsLoadsOnly) {
    const auto force = *quantity::parseEntry("400 N"), travel = *quantity::parseEntry("120 mm");
    EXPECT_EQ(phaseValue(force, stats::Bound::above).bound, stats::Bound::above);
    EXPECT_EQ(phaseValue(travel, stats::Bound::above).bound, stats::Bound::exact);
    const auto over = *quantity::parseEntry(">9 kN");
    EXPECT_EQ(phaseValue(over, stats::Bound::exact).bound, stats::Bound::above);
    EXPECT_DOUBLE_EQ(phaseValue(over, stats::Bound::exact).value, 9000);
}

} // namespace
} // namespace anvil::methods
