// Calibration tables, known weights, ratios of a load path.
#include <anvil/rig/setup.h>
#include <cmath>
#include <gtest/gtest.h>
#include <numbers>

using namespace anvil;
using namespace anvil::rig;

namespace {

TEST(Calibration, StraightTableGivesItsLine) {
    const auto c = *Calibration::make({{0, 0}, {10, 100}, {20, 200}, {30, 300}});
    EXPECT_NEAR(c(12.5).value, 125, 1e-9);
    EXPECT_TRUE(c(12.5).inside);
    EXPECT_NEAR(c(40).value, 400, 1e-9) << "the last chord goes on";
    EXPECT_FALSE(c(40).inside);
    EXPECT_FALSE(c(-1).inside);
    const auto line = *c.line();
    EXPECT_NEAR(line.slope, 10, 1e-12);
    EXPECT_NEAR(line.worst, 0, 1e-9);
}

TEST(Calibration, CurvedScaleStaysMonotoneAndMeetsItsPoints) {
    // A tension meter: hand-worked points of y = x² + x.
    const auto c = *Calibration::make({{1, 2}, {2, 6}, {3, 12}, {5, 30}, {8, 72}});
    for (const auto& p : c.points())
        EXPECT_NEAR(c(p.reading).value, p.truth, 1e-9);
    double last = -1e9;
    for (double x = 0; x < 12; x += 0.01) {
        EXPECT_GT(c(x).value, last);
        last = c(x).value;
    }
    EXPECT_NEAR(c(4).value, 20, 0.6) << "PCHIP through the neighbours of the true 20";
    // Residuals off the least-squares line, by hand: x̄ = 3.8, ȳ = 24.4, Sxx = 30.8, Sxy = 312.4.
    const auto line = *c.line();
    EXPECT_NEAR(line.slope, 312.4 / 30.8, 1e-9);
    EXPECT_NEAR(line.residuals[0], 2 - (24.4 + 312.4 / 30.8 * (1 - 3.8)), 1e-9);
}

TEST(Calibration, BadTablesAreExplained) {
    EXPECT_TRUE(Calibration::make({})->empty());
    EXPECT_NE(Calibration::make({{1, 1}}).error().message.find("at least two"), std::string::npos);
    EXPECT_NE(Calibration::make({{1, 1}, {1, 2}}).error().message.find("stands twice"), std::string::npos);
    EXPECT_NE(Calibration::make({{1, 1}, {2, 3}, {3, 2}}).error().message.find("turns round"),
              std::string::npos);
    EXPECT_FALSE(Calibration::make({{0, 0}, {1, NAN}}));
    EXPECT_FALSE(Calibration().line());
    const auto falling = Calibration::make({{0, 10}, {1, 5}, {2, 1}});
    ASSERT_TRUE(falling) << "a scale may run the other way";
    EXPECT_NEAR((*falling)(1.5).value, 3, 1e-12);
}

TEST(Check, PassesWithinItsTolerance) {
    const Check good{"2026-05-04", 98.1, 98.6, 0.01};
    EXPECT_TRUE(good.passed());
    EXPECT_EQ(sentence(good, quantity::unit("N")), "Shown 98.60 N for 98.10 N: 0.5 % off, within 1.0 %.");
    EXPECT_FALSE((Check{"", 98.1, 100, 0.01}.passed()));
    EXPECT_FALSE((Check{"", 0, 0, 0.01}.passed()));
}

TEST(Ratio, LeverLineAngleByHand) {
    using K = RatioPart::Kind;
    // A lever 1.52 m to the cell and 0.10 m to the piece: 15.2; u by (0.005/1.52, 0.002/0.10) → 2.03 %.
    const auto lever = *ratioOf(std::vector<RatioPart>{{K::lever, 1.52, 0.10, 0.005, 0.002, 0}});
    EXPECT_NEAR(lever.value, 15.2, 1e-9);
    EXPECT_NEAR(lever.uncertainty, 15.2 * std::hypot(0.005 / 1.52, 0.002 / 0.10), 1e-9);
    EXPECT_EQ(sentence(lever), "Reads 1, the specimen feels 15.2 ± 0.3.");
    const auto line = *ratioOf(std::vector<RatioPart>{{K::line, 2, 0.95, 0, 0.02, 0}});
    EXPECT_NEAR(line.value, 1.95, 1e-12) << "1 + e";
    EXPECT_NEAR(line.uncertainty, 0.02, 1e-12) << "d(1 + e)/de = 1";
    const auto three = *ratioOf(std::vector<RatioPart>{{K::line, 3, 0.9, 0, 0.02, 0}});
    EXPECT_NEAR(three.value, 1 + 0.9 + 0.81, 1e-12);
    EXPECT_NEAR(three.uncertainty, (1 + 2 * 0.9) * 0.02, 1e-12);
    const auto angle = *ratioOf(std::vector<RatioPart>{{K::angle, std::numbers::pi / 3, 1, 0, 0, 0}});
    EXPECT_NEAR(angle.value, 0.5, 1e-12);
    const auto both = *ratioOf(std::vector<RatioPart>{{K::lever, 2, 1, 0, 0, 30}, {K::line, 2, 1, 0, 0, 0}});
    EXPECT_NEAR(both.value, 4, 1e-12);
    EXPECT_NEAR(both.offset, 60, 1e-12) << "the lever's 30 N at its end, doubled by the line";
    EXPECT_NEAR(both.specimen(100), 460, 1e-9);
    EXPECT_EQ(ratioOf({})->value, 1);
}

TEST(Ratio, ImpossiblePartsAreExplained) {
    using K = RatioPart::Kind;
    for (const auto& p : {RatioPart{K::lever, 0, 1, 0, 0, 0}, RatioPart{K::line, 2.5, 1, 0, 0, 0},
                          RatioPart{K::line, 2, 1.2, 0, 0, 0}, RatioPart{K::angle, 1.6, 1, 0, 0, 0},
                          RatioPart{K::plain, 0, 1, 0, 0, 0}})
        EXPECT_FALSE(ratioOf(std::vector<RatioPart>{p}));
}

TEST(Ratio, PivotCheckByHand) {
    // 400 N, centre 1.0 m from the foot, lifted 2.5 m from it: 160 N.
    EXPECT_NEAR(*pivotLift(400, 1.0, 0, 2.5), 160, 1e-12);
    EXPECT_NEAR(*pivotLift(400, 2.5, 0, 2.5), 400, 1e-12) << "lifted at its centre";
    EXPECT_FALSE(pivotLift(400, 1, 0, 0));
    EXPECT_FALSE(pivotLift(400, -1, 0, 2));
    EXPECT_FALSE(pivotLift(0, 1, 0, 2));
}

} // namespace
