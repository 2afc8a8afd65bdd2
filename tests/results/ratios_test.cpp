#include <anvil/results/ratios.h>

#include "study_maker.h"
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

Maker three() {
    Maker m;
    m.option("A").option("B").option("C").condition("Plain").condition("Wet");
    m.square(1, 11, {100, 102, 98}).square(2, 11, {50, 51, 49}).square(3, 11, {200, 204, 196});
    m.square(1, 12, {80, 81, 79}).square(2, 12, {45, 46, 44}).square(3, 12, {100, 102, 98});
    m.data.study.goal.control = 1;
    return m;
}

Verdict verdictOf(const Maker& m) { return evaluate(m.data, m.readings, m.data.study.goal); }

TEST(RatioRungs, OfTheControlStandInTheirOwnCondition) {
    const auto m = three();
    const auto v = verdictOf(m);
    const auto all = ratiosOf(m.data, v, RatioBase::control);
    ASSERT_EQ(all.size(), 6U);
    const double wanted[] = {2, 1, 0.5, 1.25, 1, 45.0 / 80}; // greatest first, condition by condition
    const Id options[] = {3, 1, 2, 3, 1, 2};
    for (std::size_t i = 0; i < 6; ++i) {
        EXPECT_NEAR(all[i].ratio, wanted[i], 1e-12) << i;
        EXPECT_EQ(v.groups[all[i].group].option, options[i]) << i;
        EXPECT_EQ(v.groups[all[i].group].condition, i < 3 ? 11 : 12) << i;
        EXPECT_EQ(all[i].itself, options[i] == 1) << i;
        EXPECT_FALSE(all[i].atLeast || all[i].atMost) << i;
        if (all[i].itself) continue;
        ASSERT_TRUE(all[i].interval) << i;
        EXPECT_LT(all[i].interval->first, all[i].ratio) << i;
        EXPECT_GT(all[i].interval->second, all[i].ratio) << i;
    }
}

TEST(RatioRungs, OfUntreatedAreTheSameOptionsFirstCondition) {
    const auto m = three();
    const auto v = verdictOf(m);
    const auto all = ratiosOf(m.data, v, RatioBase::untreated);
    ASSERT_EQ(all.size(), 3U);
    const double wanted[] = {0.9, 0.8, 0.5};
    for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_NEAR(all[i].ratio, wanted[i], 1e-12);
        EXPECT_EQ(v.groups[all[i].group].condition, 12);
        EXPECT_FALSE(all[i].itself);
    }
}

/// A bound over a number is a bound the same way, a number over a bound the other.
TEST(RatioRungs, BoundsTurnWithTheFraction) {
    auto m = three();
    for (auto& p : m.data.pulls)
        if (m.data.specimenAt(p.specimen).option == 3) p.standing = Standing::atLeast;
    for (const Id control : {Id{1}, Id{3}}) {
        m.data.study.goal.control = control;
        const auto v = verdictOf(m);
        int seen = 0;
        for (const auto& r : ratiosOf(m.data, v, RatioBase::control)) {
            const auto option = v.groups[r.group].option;
            if (r.itself || (control == 1 && option == 2)) continue;
            ++seen;
            EXPECT_EQ(r.atLeast, control == 1) << option;
            EXPECT_EQ(r.atMost, control == 3) << option;
        }
        EXPECT_GE(seen, 1);
    }
    for (auto& o : m.data.options)
        o.rating = 100;
    const auto v = verdictOf(m);
    for (const auto& r : ratiosOf(m.data, v, RatioBase::rating))
        EXPECT_EQ(r.atLeast, v.groups[r.group].option == 3);
}

TEST(RatioRungs, OfWhatWasExpectedAreOverTheMeanForecast) {
    auto m = three();
    m.data.study.plan.squareFor(1, 11).forecasts = {{"Ines", 80, 0.1, "", "", {}},
                                                    {"Tobin", 120, 0.1, "", "", {}}};
    m.data.study.plan.squareFor(2, 11).forecasts = {{"Ines", 25, 0.1, "", "", {}}};
    const auto all = ratiosOf(m.data, verdictOf(m), RatioBase::expected);
    ASSERT_EQ(all.size(), 2U);
    EXPECT_NEAR(all[0].ratio, 2, 1e-12);
    EXPECT_NEAR(all[1].ratio, 1, 1e-12);
}

} // namespace
} // namespace anvil::results
