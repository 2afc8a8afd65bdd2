// Several channels at one instant.
#include <anvil/curve/reading.h>
#include <anvil/curve/steady.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil::curve;

namespace {

TEST(Resampled, StraightBetweenSamplesAndFlatBeyondThem) {
    const std::vector<double> t{1, 2, 4}, v{10, 20, 0};
    const auto got = resampled(t, v, std::vector<double>{0, 1, 1.5, 2, 3, 4, 9});
    EXPECT_EQ(got, (std::vector<double>{10, 10, 15, 20, 10, 0, 0}));
}

TEST(Resampled, AStraightLineComesBackWhateverTheClocks) {
    std::vector<double> t, v, at;
    for (int i = 0; i < 200; ++i) {
        t.push_back(0.013 * i);
        v.push_back(3 * t.back() - 1);
    }
    for (int i = 0; i < 1000; ++i)
        at.push_back(0.0025 * i);
    const auto got = resampled(t, v, at);
    ASSERT_EQ(got.size(), at.size());
    for (std::size_t i = 0; i < at.size(); ++i)
        EXPECT_NEAR(got[i], 3 * at[i] - 1, 1e-12);
}

TEST(Resampled, EqualStampsAndNothingDoNoHarm) {
    EXPECT_TRUE(resampled({}, {}, std::vector<double>{1}).empty());
    EXPECT_TRUE(resampled(std::vector<double>{1}, {}, std::vector<double>{1}).empty());
    const std::vector<double> t{1, 1, 2}, v{5, 7, 9};
    for (const double x : resampled(t, v, std::vector<double>{0.5, 1, 1.5, 2}))
        EXPECT_TRUE(std::isfinite(x));
}

/// Three legs that carry 50, 30 and 20 N of 100 N, standing still from 2 s on.
Curve threeLegs() {
    Curve c;
    c.others = {{"leg 1", "N", {}}, {"leg 2", "N", {}}, {"leg 3", "N", {}}, {"air", "K", {}}};
    for (int i = 0; i <= 400; ++i) {
        const double t = 0.01 * i, load = std::min(100.0, 50 * t);
        c.time.push_back(t);
        c.load.push_back(load);
        c.others[0].values.push_back(0.5 * load);
        c.others[1].values.push_back(0.3 * load);
        c.others[2].values.push_back(0.2 * load);
        c.others[3].values.push_back(293);
    }
    return c;
}

TEST(Steady, AllChannelsOverTheSameWindow) {
    const auto s = steadyAt(threeLegs(), 4);
    ASSERT_TRUE(s);
    EXPECT_TRUE(s->still);
    EXPECT_EQ(s->samples, 101u);
    ASSERT_EQ(s->channels.size(), 5u);
    EXPECT_EQ(s->channels[0].name, "force");
    EXPECT_NEAR(s->channels[0].mean, 100, 1e-9);
    EXPECT_NEAR(s->channels[1].mean, 50, 1e-9);
    EXPECT_NEAR(s->channels[4].mean, 293, 1e-9);
    EXPECT_EQ(s->channels[4].unit, "K");
    const auto shares = sharesOf(*s);
    ASSERT_EQ(shares.size(), 3u) << "the master and the thermometer carry no share";
    EXPECT_NEAR(shares[0].share, 0.5, 1e-12);
    EXPECT_NEAR(shares[1].share, 0.3, 1e-12);
    EXPECT_NEAR(shares[2].share, 0.2, 1e-12);
}

TEST(Steady, ARisingLoadIsNotStillAndItsDriftIsByHand) {
    const auto s = steadyAt(threeLegs(), 1.5);
    ASSERT_TRUE(s);
    EXPECT_FALSE(s->still);
    EXPECT_NEAR(s->channels[0].drift, 50, 1e-6) << "50 N a second over one second";
    EXPECT_NEAR(s->channels[0].mean, 50, 1e-6) << "from 25 to 75 N";
}

TEST(Steady, ATorqueIsNoForce) {
    auto c = threeLegs();
    c.loadKind = anvil::quantity::Dimension::torque;
    c.travelKind = anvil::quantity::Dimension::angle;
    c.travel = c.load;
    const auto s = steadyAt(c, 4);
    ASSERT_TRUE(s);
    EXPECT_EQ(s->channels[0].name, "torque");
    EXPECT_EQ(s->channels[0].unit, "N·m");
    EXPECT_EQ(s->channels[1].name, "angle");
    EXPECT_EQ(s->channels[1].unit, "rad");
}

TEST(Steady, NothingWhereNothingWasLogged) {
    EXPECT_FALSE(steadyAt(threeLegs(), -1));
    EXPECT_FALSE(steadyAt(threeLegs(), 99));
    EXPECT_FALSE(steadyAt({}, 1));
    Curve plain{{0, 0.1, 0.2, 0.3}, {1, 1, 1, 1}, {}};
    const auto s = steadyAt(plain, 0.3);
    ASSERT_TRUE(s);
    EXPECT_TRUE(sharesOf(*s).empty()) << "a single cell shares with nobody";
}

} // namespace

