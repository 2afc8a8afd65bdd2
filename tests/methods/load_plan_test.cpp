// Shared loads against closed forms and a solution by minimizing energy.
#include <anvil/methods/load_plan.h>
#include <cmath>
#include <gtest/gtest.h>
#include <numbers>
#include <random>

namespace anvil::methods {
namespace {

Direction inPlan(double degrees, double rise = 0) {
    const double a = degrees * std::numbers::pi / 180, e = rise * std::numbers::pi / 180;
    return {std::cos(e) * std::cos(a), std::cos(e) * std::sin(a), std::sin(e)};
}

TEST(LegLoads, ParallelLegsShareByStiffness) {
    const auto loads = legLoads(onePoint({{0, 0, 1}, {0, 0, 1}, {0, 0, 1}}, {1, 2, 5}, {0, 0, -1}, 800));
    ASSERT_TRUE(loads);
    EXPECT_NEAR(loads->load[0], 100, 1e-9);
    EXPECT_NEAR(loads->load[1], 200, 1e-9);
    EXPECT_NEAR(loads->load[2], 500, 1e-9);
}

TEST(LegLoads, TwoLegsAtAnAngle) {
    for (const double half : {10.0, 30.0, 60.0, 80.0}) { // F/(2 cos of half the angle)
        const auto loads = legLoads(onePoint({inPlan(half), inPlan(-half)}, {}, {-1, 0, 0}, 1000));
        ASSERT_TRUE(loads) << loads.error().message;
        for (const double v : loads->load)
            EXPECT_NEAR(v, 500 / std::cos(half * std::numbers::pi / 180), 1e-6);
    }
}

TEST(LegLoads, ATripodInSpace) {
    const auto loads =
        legLoads(onePoint({inPlan(0, 60), inPlan(120, 60), inPlan(240, 60)}, {}, {0, 0, -1}, 900));
    ASSERT_TRUE(loads);
    for (const double v : loads->load)
        EXPECT_NEAR(v, 300 / std::sin(std::numbers::pi / 3), 1e-6);
}

TEST(LegLoads, ALegThatWouldPushIsSlack) {
    const auto loads = legLoads(onePoint({inPlan(20), inPlan(-20), inPlan(180)}, {}, {-1, 0, 0}, 1000));
    ASSERT_TRUE(loads);
    EXPECT_TRUE(loads->slack[2]);
    EXPECT_EQ(loads->load[2], 0);
    EXPECT_NEAR(loads->load[0], 500 / std::cos(20 * std::numbers::pi / 180), 1e-6);
}

TEST(LegLoads, ALostLegLeavesItsLoadToTheRest) {
    const auto plan = onePoint({inPlan(30), inPlan(0), inPlan(-30)}, {}, {-1, 0, 0}, 1000);
    const auto rest = withoutLeg(plan, 1);
    ASSERT_TRUE(rest);
    EXPECT_NEAR(rest->load[0], 500 / std::cos(std::numbers::pi / 6), 1e-6);
    EXPECT_EQ(rest->load[1], 0);
    EXPECT_FALSE(withoutLeg(plan, 3));
    EXPECT_FALSE(withoutLeg(onePoint({inPlan(30), inPlan(-30)}, {}, {-1, 0, 0}, 1000), 0))
        << "one alone would swing";
}

/// Loads by minimizing ½Σk·max(0, e)² − F·d step by step: another way than solving for the balance.
std::vector<double> byEnergy(const LoadPlan& plan) {
    const auto n = 3 * plan.loads.size();
    std::vector<double> d(n, 0.0), v(n, 0.0);
    const auto stretched = [&](const Leg& leg) {
        const double size = std::hypot(leg.towards[0], leg.towards[1], leg.towards[2]);
        double e = 0;
        for (std::size_t c = 0; c < 3; ++c) {
            const double u = leg.towards[c] / size;
            e -= u * d[3 * static_cast<std::size_t>(leg.at) + c];
            if (leg.to >= 0) e += u * d[3 * static_cast<std::size_t>(leg.to) + c];
        }
        return std::pair(e, size);
    };
    for (int step = 0; step < 200000; ++step) {
        std::vector<double> f(n, 0.0);
        for (std::size_t i = 0; i < plan.loads.size(); ++i)
            for (std::size_t c = 0; c < 3; ++c)
                f[3 * i + c] = plan.loads[i][c];
        for (const auto& leg : plan.legs) {
            const auto [e, size] = stretched(leg);
            const double pull = leg.stiffness * std::max(0.0, e);
            for (std::size_t c = 0; c < 3; ++c) {
                f[3 * static_cast<std::size_t>(leg.at) + c] += pull * leg.towards[c] / size;
                if (leg.to >= 0) f[3 * static_cast<std::size_t>(leg.to) + c] -= pull * leg.towards[c] / size;
            }
        }
        for (std::size_t i = 0; i < n; ++i) {
            v[i] = 0.97 * v[i] + 0.02 * f[i];
            d[i] += v[i];
        }
    }
    std::vector<double> out;
    for (const auto& leg : plan.legs)
        out.push_back(leg.stiffness * std::max(0.0, stretched(leg).first));
    return out;
}

TEST(LegLoads, AgreeWithTheLeastEnergy) {
    std::mt19937 random(3);
    std::uniform_real_distribution<> angle(0, 360), rise(35, 75), stiff(0.5, 2);
    for (int set = 0; set < 6; ++set) {
        std::vector<Direction> legs;
        std::vector<double> stiffness;
        for (int i = 0; i < 5; ++i) {
            legs.push_back(inPlan(72 * i + angle(random) / 12, rise(random)));
            stiffness.push_back(stiff(random));
        }
        const auto plan = onePoint(legs, stiffness, {0, 0, -1}, 100);
        const auto loads = legLoads(plan);
        ASSERT_TRUE(loads);
        const auto other = byEnergy(plan);
        for (std::size_t i = 0; i < 5; ++i)
            EXPECT_NEAR(loads->load[i], other[i], 0.01) << set << ": leg " << i;
    }
}

TEST(LegLoads, APairWithinAPair) {
    // The load hangs on a leg and on a point that two legs hold: up the middle, half and half.
    LoadPlan plan;
    plan.loads = {{0, 0, -1000}, {0, 0, 0}};
    plan.legs = {{{0, 0, 1}, 1, 0, -1}, {{0, 0, 1}, 1, 0, 1}, {{1, 0, 1}, 1, 1, -1}, {{-1, 0, 1}, 1, 1, -1}};
    const auto loads = legLoads(plan);
    ASSERT_TRUE(loads) << loads.error().message;
    // The pair together: 2·k·cos²45° = 1, in line with a link of 1: half of one; against the other leg of 1.
    EXPECT_NEAR(loads->load[0], 1000 * 1 / 1.5, 1e-6);
    EXPECT_NEAR(loads->load[1], 1000 * 0.5 / 1.5, 1e-6);
    EXPECT_NEAR(loads->load[2], loads->load[1] / std::sqrt(2.0), 1e-6);
    EXPECT_NEAR(loads->load[3], loads->load[2], 1e-6);
}

TEST(LegLoads, ALineThatSlidesEvensOut) {
    // Two sides of one line at ±45°, and a stiff leg straight up; pulled a little to one side.
    LoadPlan plan;
    plan.loads = {{50, 0, -1000}};
    plan.legs = {
        {{1, 0, 1}, 1, 0, -1, 1}, {{-1, 0, 1}, 1, 0, -1, 1}, {{0, 0, 1}, 1, 0, -1}, {{-1, 0, 0}, 1, 0, -1}};
    const auto free = legLoads(plan);
    ASSERT_TRUE(free) << free.error().message;
    EXPECT_NEAR(free->load[0], free->load[1], 1e-9) << "without friction both sides carry the same";
    plan.grip = 1.05;
    const auto some = legLoads(plan);
    ASSERT_TRUE(some);
    EXPECT_LE(some->load[1] / some->load[0], 1.05 + 1e-9);
    plan.grip = 100;
    const auto stuck = legLoads(plan);
    ASSERT_TRUE(stuck);
    EXPECT_GT(stuck->load[1] / stuck->load[0], some->load[1] / some->load[0]);
}

TEST(LegLoads, WhatCannotBeIsRefused) {
    EXPECT_FALSE(legLoads({}));
    EXPECT_FALSE(legLoads(onePoint({{0, 0, 0}}, {}, {0, 0, -1}, 10))) << "no direction";
    EXPECT_FALSE(legLoads(onePoint({{0, 0, 1}}, {-1}, {0, 0, -1}, 10))) << "no stiffness";
    const auto aside = legLoads(onePoint({{0, 0, 1}, {0, 0, 1}}, {}, {-1, 0, 0}, 10));
    ASSERT_FALSE(aside);
    EXPECT_NE(aside.error().message.find("cannot carry"), std::string::npos);
    EXPECT_FALSE(legLoads(onePoint({{0, 0, -1}}, {}, {0, 0, -1}, 10))) << "a leg only pulls";
}

TEST(ByDifference, TellsTheLegWithoutASensor) {
    const std::vector<Direction> legs{inPlan(0, 60), inPlan(120, 60), inPlan(240, 60)};
    const auto plan = onePoint(legs, {1, 1, 1}, {0, 0, -1}, 900);
    const auto all = legLoads(plan);
    ASSERT_TRUE(all);
    auto known = all->load;
    known[1] = 0;
    const auto missing = byDifference(legs, known, 1, {0, 0, -1}, 900);
    ASSERT_TRUE(missing);
    EXPECT_NEAR(missing->load, all->load[1], 1e-6);
    EXPECT_NEAR(missing->across, 0, 1e-9);
    known[0] *= 1.2;
    EXPECT_GT(byDifference(legs, known, 1, {0, 0, -1}, 900)->across, 0.05);
}

} // namespace
} // namespace anvil::methods
