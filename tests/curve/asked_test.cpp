// What is read where it is asked for: yield, chords, held loads, places, what stayed, the rig's stretch.
#include <anvil/curve/reading.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::curve {
namespace {

/// A quiet start, then a load by displacement, sample by sample; a hundred a second.
template <class Load> Curve pulled(double until, Load load, int n = 2000) {
    Curve c;
    for (int i = 0; i < 50; ++i) {
        c.time.push_back(i * 0.01);
        c.travel.push_back(0);
        c.load.push_back(0);
    }
    for (int i = 1; i <= n; ++i) {
        c.time.push_back(0.5 + i * 0.01);
        c.travel.push_back(until * i / n);
        c.load.push_back(load(c.travel.back()));
    }
    return c;
}

/// 1 MN/m up to 2 kN, then a tenth of that.
double bilinear(double x) { return x < 0.002 ? 1e6 * x : 2000 + 1e5 * (x - 0.002); }

TEST(Asked, YieldAtAnOffset) {
    ReadingSettings s;
    s.yieldOffset = 0.001;
    const auto r = read(pulled(0.01, bilinear), s);
    ASSERT_TRUE(r && r->yield);
    // 1e6·(x − 0.001) = 2000 + 1e5·(x − 0.002): x = 0.0028/0.9
    EXPECT_NEAR(*r->yield->travel, 0.0028 / 0.9, 2e-5);
    EXPECT_NEAR(r->yield->load, bilinear(0.0028 / 0.9), 5);
    s.yieldOffset = 0.1;
    EXPECT_FALSE(read(pulled(0.01, bilinear), s)->yield) << "it never falls so far below";
}

TEST(Asked, StiffnessAsItIsChosen) {
    const auto curve = pulled(0.01, bilinear);
    ReadingSettings s;
    s.stiffnessBy = StiffnessBy::chordOfLoads;
    s.chordFrom = 1000;
    s.chordTo = 2400;
    // from x = 0.001 to 0.006
    EXPECT_NEAR(read(curve, s)->stiffness->value, 1400 / 0.005, 500);
    s.stiffnessBy = StiffnessBy::chordOfShares; // the peak is 2800 N
    s.chordFrom = 1000.0 / 2800;
    s.chordTo = 2400.0 / 2800;
    EXPECT_NEAR(read(curve, s)->stiffness->value, 1400 / 0.005, 500);
    s.stiffnessBy = StiffnessBy::secant;
    EXPECT_NEAR(read(curve, s)->stiffness->value, 2800 / 0.01, 500)
        << "from the sample where the load begins";
    s.stiffnessBy = StiffnessBy::chordOfLoads;
    s.chordTo = 9000;
    const auto beyond = read(curve, s);
    EXPECT_FALSE(beyond->stiffness);
    EXPECT_FALSE(beyond->warnings.empty());
}

TEST(Asked, ASensorThatStandsStillGivesNoSecant) {
    auto curve = pulled(0.01, bilinear);
    std::fill(curve.travel.begin(), curve.travel.end(), 0.004);
    ReadingSettings s;
    s.stiffnessBy = StiffnessBy::secant;
    const auto r = read(curve, s);
    ASSERT_TRUE(r);
    EXPECT_FALSE(r->stiffness);
    EXPECT_TRUE(r->toe && std::isfinite(*r->toe));
    EXPECT_TRUE(r->peak.travel && std::isfinite(*r->peak.travel));
    EXPECT_TRUE(std::isfinite(r->energyToPeak.value_or(0)));
    EXPECT_FALSE(r->warnings.empty()) << "and that is said";
}

TEST(Asked, TheRigsStretchIsTakenOff) {
    ReadingSettings s;
    s.rigCompliance = 5e-7; // half of what moves at 1 MN/m
    const auto r = read(pulled(0.01, bilinear), s);
    EXPECT_NEAR(r->stiffness->value, 2e6, 2e4);
    EXPECT_NEAR(*r->peak.travel, 0.01 - 5e-7 * 2800, 1e-5);
}

TEST(Asked, PlacesAndTheirReverse) {
    ReadingSettings s;
    s.atTravel = 0.001;
    s.atLoad = 2400;
    const auto r = read(pulled(0.01, bilinear), s);
    ASSERT_TRUE(r->loadAtTravel && r->loadAtTravel->value && r->travelAtLoad && r->travelAtLoad->value);
    EXPECT_NEAR(*r->loadAtTravel->value, 1000, 3);
    EXPECT_NEAR(*r->travelAtLoad->value, 0.006, 2e-5);
    s.atTravel = 0.5;
    s.atLoad = 1e6;
    const auto none = read(pulled(0.01, bilinear), s);
    EXPECT_TRUE(none->loadAtTravel && !none->loadAtTravel->value) << "not reached is an answer";
    EXPECT_TRUE(none->travelAtLoad && !none->travelAtLoad->value);
}

TEST(Asked, AHeldLoadRelaxes) {
    auto c = pulled(0.002, bilinear, 400);
    const double t0 = c.time.back();
    for (int i = 1; i <= 3000; ++i) {
        c.time.push_back(t0 + i * 0.01);
        c.travel.push_back(0.002);
        c.load.push_back(2000 - 60 * std::log1p(i * 0.01 / 0.5));
    }
    ReadingSettings s;
    s.holdFrom = Override{t0, false};
    s.holdTo = Override{c.time.back(), false};
    const auto r = read(c, s);
    ASSERT_TRUE(r && r->hold);
    const double lost = 60 * std::log1p(30 / 0.5);
    EXPECT_NEAR(r->hold->relaxation, lost / 2000, 1e-3);
    ASSERT_TRUE(r->hold->law);
    EXPECT_NEAR(r->hold->law->a, 2000, 5);
    EXPECT_NEAR(r->hold->law->b, 60, 3);
    EXPECT_GT(r->hold->law->r2, 0.99);
    EXPECT_FALSE(s.withoutHand().holdFrom) << "a window that was drawn is of the hand";
}

TEST(Asked, TheGreatestSustainedLoad) {
    // It rises at 100 N/s and stands at 600 N for 4 s, rises on and breaks.
    Curve c;
    double f = 0, x = 0;
    for (int i = 0; i < 1800; ++i) {
        const double t = i * 0.01;
        const bool stands = t >= 7 && t < 11;
        if (t >= 1 && !stands && t < 16) {
            f += 1;
            x += 1e-5;
        }
        if (t >= 16) f = 0;
        c.time.push_back(t);
        c.load.push_back(f);
        c.travel.push_back(x);
    }
    ReadingSettings s;
    s.sustainedFor = 3;
    s.sustainedSpeed = 1e-4;
    EXPECT_NEAR(read(c, s)->sustained.value(), 600, 1);
    s.sustainedFor = 3.9;
    EXPECT_NEAR(read(c, s)->sustained.value(), 600, 1);
    s.sustainedFor = 5; // no longer: only the way up, slow enough? 1 mm/s is not
    s.sustainedSpeed = 1e-5;
    EXPECT_LT(read(c, s)->sustained.value_or(0), 600);
}

TEST(Asked, WhatStayedAfterLettingDown) {
    auto c = pulled(0.004, bilinear, 800);
    const double top = c.load.back(), t0 = c.time.back();
    for (int i = 1; i <= 400; ++i) { // back along 1 MN/m
        c.time.push_back(t0 + i * 0.01);
        c.load.push_back(top * (1 - i / 400.0));
        c.travel.push_back(0.004 - top / 1e6 * i / 400.0);
    }
    const auto r = read(c);
    ASSERT_TRUE(r->permanent);
    EXPECT_NEAR(*r->permanent, 0.004 - 0.98 * top / 1e6, 3e-5);
    EXPECT_FALSE(read(pulled(0.01, bilinear))->permanent) << "it was not let down";
}

TEST(Asked, ReadingOfATenfoldLoadIsTenfold) {
    ReadingSettings s;
    s.yieldOffset = 0.001;
    s.atTravel = 0.001;
    const auto one = read(pulled(0.01, bilinear), s),
               ten = read(pulled(0.01, [](double x) { return 10 * bilinear(x); }), s);
    EXPECT_NEAR(ten->yield->load, 10 * one->yield->load, 1e-6 * ten->yield->load);
    EXPECT_NEAR(ten->stiffness->value, 10 * one->stiffness->value, 1e-6 * ten->stiffness->value);
    EXPECT_NEAR(*ten->loadAtTravel->value, 10 * *one->loadAtTravel->value, 1e-6);
    EXPECT_NEAR(*ten->energyToPeak, 10 * *one->energyToPeak, 1e-6);
    EXPECT_NEAR(*ten->toe, *one->toe, 1e-9);
}

} // namespace
} // namespace anvil::curve
