#include "shapes.h"

#include <algorithm>
#include <gtest/gtest.h>
#include <limits>

using namespace anvil::curve;

namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

TEST(Order, LeavesAGoodClockAloneWithoutCopying) {
    const Curve c{{0, 1, 2}, {5, 6, 7}, {}};
    const auto o = order(c);
    EXPECT_EQ(o.load.data(), c.load.data());
    EXPECT_EQ(o.dropped + o.moved + o.spread + o.otherRuns, 0U);
}

TEST(Order, SortsSmallDisplacementsAndReportsThem) {
    const Curve c{{0, 1, 3, 2, 4}, {10, 11, 13, 12, 14}, {0, 1, 3, 2, 4}};
    const auto o = order(c);
    EXPECT_EQ(std::vector<double>(o.time.begin(), o.time.end()), (std::vector<double>{0, 1, 2, 3, 4}));
    EXPECT_EQ(std::vector<double>(o.load.begin(), o.load.end()), (std::vector<double>{10, 11, 12, 13, 14}));
    EXPECT_EQ(std::vector<double>(o.travel.begin(), o.travel.end()), (std::vector<double>{0, 1, 2, 3, 4}));
    EXPECT_EQ(o.moved, 1U);
}

TEST(Order, TenPlacesAreSortedElevenAreANewRun) {
    for (const int places : {10, 11}) {
        Curve c;
        for (int i = 0; i < 40; ++i) {
            c.time.push_back(i);
            c.load.push_back(100 + i);
        }
        c.time.insert(c.time.begin() + 30, 29.5 - places);
        c.load.insert(c.load.begin() + 30, -1);
        const auto o = order(c);
        EXPECT_EQ(o.moved, places == 10 ? 1U : 0U) << places;
        EXPECT_EQ(o.otherRuns, places == 10 ? 0U : 11U) << places;
        EXPECT_TRUE(std::is_sorted(o.time.begin(), o.time.end()));
        EXPECT_EQ(runsByClock(c).size(), places == 10 ? 1U : 2U) << places;
    }
}

TEST(Order, EqualStampsAreSpreadEvenlyAndNoReadingIsLost) {
    const Curve c{{0, 0, 0, 0, 1, 1, 2}, {1, 2, 2, 3, 4, 5, 6}, {}};
    const auto o = order(c);
    EXPECT_EQ(o.dropped, 0U) << "a scale that shows 2 twice within a second showed it twice";
    EXPECT_EQ(o.spread, 6U);
    const std::vector<double> want{0, 0.25, 0.5, 0.75, 1, 1.5, 2};
    ASSERT_EQ(o.time.size(), want.size());
    for (std::size_t i = 0; i < want.size(); ++i)
        EXPECT_NEAR(o.time[i], want[i], 1e-12);
}

TEST(Order, ARowWrittenTwiceIsDroppedWhereStampsAreFine) {
    Curve c;
    for (int i = 0; i < 200; ++i) {
        c.time.push_back(i * 0.01);
        c.load.push_back(i);
        if (i == 70) { // once identical, once another reading under the same stamp
            c.time.push_back(i * 0.01);
            c.load.push_back(i);
            c.time.push_back(i * 0.01);
            c.load.push_back(i + 0.5);
        }
    }
    const auto o = order(c);
    EXPECT_EQ(o.dropped, 1U);
    EXPECT_EQ(o.spread, 2U);
}

TEST(Order, DropsWhatIsNotFinite) {
    const Curve c{
        {0, 1, nan, 3, 4}, {1, nan, 3, 4, std::numeric_limits<double>::infinity()}, {0, 0, 0, 0, 0}};
    const auto o = order(c);
    EXPECT_EQ(o.dropped, 3U);
    EXPECT_EQ(o.load.size(), 2U);
}

TEST(Order, NumbersALogWithoutAClock) {
    const auto o = order({{}, {3, 4, 5}, {}});
    EXPECT_EQ(std::vector<double>(o.time.begin(), o.time.end()), (std::vector<double>{0, 1, 2}));
    EXPECT_TRUE(order({}).load.empty());
}

TEST(Resolution, StepOfAQuantisedSignalAndNoneOfASmoothOne) {
    auto c = polygon({{0, 0}, {0.001, 0}, {0.005, 2000}, {0.0051, 100}, {0.0081, 100}}, 200);
    EXPECT_EQ(resolution(c.load), 0) << "between 10 and 90 % of the peak it stands still nowhere";
    for (auto& f : c.load)
        f = std::round(f / 10) * 10;
    EXPECT_DOUBLE_EQ(resolution(c.load), 10);
}

// A ramp has no noise whatever its slope; the estimate of a known noise is right within a few percent.
TEST(Noise, ARampIsNoNoise) {
    std::vector<double> f;
    for (int i = 0; i < 2000; ++i)
        f.push_back(7.0 * i);
    EXPECT_LT(noise(f, 0), 1e-9);
    Noise random(3);
    for (auto& v : f)
        v += 4 * random.normal();
    EXPECT_NEAR(noise(f, 0), 4, 0.35);
    EXPECT_DOUBLE_EQ(noise(std::vector<double>(100, 5.0), 12), 12 / std::sqrt(12.0));
}

