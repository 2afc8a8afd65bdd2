// What broke, and what it is worth.
#include "study_maker.h"
#include <anvil/results/parts.h>
#include <anvil/results/worth.h>
#include <anvil/words/parts.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

Maker wires() {
    Maker m;
    m.option("Clamp").condition("Dry");
    const auto pull = [&](double load, const char* part, Standing standing = Standing::counts) {
        m.pull(1, 11, load, standing).outcome.part = part;
    };
    pull(100, "clamp");
    pull(104, "clamp");
    pull(110, "wire", Standing::atLeast); // the clamp is asked for: the wire gives only a bound
    pull(97, "clamp");
    pull(112, "wire", Standing::atLeast);
    return m;
}

TEST(Parts, EachIsExactWhereItFailedAndABoundElsewhere) {
    const auto m = wires();
    const auto all = partsOf(m.data, m.verdict());
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].pulls, 5U);
    ASSERT_EQ(all[0].parts.size(), 2U);
    const auto &clamp = all[0].parts[0], &wire = all[0].parts[1];
    EXPECT_EQ(clamp.part, "clamp");
    EXPECT_EQ(clamp.failed, 3U);
    EXPECT_EQ(wire.failed, 2U);
    using stats::Bound;
    const std::vector<stats::Value> asClamp{{100, Bound::exact, 100},
                                            {104, Bound::exact, 104},
                                            {110, Bound::above, 110},
                                            {97, Bound::exact, 97},
                                            {112, Bound::above, 112}};
    EXPECT_DOUBLE_EQ(clamp.fit->location, stats::fit(stats::Family::lognormal, asClamp)->location);
    EXPECT_GT(wire.fit->location, clamp.fit->location) << "it held whatever broke the clamp";
    EXPECT_NEAR(*clamp.goesFirst + *wire.goesFirst, 1, 1e-3) << "one of them does";
    EXPECT_GT(*clamp.goesFirst, *wire.goesFirst);
}

/// Two normal laws on logarithms: P(A < B) = Φ((μB − μA)/√(σA² + σB²)).
TEST(Parts, TheChanceIsThatOfTwoNormalLaws) {
    const auto m = wires();
    const auto parts = partsOf(m.data, m.verdict())[0].parts;
    const auto &a = *parts[0].fit, &b = *parts[1].fit;
    const double z = (b.location - a.location) / std::hypot(a.scale, b.scale);
    EXPECT_NEAR(*parts[0].goesFirst, 0.5 * std::erfc(-z / std::sqrt(2.0)), 1e-4);
}

TEST(Parts, OneThatFailedAloneSaysNothingOfTheOthers) {
    auto m = wires();
    m.option("Splice");
    for (const double load : {90.0, 92.0})
        m.pull(2, 11, load).outcome.part = "splice";
    for (const auto& square : partsOf(m.data, m.verdict()))
        if (square.parts.size() == 1) {
            EXPECT_FALSE(square.parts[0].goesFirst);
        }
}

TEST(Parts, OneAloneIsNoQuestion) {
    Maker m;
    m.option("Clamp").condition("Dry").square(1, 11, {100, 104});
    EXPECT_TRUE(partsOf(m.data, m.verdict()).empty());
    for (auto& p : m.data.pulls)
        p.outcome.part = "clamp";
    EXPECT_TRUE(partsOf(m.data, m.verdict()).empty());
}

TEST(Parts, AreToldInWords) {
    const auto m = wires();
    const auto v = m.verdict();
    const auto all = partsOf(m.data, v);
    EXPECT_EQ(
        words::sentences(m.data, v, std::span<const SquareParts>(all)),
        (std::vector<std::string>{"Clamp: of 5 pulls clamp in 3, wire in 2. What is not the weakest part "
                                  "shows only a bound."}));
    const auto t = words::partTable(m.data, v, all, quantity::unit("N"));
    EXPECT_EQ(t.rows[0].cells[t.at("failed")], "3 of 5");
}

Maker priced() {
    Maker m;
    m.option("Cheap").option("Dear").option("Silly").condition("Dry");
    m.square(1, 11, {100, 102, 98}).square(2, 11, {200, 204, 196}).square(3, 11, {150, 152, 148});
    m.data.options[0].unitCost = 1;
    m.data.options[1].unitCost = 4;
    m.data.options[2].unitCost = 5;
    for (auto& o : m.data.options)
        o.currency = "EUR";
    m.data.options[1].weight = 0.5;
    return m;
}

TEST(Worth, NobodyBeatsTheCheapestNorTheStrongest) {
    const auto m = priced();
    const auto v = m.verdict();
    const auto all = worthOf(m.data, v);
    ASSERT_EQ(all.size(), 3U);
    for (const auto& w : all) {
        const auto& name = m.data.optionAt(v.groups[w.group].option).name;
        EXPECT_EQ(w.unbeaten, name != "Silly") << name;
        if (name != "Dear") continue;
        EXPECT_DOUBLE_EQ(*w.perCost, 50);
        EXPECT_DOUBLE_EQ(*w.perWeight, 400);
        EXPECT_DOUBLE_EQ(w.perCostInterval->first, v.groups[w.group].summary.meanInterval->first / 4);
    }
    EXPECT_EQ(words::sentences(m.data, v, std::span<const Worth>(all)),
              (std::vector<std::string>{"Nothing here is both cheaper and stronger than Dear or Cheap."}));
    const auto t = words::worthTable(m.data, v, all, quantity::unit("N"));
    EXPECT_EQ(t.columns[t.at("per_cost")].title, "N per EUR");
    EXPECT_EQ(t.rows.back().cells[t.at("per_cost")], "100") << "the cheap one, ranked last";
}

TEST(Worth, SaysNothingWherePricesCannotBeCompared) {
    auto m = priced();
    m.data.options[1].currency = "pebbles";
    EXPECT_TRUE(worthOf(m.data, m.verdict()).empty());
    m = priced();
    m.data.options[1].unitCost.reset();
    m.data.options[2].unitCost.reset();
    EXPECT_TRUE(worthOf(m.data, m.verdict()).empty()) << "one price compares nothing";
    m = priced();
    m.data.study.goal.sense = Sense::less;
    EXPECT_TRUE(worthOf(m.data, m.verdict()).empty());
    m = priced();
    m.data.options[0].unitCost = 0;
    for (const auto& w : worthOf(m.data, m.verdict()))
        if (w.cost == 0) {
            EXPECT_FALSE(w.perCost) << "nothing is divided by nothing";
        }
}

} // namespace
} // namespace anvil::results
