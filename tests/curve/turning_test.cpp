// Torque against angle.
#include <anvil/curve/reading.h>
#include <cmath>
#include <gtest/gtest.h>
#include <numbers>

using namespace anvil;
using namespace anvil::curve;

namespace {

constexpr double degree = std::numbers::pi / 180;

/// A sample every 0.36 degrees (0.2 N·m on the way up). Up to 12 N·m within 20 degrees, then 3 N·m rising to
/// 5 N·m at a full turn.
Curve screw(double until, int n = 2000) {
    Curve c;
    c.loadKind = quantity::Dimension::torque;
    c.travelKind = quantity::Dimension::angle;
    for (int i = -100; i <= n; ++i) {
        const double turned = std::max(0.0, until * i / n);
        const double torque = i <= 0         ? 0
                              : turned <= 20 ? 12 * turned / 20
                              : turned <= 25 ? 12 - 9 * (turned - 20) / 5
                                             : 3 + 2 * (turned - 25) / 335;
        c.time.push_back(0.01 * (i + 100));
        c.load.push_back(torque);
        c.travel.push_back(turned * degree);
    }
    return c;
}

TEST(Turning, BreakawayAndRunningByHand) {
    const auto r = read(screw(720));
    ASSERT_TRUE(r) << r.error().message;
    EXPECT_EQ(r->loadKind, quantity::Dimension::torque);
    ASSERT_TRUE(r->breakaway && r->running);
    EXPECT_NEAR(*r->breakaway, 12, 0.22);
    // The mean of a straight line from 90 to 360 degrees is its value at 225.
    EXPECT_NEAR(*r->running, 3 + 2 * 200.0 / 335, 0.01);
}

TEST(Turning, TooShortATurnHasNoRunningTorque) {
    EXPECT_FALSE(read(screw(200))->running) << "less than half of the way from 90 to 360 degrees";
    EXPECT_TRUE(read(screw(240))->running);
    EXPECT_NEAR(*read(screw(60))->breakaway, 12, 0.22);
}

TEST(Turning, EitherWayRoundAndUnevenSamples) {
    auto c = screw(400);
    for (auto& a : c.travel)
        a = -a;
    const auto back = read(c), forth = read(screw(400));
    EXPECT_NEAR(*back->breakaway, *forth->breakaway, 1e-9);
    EXPECT_NEAR(*back->running, *forth->running, 1e-6);
    // Twice as many samples in one half of the turn change nothing: it is a mean over the angle.
    std::vector<double> angle, torque;
    for (int i = 0; i <= 360; i += i < 180 ? 1 : 10) {
        angle.push_back(i * degree);
        torque.push_back(i < 180 ? 4 : 2);
    }
    EXPECT_NEAR(*turning(angle, torque, 0).running, (4 * 90 + 2 * 180) / 270.0, 0.02);
}

TEST(Turning, NothingToTurn) {
    EXPECT_FALSE(turning({}, {}, 0).breakaway);
    const std::vector<double> one{1};
    EXPECT_FALSE(turning(one, one, 5).breakaway);
    auto c = screw(720);
    c.travel.clear();
    const auto r = read(c);
    EXPECT_NEAR(*r->breakaway, 12, 0.22) << "without an angle: the greatest there was";
    EXPECT_FALSE(r->running);
    EXPECT_FALSE(read(Curve{c.time, c.load, {}})->breakaway) << "a force has none";
}

} // namespace
