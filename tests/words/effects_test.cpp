// Treatments and trends of a study.
#include "study_maker.h"
#include <anvil/results/treatment.h>
#include <anvil/results/trends.h>
#include <anvil/words/effects.h>
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

Maker salted() {
    Maker m;
    m.option("Pin").option("Bolt").option("Hook").condition("Dry").condition("Salt");
    m.square(1, 11, {100, 102}).square(1, 12, {80, 82}).square(2, 11, {200, 204}).square(2, 12, {160, 163});
    return m;
}

TEST(Treatments, ArePooledOverTheOptionsThatHaveBoth) {
    auto m = salted();
    m.square(3, 11, {50});
    const auto v = m.verdict();
    const auto all = treatmentsOf(m.data, v);
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].treated, 12);
    EXPECT_EQ(all[0].options.size(), 2U) << "the hook was never salted";
    EXPECT_NEAR(all[0].pooled.ratio, 0.8, 0.01);
    EXPECT_LT(*all[0].pooled.p, 0.01);
    EXPECT_NEAR(all[0].options[0].ratio, 81.0 / 101, 1e-4) << "two of each: of the geometric means";
    ASSERT_TRUE(all[0].options[0].interval);
    EXPECT_LT(all[0].options[0].interval->first, 81.0 / 101);
    const auto said = words::sentences(m.data, v, all[0]);
    EXPECT_TRUE(
        said[0].starts_with("Salt against Dry, over 2 options: the peak force is 20 % less (95 % interval "))
        << said[0];
    EXPECT_EQ(words::treatmentTable(m.data, all[0]).rows.back().cells[0], "All together");
}

TEST(Treatments, NeedTwoOptionsAndExactPositiveValues) {
    Maker one;
    one.option("Pin").condition("Dry").condition("Salt").square(1, 11, {1, 2}).square(1, 12, {1, 2});
    EXPECT_TRUE(treatmentsOf(one.data, one.verdict()).empty()) << "that is a pair";
    auto bounds = salted();
    for (auto& p : bounds.data.pulls)
        p.standing = Standing::atLeast;
    EXPECT_TRUE(treatmentsOf(bounds.data, bounds.verdict()).empty());
}

Maker cured(std::initializer_list<std::initializer_list<double>> days) {
    Maker m;
    m.option("Glue");
    Id condition = 11;
    double day = 0;
    for (const auto& values : days) {
        m.condition(("day " + std::to_string(day += 1)).c_str());
        m.data.conditions.back().value = day * 86400;
        m.square(1, condition++, values);
    }
    m.data.study.plan.axis = "cure time";
    m.data.study.plan.axisUnit = "d";
    return m;
}

TEST(Trends, RiseFallAndLieFlat) {
    const auto verdict = [](const Maker& m) {
        const auto all = trendsOf(m.data, m.verdict());
        return all.empty() ? std::optional<TrendVerdict>() : all[0].verdict;
    };
    EXPECT_EQ(verdict(cured({{100, 101}, {120, 121}, {140, 139}})), TrendVerdict::rising);
    EXPECT_EQ(verdict(cured({{140, 139}, {120, 121}, {100, 101}})), TrendVerdict::falling);
    EXPECT_EQ(verdict(cured({{100, 101}, {101, 100}, {100, 101}})), TrendVerdict::flat);
    EXPECT_EQ(verdict(cured({{100, 140}, {120, 90}, {130, 110}})), TrendVerdict::cannotTell);
    EXPECT_FALSE(verdict(cured({{100, 140}, {120, 90}}))) << "two places make no trend";
}

TEST(Trends, SlopesAreToldInTheAxisOwnUnit) {
    const auto m = cured({{100, 100}, {110, 110}, {120, 120}});
    EXPECT_EQ(axisStep(m.data), 86400);
    const auto v = m.verdict();
    const auto all = trendsOf(m.data, v);
    ASSERT_EQ(all.size(), 1U);
    EXPECT_NEAR(all[0].line.slope * axisStep(m.data), 10, 1e-9) << "N a day";
    const auto t = words::trendTable(m.data, all, quantity::unit("N"));
    EXPECT_EQ(t.columns[2].title, "Slope (N per d)");
    EXPECT_EQ(t.rows[0].cells[t.at("slope")], "10.0");
    EXPECT_TRUE(words::sentence(m.data, v, all[0])
                    .starts_with("Glue: the peak force rises with cure time, over all of it by 18 % more"))
        << words::sentence(m.data, v, all[0]);
}

} // namespace
} // namespace anvil::results
