#include <anvil/results/worth.h>

#include "study_maker.h"
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

Maker priced() {
    Maker m;
    m.option("A").option("B").option("C").condition("Plain");
    m.square(1, 11, {100, 102, 98}).square(2, 11, {60, 61, 59}).square(3, 11, {50, 51, 49});
    m.data.options[0].unitCost = 4;
    m.data.options[1].unitCost = 2;
    m.data.options[2].unitCost = 3;
    m.data.options[0].weight = 0.5;
    return m;
}

TEST(WorthOf, IsTheTypicalValueOverPriceAndWeight) {
    const auto m = priced();
    const auto v = m.verdict();
    const auto all = worthOf(m.data, v);
    ASSERT_EQ(all.size(), 3U);
    for (const auto& w : all) {
        const auto& s = v.groups[w.group].summary;
        EXPECT_NEAR(*w.perCost, *s.typical / w.cost, 1e-12);
        EXPECT_NEAR(w.perCostInterval->first, s.typicalInterval->first / w.cost, 1e-12);
        EXPECT_NEAR(w.perCostInterval->second, s.typicalInterval->second / w.cost, 1e-12);
        EXPECT_EQ(w.perWeight.has_value(), v.groups[w.group].option == 1);
        if (!w.perWeight) continue;
        EXPECT_NEAR(*w.perWeight, 200, 1e-9);
        EXPECT_NEAR(w.perWeightInterval->first, s.typicalInterval->first / 0.5, 1e-12);
    }
}

TEST(WorthOf, UnbeatenIsWhatNobodyBeatsOnBoth) {
    const auto m = priced();
    const auto v = m.verdict();
    for (const auto& w : worthOf(m.data, v))
        EXPECT_EQ(w.unbeaten, v.groups[w.group].option != 3) << "dearer than B and weaker";
    auto twins = priced(); // the same price: the stronger one beats
    twins.data.options[2].unitCost = 2;
    for (const auto& w : worthOf(twins.data, twins.verdict()))
        EXPECT_EQ(w.unbeaten, twins.verdict().groups[w.group].option != 3);
}

TEST(WorthOf, BoundsAreWorthAtLeastThat) {
    auto m = priced();
    for (auto& p : m.data.pulls)
        if (m.data.specimenAt(p.specimen).option == 1) p.standing = Standing::atLeast;
    const auto v = m.verdict();
    for (const auto& w : worthOf(m.data, v))
        EXPECT_EQ(w.atLeast, v.groups[w.group].option == 1);
}

TEST(WorthOf, IsToldWherePricesCompare) {
    auto m = priced();
    m.data.options[0].currency = "EUR";
    EXPECT_EQ(worthOf(m.data, m.verdict()).size(), 3U) << "said once, it is that of all";
    m.data.options[1].currency = "USD";
    EXPECT_TRUE(worthOf(m.data, m.verdict()).empty());
    auto one = priced();
    one.data.options[1].unitCost.reset();
    one.data.options[2].unitCost.reset();
    EXPECT_TRUE(worthOf(one.data, one.verdict()).empty()) << "one alone compares with nothing";
    auto less = priced();
    less.data.study.goal.sense = Sense::less;
    EXPECT_TRUE(worthOf(less.data, less.verdict()).empty());
}

} // namespace
} // namespace anvil::results
