#include <anvil/curve/average.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::curve {
namespace {

/// A straight rise to a peak at `peakX` m and a straight fall to nothing at `endX`, 1000 samples a second.
ReadCurve triangle(double peak, double peakX, double endX, bool travel = true) {
    Curve raw;
    constexpr int before = 200;
    constexpr double speed = 0.001; // m/s
    const int n = static_cast<int>(std::lround(endX / speed * 1000));
    for (int i = -before; i <= n; ++i) {
        const double x = speed * i / 1000;
        raw.time.push_back((i + before) / 1000.0);
        if (travel) raw.travel.push_back(x);
        raw.load.push_back(x < 0 ? 0 : x < peakX ? peak * x / peakX : peak * (endX - x) / (endX - peakX));
    }
    return readAndKeep(raw).value();
}

TEST(Average, ItsPeakIsTheMeanOfThePeaks) {
    const std::vector<ReadCurve> all{triangle(1000, 0.004, 0.009), triangle(1300, 0.005, 0.012),
                                     triangle(800, 0.0035, 0.007)};
    std::vector<const ReadCurve*> curves;
    double peaks = 0, places = 0;
    for (const auto& c : all) {
        curves.push_back(&c);
        peaks += c.reading.peak.load / 3;
        places += *c.reading.peak.travel / 3;
    }
    const auto a = averaged(curves);
    ASSERT_TRUE(a);
    EXPECT_TRUE(a->toTheBreak);
    EXPECT_NEAR(a->load[a->peak], peaks, 1e-9 * peaks);
    EXPECT_NEAR(a->x[a->peak], places, 1e-12);
    EXPECT_NEAR(*std::max_element(a->load.begin(), a->load.end()), peaks, 1e-9 * peaks)
        << "nothing lies higher";
    EXPECT_TRUE(std::is_sorted(a->x.begin(), a->x.end()));
    // Straight lines stay straight: at half the way up half of the mean peak.
    EXPECT_NEAR(a->load[a->peak / 2], peaks / 2, 0.01 * peaks);
    const double sd =
        std::sqrt((std::pow(1000 - peaks, 2) + std::pow(1300 - peaks, 2) + std::pow(800 - peaks, 2)) / 2);
    EXPECT_NEAR(a->high[a->peak] - a->load[a->peak], sd, 0.01 * sd);
    EXPECT_NEAR(a->least[a->peak], 800, 1);
    EXPECT_NEAR(a->greatest[a->peak], 1300, 2);
}

TEST(Average, ThePlainMeanSmearsThePeak) {
    const auto a = triangle(1000, 0.004, 0.009), b = triangle(1000, 0.006, 0.012);
    const auto plain = plainMean({&a, &b});
    ASSERT_TRUE(plain);
    // By hand, where a has fallen for a while and b still rises: the mean is greatest at 0.006: (600 +
    // 1000)/2, or at 0.004: (1000 + 667)/2 = 833.
    EXPECT_NEAR(plain->bias, 1000 - 833.3, 5);
}

TEST(Average, OfOneIsItselfAndOfNoneNothing) {
    const auto a = triangle(1000, 0.004, 0.009);
    const auto one = averaged({&a});
    ASSERT_TRUE(one);
    EXPECT_EQ(one->curves, 1u);
    EXPECT_NEAR(one->load[one->peak], a.reading.peak.load, 1e-9);
    EXPECT_EQ(one->low, one->load);
    EXPECT_FALSE(averaged({}));
    EXPECT_FALSE(plainMean({}));
}

TEST(Average, WithoutTravelInOneAllAreAgainstTime) {
    const auto a = triangle(1000, 0.004, 0.009), b = triangle(1200, 0.005, 0.011, false);
    const auto both = averaged({&a, &b});
    ASSERT_TRUE(both);
    EXPECT_TRUE(both->againstTime);
    EXPECT_NEAR(both->x[both->peak], 4.5, 0.05) << "s from the departure";
    EXPECT_NEAR(both->load[both->peak], (a.reading.peak.load + b.reading.peak.load) / 2, 1e-9);
}

} // namespace
} // namespace anvil::curve