// Noise that is slow against the sampling shows only at longer lags.
TEST(Noise, SlowNoiseIsSeenAtLongerLags) {
    std::vector<double> f;
    Noise random(5);
    double held = 0;
    for (int i = 0; i < 20000; ++i) {
        if (i % 8 == 0) held = 4 * random.normal();
        f.push_back(held);
    }
    EXPECT_GT(noise(f, 0), 2.5);
}

TEST(Spikes, OneTwoAndThreeSamplesAreBridgedByAStraightLine) {
    for (const std::size_t width : {1U, 2U, 3U}) {
        std::vector<double> f;
        for (int i = 0; i < 100; ++i)
            f.push_back(10.0 * i);
        for (std::size_t k = 0; k < width; ++k)
            f[50 + k] += 900;
        const auto found = removeSpikes(f, 1, 0);
        ASSERT_EQ(found.size(), width);
        for (std::size_t k = 0; k < width; ++k)
            EXPECT_NEAR(f[50 + k], 10.0 * static_cast<double>(50 + k), 1e-9) << width;
    }
}

TEST(Spikes, ARealPeakOfFourSamplesAndTheDropAtBreakSurvive) {
    std::vector<double> f(100, 0.0);
    for (std::size_t i = 50; i < 54; ++i)
        f[i] = 400;
    auto kept = f;
    EXPECT_TRUE(removeSpikes(kept, 1, 0).empty());
    EXPECT_EQ(kept, f);
    auto drop = brittle().load;
    const auto before = drop;
    EXPECT_TRUE(removeSpikes(drop, 1, 0).empty());
    EXPECT_EQ(drop, before);
}

TEST(Spikes, SharpTopOfASampledRampIsNoSpike) {
    std::vector<double> f;
    for (int i = 0; i < 60; ++i)
        f.push_back(i < 30 ? 10.0 * i : 600 - 10.0 * i);
    EXPECT_TRUE(removeSpikes(f, 0.1, 0).empty());
}

TEST(Spikes, DownwardSpikesAndSpikesNearTheEnds) {
    std::vector<double> f(60, 100.0);
    f[2] = -500;
    f[57] = 900;
    EXPECT_EQ(removeSpikes(f, 1, 0), (std::vector<std::size_t>{2, 57}));
    EXPECT_EQ(f, std::vector<double>(60, 100.0));
    f[0] = 900; // has no neighbour on one side: cannot be told from a step
    EXPECT_TRUE(removeSpikes(f, 1, 0).empty());
}

TEST(Spikes, FiveSamplesUpAndGoneIsAPull) {
    for (const std::size_t samples : {4U, 5U, 7U, 12U}) {
        std::vector<double> f(100, 3.0);
        for (std::size_t i = 0; i < samples; ++i)
            f[50 + i] = 3 + 1000.0 * static_cast<double>(i + 1) / static_cast<double>(samples);
        const auto before = f;
        EXPECT_TRUE(removeSpikes(f, 1, 0).empty()) << samples;
        EXPECT_EQ(f, before) << samples;
    }
}

TEST(Spikes, TheLongestIsTriedFirstAndNeighboursDoNotHideEachOther) {
    std::vector<double> f(100, 10.0), flat = f;
    f[40] = f[41] = f[42] = 800; // one event of three, not three of one
    f[45] = -600;
    EXPECT_EQ(removeSpikes(f, 1, 0), (std::vector<std::size_t>{40, 41, 42, 45}));
    EXPECT_EQ(f, flat);
}

TEST(Spikes, AStepIsNone) { // the signal does not come back
    std::vector<double> f(100, 10.0);
    for (std::size_t i = 50; i < 100; ++i)
        f[i] = 500;
    const auto before = f;
    EXPECT_TRUE(removeSpikes(f, 1, 0).empty());
    EXPECT_EQ(f, before);
}

TEST(Resolution, AScaleThatHoldsStillBetweenLargeSteps) { // 1 N steps at ten readings a second
    std::vector<double> f;
    for (int i = 0; i < 40; ++i)
        f.push_back(std::round(0.4 * (i % 3)));
    for (int i = 0; i < 30; ++i)
        f.push_back(std::round(17.3 * i));
    for (int i = 0; i < 30; ++i)
        f.push_back(500 + (i % 4 == 0));
    EXPECT_EQ(resolution(f), 1);
    for (auto& v : f)
        v = v * 9.80665; // the same in kilograms-force
    EXPECT_NEAR(resolution(f), 9.80665, 1e-9);
}

TEST(Noise, HumAtAHighRateIsNoise) {
    std::vector<double> f, time;
    for (int i = 0; i < 170000; ++i) {
        time.push_back(i / 20000.0);
        f.push_back(0.05 * i + 4 * std::sin(2 * 3.14159265358979 * 50 * i / 20000));
    }
    EXPECT_EQ(longestLag(time), 400U);
    EXPECT_LT(noise(f, 0), 0.2) << "between near samples it does not show";
    EXPECT_GT(noise(f, 0, longestLag(time)), 4 / std::sqrt(2.0));
}

} // namespace
