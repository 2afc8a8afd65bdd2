// A curve of k times the force reads as k times the reading: no threshold hides a force of its own.
#include <anvil/curve/reading.h>
#include <anvil/sim/specimen.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil;

namespace {

void expectScaled(const curve::Reading& one, const curve::Reading& many, double k, double within) {
    const auto near = [&](double a, double b) { EXPECT_NEAR(b, k * a, within * std::abs(k * a) + 1e-12); };
    near(one.peak.load, many.peak.load);
    EXPECT_EQ(one.peak.index, many.peak.index);
    ASSERT_EQ(one.firstSlip.has_value(), many.firstSlip.has_value());
    if (one.firstSlip) near(one.firstSlip->load, many.firstSlip->load);
    ASSERT_EQ(one.breakPoint.has_value(), many.breakPoint.has_value());
    if (one.breakPoint) {
        EXPECT_EQ(one.breakPoint->index, many.breakPoint->index);
    }
    ASSERT_EQ(one.stiffness.has_value(), many.stiffness.has_value());
    if (one.stiffness) near(one.stiffness->value, many.stiffness->value);
    ASSERT_EQ(one.energyToPeak.has_value(), many.energyToPeak.has_value());
    if (one.energyToPeak) near(*one.energyToPeak, *many.energyToPeak);
    ASSERT_EQ(one.residual.has_value(), many.residual.has_value());
    if (one.residual) near(one.residual->load, many.residual->load);
    EXPECT_EQ(one.spikes, many.spikes);
}

TEST(Scaled, KTimesTheForceIsKTimesTheReading) {
    for (const auto& model : sim::allModels)
        for (std::uint64_t seed = 1; seed <= 10; ++seed) {
            const auto bench = sim::typicalBench(model, seed);
            const auto raw = sim::pull(bench.specimen, bench.logger, seed).curve;
            const auto one = curve::read(raw);
            ASSERT_TRUE(one);
            for (const double k : {0.25, 8.0}) { // exact in binary
                auto scaled = raw;
                for (auto& f : scaled.load)
                    f *= k;
                const auto many = curve::read(scaled);
                ASSERT_TRUE(many);
                SCOPED_TRACE(testing::Message()
                             << "model " << static_cast<int>(model) << ", seed " << seed << ", k " << k);
                expectScaled(*one, *many, k, 1e-9);
            }
        }
}

} // namespace
