#include <anvil/results/treatment.h>

#include "study_maker.h"
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

Maker treated() {
    Maker m;
    m.option("A").option("B").condition("Plain").condition("Treated");
    m.square(1, 11, {100, 102, 98}).square(1, 12, {150, 153, 147}); // half more
    m.square(2, 11, {80, 82, 78}).square(2, 12, {60, 61, 59});      // a quarter less
    return m;
}

TEST(Treatments, OfAnOptionAreTreatedOverUntreatedWhicheverIsStronger) {
    const auto m = treated();
    const auto all = treatmentsOf(m.data, m.verdict());
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].control, 11);
    EXPECT_EQ(all[0].treated, 12);
    ASSERT_EQ(all[0].options.size(), 2U);
    const auto &a = all[0].options[0], &b = all[0].options[1];
    EXPECT_NEAR(a.ratio, 1.5, 1e-12);
    EXPECT_NEAR(b.ratio, 0.75, 1e-12);
    ASSERT_TRUE(a.interval && b.interval);
    EXPECT_GT(a.interval->first, 1.4);
    EXPECT_GT(a.interval->second, 1.5);
    EXPECT_LT(a.interval->second, 1.6);
    EXPECT_LT(b.interval->first, 0.75);
    EXPECT_GT(b.interval->first, 0.7);
    EXPECT_LT(b.interval->second, 0.8);
    // ln 1.5 and ln 0.75, each of as many: their mean.
    EXPECT_NEAR(all[0].pooled.ratio, std::sqrt(1.5 * 0.75), 2e-4);
    EXPECT_EQ(all[0].pooled.options, 2U);
}

TEST(Treatments, AreTurnedRoundWithTheConditions) {
    auto m = treated();
    std::swap(m.data.conditions[0], m.data.conditions[1]);
    const auto all = treatmentsOf(m.data, m.verdict());
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].control, 12);
    const auto &a = all[0].options[0], &b = all[0].options[1];
    EXPECT_NEAR(a.ratio, 1 / 1.5, 1e-12);
    EXPECT_NEAR(b.ratio, 1 / 0.75, 1e-12);
    ASSERT_TRUE(a.interval && b.interval);
    EXPECT_LT(a.interval->first, a.ratio);
    EXPECT_GT(a.interval->second, a.ratio);
    EXPECT_LT(a.interval->second, 1);
    EXPECT_GT(b.interval->first, 1);
}

TEST(Treatments, NeedBothSquaresOfTwoOptions) {
    auto m = treated();
    for (auto& p : m.data.pulls)
        if (m.data.specimenAt(p.specimen).option == 2 && m.data.specimenAt(p.specimen).condition == 12)
            p.standing = Standing::voided;
    EXPECT_TRUE(treatmentsOf(m.data, m.verdict()).empty());
    auto one = treated();
    one.data.conditions.pop_back();
    EXPECT_TRUE(treatmentsOf(one.data, one.verdict()).empty());
}

} // namespace
} // namespace anvil::results
