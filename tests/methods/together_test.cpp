// Both ends of a hauling line, and legs with the line that carries them, read off one log.
#include <anvil/curve/reading.h>
#include <anvil/methods/method.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::methods {
namespace {

/// A log that rests, rises, stands still at `load` from 4 to 9 s and lets go; other channels carry shares of
/// it above baselines of their own.
curve::Curve log(double load, const std::vector<std::pair<const char*, double>>& others) {
    curve::Curve c;
    for (const auto& [name, share] : others)
        c.others.push_back({name, "N", {}});
    for (int i = 0; i <= 2000; ++i) {
        const double t = 0.005 * i;
        const double f = t < 1 ? 0 : t < 4 ? load * (t - 1) / 3 : t < 9 ? load : load * (10 - t);
        c.time.push_back(t);
        c.load.push_back(f + 20 + 0.3 * std::sin(977.0 * i)); // zeroed 20 N off
        for (std::size_t k = 0; k < others.size(); ++k)
            c.others[k].values.push_back(others[k].second * f - 7 + 0.3 * std::sin(1511.0 * i));
    }
    return c;
}

Numbers of(const char* method, const curve::Curve& c,
           const std::vector<std::pair<std::string, std::string>>& typed = {}) {
    const auto& m = *find(method);
    auto e = *evidenceFrom(m, typed);
    const auto reading = curve::read(c);
    EXPECT_TRUE(reading);
    e.reading = &*reading;
    auto all = measure(m, e);
    EXPECT_TRUE(all) << (all ? "" : all.error().message);
    return *all;
}

TEST(Together, AReadingHoldsWhatAllChannelsShowedWhileTheyStoodStill) {
    const auto reading = curve::read(log(900, {{"hand", 0.4}}));
    ASSERT_TRUE(reading && reading->together);
    EXPECT_NEAR(reading->together->from, 4, 0.2);
    EXPECT_NEAR(reading->together->to, 9, 0.2);
    EXPECT_NEAR(reading->together->load, 900, 1) << "above its baseline";
    ASSERT_EQ(reading->together->others.size(), 1u);
    EXPECT_NEAR(reading->together->others[0].second, 360, 1) << "above its own";
    EXPECT_FALSE(curve::read(log(900, {}))->together);
}

TEST(Together, BothEndsOfALineNeedNoTyping) {
    const auto all = of("advantage", log(900, {{"hand", 0.4}}), {{"ideal", "3"}});
    EXPECT_NEAR(all.find("advantage")->value->value, 2.5, 0.005);
    EXPECT_NEAR(all.find("efficiency")->value->value, 2.5 / 3, 0.002);
    ASSERT_FALSE(all.notes.empty());
    EXPECT_NE(all.notes[0].find("where both stood still"), std::string::npos) << all.notes[0];
    EXPECT_NE(all.notes[0].find("\"hand\""), std::string::npos);
}

TEST(Together, WhatIsTypedGoesBefore) {
    const auto all = of("advantage", log(900, {{"hand", 0.4}}), {{"input", "300 N"}, {"output", "900 N"}});
    EXPECT_DOUBLE_EQ(all.find("advantage")->value->value, 3);
    EXPECT_FALSE(of("advantage", log(900, {{"hand", 0.4}}), {{"input", "300 N"}}).find("advantage")->value)
        << "one end typed and one logged are of no one moment";
}

TEST(Together, OfSeveralChannelsOneMustBeCalledInput) {
    const auto none = of("advantage", log(900, {{"hand", 0.4}, {"air", 0.1}}));
    EXPECT_FALSE(none.find("advantage")->value);
    EXPECT_EQ(none.find("advantage")->whyNot, "none of its channels is called \"input\"");
    const auto all = of("advantage", log(900, {{"air", 0.1}, {"input", 0.45}}));
    EXPECT_NEAR(all.find("advantage")->value->value, 1 / 0.45, 0.01);
}

TEST(Together, WithoutAWindowThereIsNoNumber) {
    auto moving = log(900, {{"hand", 0.4}});
    for (std::size_t i = 0; i < moving.time.size(); ++i)
        moving.others[0].values[i] += 30 * moving.time[i];
    const auto all = of("advantage", moving);
    EXPECT_FALSE(all.find("advantage")->value);
    EXPECT_EQ(all.find("advantage")->whyNot, "its curve has no window in which both ends stood still");
}

TEST(Together, LegsAndTheLineThatCarriesThem) {
    const auto all = of("load-share", log(1000, {{"west", 0.5}, {"east", 0.3}, {"south", 0.2}}));
    EXPECT_NEAR(all.find("unevenness")->value->value, 1.5, 0.005);
    EXPECT_NEAR(all.find("greatest_share")->value->value, 0.5, 0.002);
    EXPECT_NEAR(all.find("residual")->value->value, 0, 2) << "the main channel is the load on all";
    const auto typed =
        of("load-share", log(1000, {{"west", 0.5}, {"east", 0.5}}), {{"leg.1", "60 N"}, {"leg.2", "40 N"}});
    EXPECT_NEAR(typed.find("unevenness")->value->value, 1.2, 1e-12);
    EXPECT_FALSE(typed.find("residual")->value) << "a typed share has no master unless it is typed too";
}

} // namespace
} // namespace anvil::methods
