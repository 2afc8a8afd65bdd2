#include <anvil/results/legs.h>

#include "study_maker.h"
#include <gtest/gtest.h>

namespace anvil::results {
namespace {

struct Legs : testing::Test {
    Maker m;
    Legs() {
        m.option("Foot").condition("Plain");
        m.data.study.plan.method = "load-share";
    }
    /// A pull of a foot whose legs stand evenly round it and rise by 60°, or of one whose directions nobody
    /// told; N.
    Pull& foot(const std::vector<double>& loads, bool told = true) {
        auto& p = m.pull(1, 11, 0);
        p.typed.reset();
        auto& piece = m.data.specimens.back();
        for (std::size_t k = 0; k < loads.size(); ++k) {
            const auto n = std::to_string(k + 1);
            p.outcome.entered.fields.push_back({"leg." + n, std::to_string(loads[k]) + " N"});
            if (!told) continue;
            piece.inputs.push_back({"direction." + n, std::to_string(360 * k / loads.size()) + "°"});
            piece.inputs.push_back({"elevation." + n, "60°"});
        }
        return p;
    }
    SquareLegs only() {
        const auto all = legsOf(Results(m.data, m.readings));
        EXPECT_EQ(all.size(), 1U);
        return all.empty() ? SquareLegs{} : all.front();
    }
};

TEST_F(Legs, ShareWhatTheyCarry) {
    foot({100, 200, 300});
    const auto one = only();
    EXPECT_EQ(one.pulls, 1U);
    EXPECT_NEAR(one.shares[0], 1.0 / 6, 1e-12);
    EXPECT_NEAR(one.shares[1], 1.0 / 3, 1e-12);
    EXPECT_NEAR(one.shares[2], 1.0 / 2, 1e-12);
}

TEST_F(Legs, AreMeansOverThePullsThatCount) {
    foot({100, 200, 300});
    foot({300, 200, 100});
    foot({9000, 0, 0}).standing = Standing::voided;
    const auto both = only();
    EXPECT_EQ(both.pulls, 2U);
    for (int k = 0; k < 3; ++k) {
        EXPECT_NEAR(both.loads[static_cast<std::size_t>(k)], 200, 1e-9);
        EXPECT_NEAR(both.shares[static_cast<std::size_t>(k)], 1.0 / 3, 1e-12);
    }
}

/// What is predicted grows as the load does: two pulls say what one at their mean would.
TEST_F(Legs, ArePredictedAtTheMeanLoad) {
    foot({300, 300, 300, 300});
    const auto one = only();
    ASSERT_EQ(one.predicted.size(), 4U);
    ASSERT_EQ(one.without.size(), 4U);
    m.data.pulls.clear();
    m.data.specimens.clear();
    foot({400, 400, 400, 400});
    foot({200, 200, 200, 200});
    const auto two = only();
    EXPECT_EQ(two.directions, one.directions);
    int held = 0;
    for (std::size_t k = 0; k < 4; ++k) {
        EXPECT_NEAR(two.predicted[k], 1.0 / 4, 1e-9);
        ASSERT_EQ(two.without[k].has_value(), one.without[k].has_value());
        if (!one.without[k]) continue;
        ++held;
        for (std::size_t i = 0; i < 4; ++i)
            EXPECT_NEAR((*two.without[k])[i], (*one.without[k])[i], 1e-6);
    }
    EXPECT_GT(held, 0) << "else nothing was compared";
}

TEST_F(Legs, OfPiecesWithoutDirectionsSayNothingOfTheLoadOnAll) {
    foot({300, 300, 300, 300});
    const auto one = only();
    foot({600, 0, 0, 0}, false);
    const auto both = only();
    EXPECT_NEAR(both.loads[0], 450, 1e-9) << "measured is measured";
    ASSERT_EQ(both.without.size(), 4U);
    int held = 0;
    for (std::size_t k = 0; k < 4; ++k) {
        if (!one.without[k]) continue;
        ++held;
        for (std::size_t i = 0; i < 4; ++i)
            EXPECT_NEAR((*both.without[k])[i], (*one.without[k])[i], 1e-6) << "not half of it";
    }
    EXPECT_GT(held, 0) << "else nothing was compared";
}

TEST_F(Legs, AreOfThisMethodAlone) {
    foot({1, 2, 3});
    m.data.study.plan.method = "axial-pull";
    EXPECT_TRUE(legsOf(Results(m.data, m.readings)).empty());
}

} // namespace
} // namespace anvil::results
