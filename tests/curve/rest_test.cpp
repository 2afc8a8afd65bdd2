// What the level after the pull says of the zero; gaps of the clock; the side of the pull.
#include <anvil/curve/reading.h>
#include <cmath>
#include <gtest/gtest.h>
#include <random>

using namespace anvil::curve;

namespace {

constexpr double dt = 0.05, peak = 2000;
constexpr std::size_t quiet = 80, broke = 500, count = 600;

/// Quiet, a ramp to 2 kN, a break that leaves 1 %, with noise of 1 N.
Curve pull(double left = 0.01) {
    std::mt19937 random(5);
    std::normal_distribution<double> noise(0, 1);
    Curve c;
    for (std::size_t i = 0; i < count; ++i) {
        c.time.push_back(static_cast<double>(i) * dt);
        const double f = i < quiet ? 0
                         : i < broke
                             ? peak * static_cast<double>(i - quiet) / static_cast<double>(broke - 1 - quiet)
                             : left * peak;
        c.load.push_back(f + noise(random));
    }
    return c;
}

bool says(const std::vector<std::string>& all, const char* what) {
    return std::any_of(all.begin(), all.end(),
                       [&](const auto& w) { return w.find(what) != std::string::npos; });
}

TEST(Rest, AnHonestPullIsLeftAlone) {
    for (const double left : {0.0, 0.01, 0.06, 0.3}) {
        const auto r = read(pull(left));
        ASSERT_TRUE(r);
        EXPECT_NEAR(r->peak.load, peak, 5) << left;
        EXPECT_FALSE(says(r->warnings, "zero")) << left;
        EXPECT_FALSE(r->guessed);
    }
}

TEST(Rest, AZeroSetAgainUnderLoadIsTakenBack) {
    for (const std::size_t at : {std::size_t{200}, std::size_t{400}}) {
        auto c = pull();
        const double step = c.load[at];
        for (std::size_t i = at; i < count; ++i)
            c.load[i] -= step;
        const auto r = read(c);
        ASSERT_TRUE(r);
        EXPECT_NEAR(r->peak.load, peak, 12) << at;
        EXPECT_NEAR(r->peak.time, (broke - 1) * dt, 2 * dt);
        EXPECT_TRUE(says(r->warnings, "set again under load")) << at;
        EXPECT_FALSE(r->firstSlip);
        ASSERT_TRUE(r->breakPoint);
        EXPECT_NEAR(r->breakPoint->time, broke * dt, 2 * dt);
    }
}

TEST(Rest, ASlowDriftIsTakenOff) {
    for (const double slope : {3.0, -3.0}) {
        auto c = pull();
        for (std::size_t i = 0; i < count; ++i)
            c.load[i] += 700 + slope * c.time[i];
        const auto r = read(c);
        ASSERT_TRUE(r);
        EXPECT_NEAR(r->peak.load, peak, 0.006 * peak) << slope;
        EXPECT_TRUE(says(r->warnings, "drifted")) << slope;
    }
}

TEST(Rest, AZeroThatMovedWithoutAReasonIsSaid) {
    auto c = pull();
    for (std::size_t i = quiet; i < count; ++i) // over half a minute, and nothing shows where
        c.load[i] -= 300 * std::pow(static_cast<double>(i - quiet) / (count - quiet), 0.2);
    const auto r = read(c);
    ASSERT_TRUE(r);
    EXPECT_TRUE(r->guessed);
    EXPECT_TRUE(says(r->warnings, "peak is a guess")) << testing::PrintToString(r->warnings);
}

TEST(Gaps, AreToldAndMayHoldThePeak) {
    auto c = pull();
    for (std::size_t i = 250; i < count; ++i)
        c.time[i] += 3600;
    const auto low = read(c);
    ASSERT_TRUE(low);
    EXPECT_TRUE(says(low->warnings, "Nothing was logged from 12.45 s to 3612 s, under load."));
    EXPECT_FALSE(low->offScale);
    auto top = pull();
    for (auto* v : {&top.time, &top.load})
        v->erase(v->begin() + 460, v->begin() + 520);
    const auto r = read(top);
    ASSERT_TRUE(r);
    EXPECT_TRUE(r->offScale) << "the peak lies in the gap";
    auto calm = pull();
    for (std::size_t i = 560; i < count; ++i)
        calm.time[i] += 100;
    EXPECT_FALSE(says(read(calm)->warnings, "Nothing was logged")) << "after the pull nobody cares";
}

TEST(Side, ARecoilDoesNotTurnThePullRound) {
    auto c = pull();
    for (std::size_t i = broke; i < broke + 4; ++i)
        c.load[i] = i % 2 ? -1.4 * peak : 0.3 * peak;
    c.load[broke + 1] = c.load[broke + 2] = -1.4 * peak;
    const auto r = read(c);
    ASSERT_TRUE(r);
    EXPECT_FALSE(r->flipped);
    EXPECT_NEAR(r->peak.load, peak, 5);
    for (auto& f : c.load)
        f = -f;
    const auto down = read(c);
    ASSERT_TRUE(down);
    EXPECT_TRUE(down->flipped);
    EXPECT_NEAR(down->peak.load, peak, 5);
}

} // namespace
