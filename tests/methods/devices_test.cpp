// What devices pass on, recovered from rigs that were made up.
#include <anvil/methods/devices.h>
#include <cmath>
#include <gtest/gtest.h>
#include <map>
#include <random>

namespace anvil::methods {
namespace {

TEST(Advantage, OfASimpleSystem) {
    EXPECT_DOUBLE_EQ(advantageOf({"", {"a", "b"}}, {1, 1, 1}), 3);
    EXPECT_DOUBLE_EQ(advantageOf({"", {"a", "b"}}, {1, 0.9, 0.8}), 1 + 0.9 + 0.72);
    EXPECT_DOUBLE_EQ(advantageOf({"r", {"a", "b"}}, {0.7, 0.9, 0.8}), 0.7 * (1 + 0.9 + 0.72));
    EXPECT_DOUBLE_EQ(advantageOf({"r", {}}, {0.7}), 0.7);
}

double truthOf(const Reeving& r, const std::map<std::string, double>& e) {
    std::vector<double> shares{r.redirect.empty() ? 1 : e.at(r.redirect)};
    for (const auto& d : r.devices)
        shares.push_back(e.at(d));
    return advantageOf(r, shares);
}

const std::map<std::string, double> truth{{"ball", 0.93}, {"plain", 0.78}, {"ring", 0.55}};
const std::vector<Reeving> rigs{{"", {"ball"}},          {"", {"plain"}},         {"", {"ring"}},
                                {"", {"ball", "plain"}}, {"", {"plain", "ball"}}, {"ring", {"ball", "plain"}},
                                {"", {"ring", "ball"}},  {"", {"ball", "ball"}}};

const DeviceEfficiency& of(const std::vector<DeviceEfficiency>& all, const std::string& device) {
    for (const auto& d : all)
        if (d.device == device) return d;
    throw std::logic_error("no " + device);
}

TEST(Devices, WithoutNoiseTheyAreFound) {
    std::vector<Hauled> measured;
    for (const auto& r : rigs)
        measured.push_back({r, truthOf(r, truth), 0});
    const auto found = deviceEfficiencies(measured);
    ASSERT_TRUE(found);
    for (const auto& [device, e] : truth)
        EXPECT_NEAR(of(*found, device).efficiency.value(), e, 1e-7) << device;
}

TEST(Devices, WithNoiseTheyLieWithinTheirErrors) {
    std::mt19937 random(11);
    std::normal_distribution<> noise(0, 0.02);
    double squares = 0;
    int count = 0;
    for (int set = 0; set < 300; ++set) {
        std::vector<Hauled> measured;
        for (const auto& r : rigs)
            measured.push_back({r, truthOf(r, truth) + noise(random), 0.02});
        const auto found = deviceEfficiencies(measured);
        ASSERT_TRUE(found);
        for (const auto& [device, e] : truth) {
            const auto& d = of(*found, device);
            ASSERT_TRUE(d.efficiency);
            if (!d.standardError) continue; // at an end of its range
            const double z = (*d.efficiency - e) / *d.standardError;
            squares += z * z;
            ++count;
        }
    }
    EXPECT_GT(count, 800);
    EXPECT_NEAR(squares / count, 1, 0.15) << "errors are as large as they say";
}

TEST(Devices, WhatCannotBeToldApartIsSaid) {
    // "a" and "b" only ever lead a line together: their product alone is seen.
    const Reeving only{"a", {"b"}};
    const auto one = deviceEfficiencies({{only, 1.2, 0}, {only, 1.21, 0}});
    ASSERT_TRUE(one);
    EXPECT_FALSE(of(*one, "a").efficiency);
    EXPECT_FALSE(of(*one, "b").efficiency);
    EXPECT_EQ(of(*one, "a").notApartFrom, std::vector<std::string>{"b"});
    const auto both = deviceEfficiencies({{only, 1.2, 0}, {{"", {"b"}}, 1.6, 0}, {{"a", {}}, 0.75, 0}});
    ASSERT_TRUE(both);
    EXPECT_NEAR(of(*both, "b").efficiency.value(), 0.6, 1e-6);
    EXPECT_NEAR(of(*both, "a").efficiency.value(), 0.75, 1e-6);
}

TEST(Devices, StayWithinZeroAndOne) {
    const auto found = deviceEfficiencies({{{"", {"a"}}, 2.3, 0}, {{"", {"a"}}, 2.2, 0}});
    ASSERT_TRUE(found);
    EXPECT_EQ(found->front().efficiency, 1);
    EXPECT_TRUE(found->front().atLimit);
    EXPECT_FALSE(deviceEfficiencies({}));
    EXPECT_FALSE(deviceEfficiencies({{{"", {"a"}}, -1, 0}}));
}

TEST(Devices, TheBestBelongsNearestTheInput) {
    std::vector<DeviceEfficiency> known;
    for (const auto& [device, e] : truth)
        known.push_back({device, e, {}, false, {}});
    const auto orders = everyOrder({"", {"ring", "plain", "ball"}}, known);
    ASSERT_EQ(orders.size(), 6u);
    EXPECT_EQ(orders.front().devices, (std::vector<std::string>{"ball", "plain", "ring"}));
    EXPECT_EQ(orders.back().devices, (std::vector<std::string>{"ring", "plain", "ball"}));
    EXPECT_NEAR(orders.front().advantage, 1 + 0.93 + 0.93 * 0.78 + 0.93 * 0.78 * 0.55, 1e-12);
    EXPECT_TRUE(everyOrder({"", {"rope"}}, known).empty());
}

} // namespace
} // namespace anvil::methods
