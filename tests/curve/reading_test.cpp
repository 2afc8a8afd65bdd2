#include "shapes.h"

#include <algorithm>
#include <anvil/curve/reading.h>
#include <gtest/gtest.h>

using namespace anvil::curve;

namespace {

Reading readOk(const Curve& c, const ReadingSettings& settings = {}) {
    auto r = read(c, settings);
    if (!r) {
        ADD_FAILURE() << r.error().message;
        return {};
    }
    return *r;
}

bool warns(const Reading& r, const std::string& words) {
    return std::any_of(r.warnings.begin(), r.warnings.end(),
                       [&](const auto& w) { return w.find(words) != std::string::npos; });
}

// 1 mm slack, 500 N/mm to 2000 N: everything can be worked out on paper.
TEST(Reading, BrittleByHand) {
    const auto r = readOk(brittle());
    EXPECT_NEAR(r.peak.load, 2000, 1e-6);
    EXPECT_NEAR(*r.peak.travel, 0.004, 1e-9);
    EXPECT_NEAR(r.peak.time, 6, 1e-9);
    ASSERT_TRUE(r.stiffness);
    EXPECT_NEAR(r.stiffness->value, 500e3, 1e-3);
    EXPECT_NEAR(r.stiffness->r2, 1, 1e-12);
    EXPECT_GE(r.stiffness->from, 0.1 * 2000 - 1e-6);
    EXPECT_LE(r.stiffness->to, 0.9 * 2000 + 1e-6);
    EXPECT_NEAR(*r.toe, 0.001, 1e-9);
    EXPECT_NEAR(*r.slack, 0.001, 1e-9);
    EXPECT_NEAR(*r.energyToPeak, 4, 0.001) << "half of 2000 N over 4 mm";
    EXPECT_NEAR(*r.energyToBreak, 4 + 0.5 * (2000 + 740) * 0.00007, 0.03);
    EXPECT_FALSE(r.firstSlip);
    EXPECT_FALSE(r.energyToFirstSlip);
    ASSERT_TRUE(r.breakPoint);
    EXPECT_LT(r.breakPoint->load, 800);
    EXPECT_FALSE(r.residual) << "only 3 mm recorded after the peak, 6 are needed";
    ASSERT_TRUE(r.fall);
    EXPECT_EQ(r.fall->word, "sudden");
    EXPECT_NEAR(r.fall->ratio, (0.4 * 2000 / 18e6) / (0.4 * 2000 / 500e3), 1e-6);
    EXPECT_NEAR(*r.loadRate, 500, 1e-6);
    EXPECT_NEAR(*r.travelRate, 0.001, 1e-9);
    EXPECT_FALSE(r.offScale);
    EXPECT_EQ(r.baseline, 0);
}

TEST(Reading, BaselineIsTakenOffAndTheSignTurnedRound) {
    auto c = brittle();
    for (auto& f : c.load)
        f = 35 - f;
    const auto r = readOk(c);
    EXPECT_NEAR(r.baseline, 35, 1e-9);
    EXPECT_TRUE(r.flipped);
    EXPECT_NEAR(r.peak.load, 2000, 1e-6);
    ASSERT_EQ(r.notes.size(), 1U);
    EXPECT_EQ(r.notes[0], "The load was logged as negative force and has been turned round.");
}

TEST(Reading, APreloadIsAddedToWhatTheBaselineTakesAway) {
    auto c = brittle();
    for (auto& f : c.load)
        f += 50; // a lever rests on the piece, and the log shows it
    const auto bare = readOk(c);
    EXPECT_NEAR(bare.peak.load, 2000, 1e-6) << "taken for a zero that is off";
    ReadingSettings settings;
    settings.preload = 50;
    const auto r = readOk(c, settings);
    EXPECT_NEAR(r.peak.load, 2050, 1e-6);
    EXPECT_NEAR(r.stiffness->value, bare.stiffness->value, 1e-3);
    EXPECT_NEAR(*r.energyToPeak - *bare.energyToPeak, 50 * 0.004, 1e-3) << "50 N over 4 mm";
    auto loaded = c; // starts under load: nothing is taken away, so nothing is added
    loaded.load.erase(loaded.load.begin(), loaded.load.begin() + 300);
    loaded.time.erase(loaded.time.begin(), loaded.time.begin() + 300);
    loaded.travel.erase(loaded.travel.begin(), loaded.travel.begin() + 300);
    const auto without = readOk(loaded), with = readOk(loaded, settings);
    EXPECT_TRUE(warns(with, "starts under load"));
    EXPECT_EQ(with.peak.load, without.peak.load);
}

TEST(Reading, DisplacementCountedBackwardsKeepsTheFilesAxisForTheToe) {
    auto c = brittle();
    for (auto& x : c.travel)
        x = 0.05 - x;
    const auto r = readOk(c);
    EXPECT_NEAR(*r.toe, 0.049, 1e-9);
    EXPECT_NEAR(*r.slack, 0.001, 1e-9);
    EXPECT_NEAR(*r.peak.travel, 0.004, 1e-9);
    EXPECT_NEAR(*r.energyToPeak, 4, 0.001);
}

// Slips at 1200 N, falls to 980 N, climbs to 2000 N, slides down to 900 N over 10 mm.
TEST(Reading, SlipResidualAndGradualFall) {
    const auto r = readOk(
        polygon({{0, 0}, {0.0024, 1200}, {0.0025, 980}, {0.0045, 2000}, {0.0145, 900}, {0.0165, 900}}));
    ASSERT_TRUE(r.firstSlip);
    EXPECT_NEAR(r.firstSlip->load, 1200, 1e-6);
    EXPECT_NEAR(*r.firstSlip->travel, 0.0024, 1e-9);
    EXPECT_NEAR(r.stiffness->value, 500e3, 1e-3) << "looked for below the slip";
    EXPECT_NEAR(*r.energyToFirstSlip, 0.5 * 1200 * 0.0024, 1e-4);
    // Δ = 4.5 mm from toe to peak; median over 9.0 … 13.5 mm of the line falling 110 N/mm: the value at 11.25
    // mm.
    ASSERT_TRUE(r.residual);
    EXPECT_NEAR(r.residual->load, 2000 - 110 * 6.75, 2);
    EXPECT_NEAR(r.residual->share, r.residual->load / 2000, 1e-12);
    EXPECT_FALSE(r.breakPoint) << "never below 40 % of the peak";
    // Down from 1800 to 1000 N at 110 N/mm; up from 1000 (last before the peak: just after the dip) to 1800 N
    // at 510 N/mm.
    EXPECT_NEAR(r.fall->ratio, (800 / 110.0) / (800 / 510.0), 0.01);
    EXPECT_EQ(r.fall->word, "gradual");
}

TEST(Reading, ADipOfTwoPercentIsNoSlip) {
    EXPECT_FALSE(
        readOk(polygon({{0, 0}, {0.002, 1000}, {0.0021, 975}, {0.004, 2000}, {0.0041, 0}, {0.005, 0}}))
            .firstSlip);
    EXPECT_TRUE(
        readOk(polygon({{0, 0}, {0.002, 1000}, {0.0021, 965}, {0.004, 2000}, {0.0041, 0}, {0.005, 0}}))
            .firstSlip);
    EXPECT_FALSE(
        readOk(polygon({{0, 0}, {0.0003, 150}, {0.0004, 100}, {0.004, 2000}, {0.0041, 0}, {0.005, 0}}))
            .firstSlip)
        << "below 10 % of the peak";
}

TEST(Reading, SofterToeIsNotPartOfTheStiffness) {
    // 100 N/mm for 2 mm, then 600 N/mm: the steep part alone, and its line meets zero at 2 − 200/600 mm.
    const auto r = readOk(polygon({{0, 0}, {0.002, 200}, {0.005, 2000}, {0.0051, 0}, {0.006, 0}}));
    EXPECT_NEAR(r.stiffness->value, 600e3, 6e3);
    EXPECT_NEAR(*r.toe, 0.002 - 200 / 600e3, 2e-5);
    EXPECT_NEAR(*r.energyToPeak, 0.5 * 200 * 0.002 + 0.5 * 2200 * 0.003, 0.01)
        << "the soft toe's work counts";
}

TEST(Reading, NothingStraightSaysSo) {
    std::vector<std::pair<double, double>> stairs{{0, 0}}; // eight steep steps with landings between
    for (int i = 0; i < 8; ++i) {
        stairs.emplace_back(stairs.back().first + 0.0001, 250 * (i + 1));
        stairs.emplace_back(stairs.back().first + 0.0009, 250 * (i + 1) + 1);
    }
    stairs.emplace_back(stairs.back().first + 0.0001, 0);
    stairs.emplace_back(stairs.back().first + 0.001, 0);
    const auto r = readOk(polygon(stairs));
    ASSERT_TRUE(r.stiffness);
    EXPECT_LT(r.stiffness->r2, 0.995);
    EXPECT_TRUE(warns(r, "No part of the rise is straight"));
}

TEST(Reading, OffScaleByTheRigLimitCountsRawForce) {
    ReadingSettings s;
    s.rigLimit = 2030;
    auto c = brittle();
    EXPECT_FALSE(readOk(c, s).offScale);
    for (auto& f : c.load)
        f += 30; // an unloaded reading of 30 N uses up the rig's range
    const auto r = readOk(c, s);
    EXPECT_TRUE(r.offScale);
    EXPECT_NEAR(r.peak.load, 2000, 1e-6);
}

TEST(Reading, BeyondTheCalibrationTableIsAGuess) {
    ReadingSettings s;
    s.calibratedTo = 2000;
    EXPECT_FALSE(readOk(brittle(), s).guessed) << "its end is still known";
    s.calibratedTo = 1600;
    const auto r = readOk(brittle(), s);
    EXPECT_TRUE(r.guessed);
    EXPECT_FALSE(r.offScale) << "it is a number, only a doubtful one";
    EXPECT_NEAR(r.peak.load, 2000, 1e-6);
    EXPECT_TRUE(warns(r, "The peak lies 25 % beyond the end of the calibration table"));
    auto c = brittle();
    for (auto& f : c.load)
        f += 30;
    s.calibratedTo = 2010;
    EXPECT_TRUE(readOk(c, s).guessed) << "an unloaded reading of 30 N uses up the table's range";
    s.calibratedTo = 0;
    EXPECT_FALSE(readOk(c, s).guessed) << "a table without a range says nothing";
}

TEST(Reading, WhatBelongsToTheRigOutlivesWhatWasMovedByHand) {
    ReadingSettings s;
    s.rigLimit = 5000;
    s.calibratedTo = 4000;
    s.crossheadSpeed = 0.001;
    s.preload = 12;
    s.breakShare = 0.3;
    const auto rig = s;
    s.peak = s.firstSlip = s.breakPoint = s.fitFrom = s.fitTo = Override{1, false};
    EXPECT_EQ(s.withoutHand(), rig);
}

TEST(Reading, ClippedSomewhereInTheChain) {
    auto c = brittle();
    for (auto& f : c.load)
        f = std::min(f, 1500.0);
    const auto r = readOk(c);
    EXPECT_TRUE(r.offScale);
    EXPECT_TRUE(warns(r, "clipped somewhere in the chain"));
}

TEST(Reading, HonestRoundedPeaksAreNotOffScale) {
    for (const double q : {1.0, 10.0, 9.80665}) {
        Curve c;
        for (int i = 0; i < 1200; ++i) { // a slow dome: many samples share the top step
            const double u = (i - 700) / 600.0;
            c.time.push_back(i * 0.02);
            c.load.push_back(i < 100 ? 0 : std::round(800 * std::max(0.0, 1 - u * u) / q) * q);
        }
        EXPECT_FALSE(readOk(c).offScale) << q;
    }
}

TEST(Reading, WithoutDisplacementEverythingIsToldAgainstTime) {
    auto c = brittle();
    c.travel.clear();
    const auto r = readOk(c);
    EXPECT_TRUE(r.againstTime);
    EXPECT_FALSE(r.stiffness || r.toe || r.slack || r.energyToPeak || r.peak.travel);
    EXPECT_TRUE(r.fall);
    ReadingSettings s;
    s.crossheadSpeed = 0.001;
    const auto with = readOk(c, s);
    ASSERT_TRUE(with.stiffness);
    EXPECT_NEAR(with.stiffness->value, 500e3, 1);
    EXPECT_TRUE(with.stiffness->includesRigStretch);
}

TEST(Reading, LandmarksMovedByHandAreKeptAndShownAsSuch) {
    const auto c = brittle();
    ReadingSettings s;
    s.peak = Override{5.0, false};
    s.firstSlip = Override{3.0, false};
    s.breakPoint = Override{0, true};
    auto r = readOk(c, s);
    EXPECT_NEAR(r.peak.load, 1500, 1e-6);
    EXPECT_TRUE(r.peak.byHand);
    EXPECT_NEAR(r.firstSlip->load, 500, 1e-6);
    EXPECT_FALSE(r.breakPoint);
    s = {};
    s.fitFrom = Override{3.0, false};
    s.fitTo = Override{4.0, false};
    r = readOk(c, s);
    EXPECT_TRUE(r.stiffness->byHand);
    EXPECT_NEAR(r.stiffness->from, 500, 1e-6);
    EXPECT_NEAR(r.stiffness->to, 1000, 1e-6);
}

TEST(Reading, LogThatStartsUnderLoad) {
    auto c = brittle();
    const auto from = static_cast<std::ptrdiff_t>(300);
    c.time.erase(c.time.begin(), c.time.begin() + from);
    c.load.erase(c.load.begin(), c.load.begin() + from);
    c.travel.erase(c.travel.begin(), c.travel.begin() + from);
    const auto r = readOk(c);
    EXPECT_EQ(r.baseline, 0);
    EXPECT_NEAR(r.peak.load, 2000, 1e-6);
    EXPECT_TRUE(warns(r, "starts under load"));
}

TEST(Reading, FewSamplesAndNoiseAreSaid) {
    EXPECT_TRUE(warns(readOk(polygon({{0, 0}, {0.001, 0}, {0.005, 2000}, {0.0051, 0}, {0.006, 0}}, 8)),
                      "samples up to the peak"));
    auto c = brittle();
    Noise random(8);
    for (auto& f : c.load)
        f += 20 * random.normal();
    EXPECT_TRUE(warns(readOk(c), "a peak picked from noise reads high"));
}

TEST(Reading, NothingToReadIsASentence) {
    EXPECT_EQ(read({{}, {}, {}}).error().message, "Only 0 usable samples: nothing to read.");
    EXPECT_EQ(read({{0}, {1}, {}}).error().message, "Only 1 usable sample: nothing to read.");
    EXPECT_EQ(read({{0, 1, 2, 3, 4, 5, 6}, {5, 5, 5, 5, 5, 5, 5}, {}}).error().message,
              "The force never rises clearly above its noise: there is no pull in this log.");
}

TEST(Reading, ForceAtADisplacement) {
    const auto c = readAndKeep(brittle());
    ASSERT_TRUE(c);
    EXPECT_NEAR(*loadAt(*c, 0.002), 1000, 1e-6);
    EXPECT_FALSE(loadAt(*c, 0.05)) << "not reached";
}

// The same pull in other clothes: shifting, scaling and slowing change the reading in the known way and no
// other.
TEST(Reading, ScalesWithUnitsAndClock) {
    auto c = brittle();
    Noise random(11);
    for (auto& f : c.load)
        f += 2 * random.normal();
    const auto plain = readOk(c);
    auto changed = c;
    for (std::size_t i = 0; i < c.load.size(); ++i) {
        changed.load[i] = 3 * c.load[i];
        changed.travel[i] = 0.5 * c.travel[i] + 0.2;
        changed.time[i] = 2 * c.time[i] + 100;
    }
    const auto r = readOk(changed);
    EXPECT_NEAR(r.peak.load, 3 * plain.peak.load, 1e-6);
    EXPECT_NEAR(r.stiffness->value, 6 * plain.stiffness->value, 1e-3 * plain.stiffness->value);
    EXPECT_NEAR(*r.energyToPeak, 1.5 * *plain.energyToPeak, 1e-9);
    EXPECT_NEAR(*r.toe, 0.5 * *plain.toe + 0.2, 1e-9);
    EXPECT_EQ(r.peak.index, plain.peak.index);
}

} // namespace