namespace {

/// A pull that rises, stands still from 4 to 9 s, rises and stands still from 12 to 14 s; a hand that pulls a
/// third of it, with a baseline of its own.
Curve twoHolds(double noise = 0) {
    Curve c;
    Channel hand{"hand", "N", {}};
    for (int i = 0; i <= 1500; ++i) {
        const double t = 0.01 * i;
        double f = 0;
        if (t >= 1) f = 300 * std::min(t - 1, 3.0);
        if (t >= 9) f = 900 + 200 * std::min(t - 9, 3.0);
        if (t >= 14) f = 1500 - 1400 * (t - 14);
        c.time.push_back(t);
        c.load.push_back(f + noise * std::sin(7919.0 * i));
        hand.values.push_back(f / 3 + 5 + noise * std::sin(6007.0 * i));
    }
    c.others.push_back(std::move(hand));
    return c;
}

TEST(Together, TheRestIsFoundByTimeWhereSamplesAreMissing) {
    auto c = twoHolds(0.3);
    for (std::size_t i = 0; i < 50; ++i) {
        c.load[i] = std::nan("");         // the cell came late
        c.others[0].values[i + 50] += 20; // and the hand's was zeroed in between
    }
    const auto full = anvil::curve::read(twoHolds(0.3)), r = anvil::curve::read(c);
    ASSERT_TRUE(full && r && full->together && r->together);
    ASSERT_EQ(r->together->others.size(), 1u);
    EXPECT_NEAR(r->together->others[0].second, full->together->others[0].second - 10, 1)
        << "the mean of the whole rest, not of its first half";
}

TEST(CommonSteady, IsTheLongestWindowInWhichAllStandStill) {
    for (const double noise : {0.0, 4.0}) {
        const auto s = commonSteady(twoHolds(noise));
        ASSERT_TRUE(s) << noise;
        EXPECT_NEAR(s->from, 4, 0.2);
        EXPECT_NEAR(s->to, 9, 0.2);
        EXPECT_NEAR(s->channels[0].mean, 900, 2);
        EXPECT_NEAR(s->channels[1].mean, 305, 2);
        EXPECT_TRUE(s->still);
    }
}

TEST(CommonSteady, NothingWhereOneAlwaysMovesOrIsAlone) {
    auto c = twoHolds();
    for (std::size_t i = 0; i < c.time.size(); ++i)
        c.others[0].values[i] = 100 + 20 * c.time[i];
    EXPECT_FALSE(commonSteady(c));
    c.others.clear();
    EXPECT_FALSE(commonSteady(c));
    EXPECT_FALSE(commonSteady({}));
    auto still = twoHolds();
    EXPECT_FALSE(commonSteady(still, 6)) << "no window is as long";
    std::swap(still.time[100], still.time[900]);
    EXPECT_FALSE(commonSteady(still)) << "its clock steps back";
}

TEST(CommonSteady, AnUnloadedStretchIsNone) {
    Curve c = twoHolds();
    for (auto& f : c.load)
        f = f > 100 ? f : 0;
    for (std::size_t i = 0; i < c.time.size(); ++i) // a long wait before it all
        c.time[i] += c.time[i] > 1 ? 60 : 0;
    const auto s = commonSteady(c);
    EXPECT_FALSE(s && s->channels[0].mean < 100);
}

} // namespace
