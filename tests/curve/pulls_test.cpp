// One piece or several: where a log under one clock is cut.
#include "shapes.h"

#include <algorithm>
#include <anvil/curve/reading.h>
#include <gtest/gtest.h>

using namespace anvil::curve;

namespace {

/// Appends a move to a displacement (m), the force along `force(x)`, at 1 mm/s and 50 samples a second.
template <class Force> void move(Curve& c, double to, Force load) {
    const double from = c.travel.empty() ? 0 : c.travel.back();
    const int n = std::max(1, static_cast<int>(std::abs(to - from) / 0.00002));
    for (int i = 1; i <= n; ++i) {
        const double x = from + (to - from) * i / n;
        c.time.push_back(static_cast<double>(c.time.size()) * 0.02);
        c.travel.push_back(x);
        c.load.push_back(load(x));
    }
}

void wait(Curve& c, double seconds, double load = 0) {
    const double x = c.travel.empty() ? 0 : c.travel.back();
    for (int i = 0; i < seconds * 50; ++i) {
        c.time.push_back(static_cast<double>(c.time.size()) * 0.02);
        c.travel.push_back(x);
        c.load.push_back(load);
    }
}

const auto spring = [](double x) { return 5e5 * x; };
const auto nothing = [](double) { return 0.0; };

Curve withoutDisplacement(Curve c) {
    c.travel.clear();
    return c;
}

TEST(Pulls, PiecesThatBrokeAreRunsOfTheirOwn) {
    Curve c;
    for (int piece = 0; piece < 3; ++piece) {
        wait(c, 2);
        move(c, 0.004 + 0.0003 * piece, spring);
        move(c, 0.006, nothing);
        move(c, 0, nothing);
    }
    wait(c, 2);
    for (const auto& log : {c, withoutDisplacement(c)}) {
        const auto pulls = splitAtPulls(log);
        ASSERT_EQ(pulls.size(), 3U);
        std::size_t samples = 0;
        for (std::size_t k = 0; k < 3; ++k) {
            samples += pulls[k].load.size();
            const auto r = read(pulls[k]);
            ASSERT_TRUE(r);
            EXPECT_NEAR(r->peak.load, 2000 + 150.0 * static_cast<double>(k), 1e-6);
        }
        EXPECT_EQ(samples, log.load.size()) << "not a sample is lost in cutting";
    }
}

TEST(Pulls, APieceLetDownAndLoadedAgainIsOne) {
    Curve c;
    wait(c, 2);
    move(c, 0.002, spring);
    move(c, 0, spring); // bedding in
    wait(c, 3);
    move(c, 0.003, spring);
    wait(c, 5, 1500); // proof load
    move(c, 0.0001, spring);
    wait(c, 2, 50);
    move(c, 0.004, spring);
    move(c, 0.006, nothing);
    EXPECT_TRUE(splitAtPulls(c).empty());
    EXPECT_TRUE(splitAtPulls(withoutDisplacement(c)).empty());
    const auto r = read(c);
    ASSERT_TRUE(r);
    EXPECT_NEAR(r->peak.load, 2000, 1e-6);
    EXPECT_FALSE(r->firstSlip) << "let down on purpose";
    EXPECT_FALSE(read(withoutDisplacement(c))->firstSlip);
    EXPECT_TRUE(r->breakPoint);
}

TEST(Pulls, PiecesThatSlideOutAreToldByTheDisplacementThatGoesBack) {
    Curve c;
    const auto slide = [](double x) { return std::max(0.0, 2000 - 4e5 * (x - 0.004)); };
    for (int piece = 0; piece < 2; ++piece) {
        wait(c, 2);
        move(c, 0.004, spring);
        move(c, 0.010, slide); // as slowly down as it went up
        move(c, 0, nothing);
    }
    EXPECT_EQ(splitAtPulls(c).size(), 2U);
    EXPECT_TRUE(splitAtPulls(withoutDisplacement(c)).empty()) << "nobody can tell: it stays whole";
}

TEST(Pulls, CycledPiecesAreCutBetweenAndNotWithin) {
    Curve c;
    for (int piece = 0; piece < 2; ++piece) {
        wait(c, 2);
        move(c, 0.002, spring);
        move(c, 0, spring);
        wait(c, 2);
        move(c, 0.004, spring);
        move(c, 0.006, nothing);
        move(c, 0, nothing);
    }
    EXPECT_EQ(splitAtPulls(c).size(), 2U);
}

TEST(Pulls, APartKeepsAllChannels) {
    Curve c;
    wait(c, 1, 7);
    c.others.push_back({"leg", "N", c.load});
    const auto p = part(c, 10, 30);
    EXPECT_EQ(p.time.size(), 20U);
    EXPECT_EQ(p.travel.size(), 20U);
    ASSERT_EQ(p.others.size(), 1U);
    EXPECT_EQ(p.others[0].values.size(), 20U);
    EXPECT_EQ(p.time[0], c.time[10]);
}

TEST(Pulls, AProofLoadThatIsTakenOffDoesNotBreak) {
    Curve c;
    wait(c, 2);
    move(c, 0.003, spring);
    wait(c, 3, 1500);
    move(c, 0, spring);
    const auto r = read(c);
    ASSERT_TRUE(r);
    EXPECT_FALSE(r->breakPoint);
    EXPECT_FALSE(r->offScale) << "held at a level, not clipped";
    EXPECT_TRUE(r->warnings.empty()) << r->warnings.front();
    EXPECT_NEAR(r->peak.time, 2 + 3 + 1.5, 0.3) << "of a tied top the middle";
}

TEST(Pulls, APlateauFarBelowTheLimitCountsAndNearItIsTheLimit) {
    Curve c;
    wait(c, 2);
    move(c, 0.003, spring);
    move(c, 0.006, [](double) { return 1500.0; });
    move(c, 0.007, nothing);
    ReadingSettings s;
    EXPECT_TRUE(read(c, s)->offScale) << "no limit is known";
    s.rigLimit = 5000;
    EXPECT_FALSE(read(c, s)->offScale);
    ASSERT_EQ(read(c, s)->warnings.size(), 1U);
    EXPECT_NE(read(c, s)->warnings[0].find("counts as a plateau, at 30 % of the limit"), std::string::npos)
        << read(c, s)->warnings[0];
    s.rigLimit = 1600;
    EXPECT_TRUE(read(c, s)->offScale);
}

} // namespace
