#include <anvil/stats/power.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil::stats;

namespace {

// Published one-sided tolerance factors (Natrella 1963, table A-7; Owen 1968).
TEST(Power, ToleranceFactorsAgainstPublishedTables) {
    EXPECT_NEAR(toleranceFactor(5, 0.90, 0.95), 3.407, 5e-4);
    EXPECT_NEAR(toleranceFactor(5, 0.99, 0.95), 5.741, 2e-3);
    EXPECT_NEAR(toleranceFactor(10, 0.90, 0.95), 2.355, 5e-4);
    EXPECT_NEAR(toleranceFactor(10, 0.99, 0.95), 3.981, 5e-4);
}

TEST(Power, WhatMeanMinusThreeSdPromises) {
    EXPECT_NEAR(confidenceOfFloor(5, 3, 0.99), 0.65, 0.005);
    EXPECT_NEAR(confidenceOfFloor(5, 3, 0.90), 0.92, 0.005);
    for (const int n : {3, 5, 10, 30})
        EXPECT_NEAR(confidenceOfFloor(n, toleranceFactor(n, 0.95, 0.9), 0.95), 0.9, 1e-9);
}

TEST(Power, DetectableDifferenceIsTheInverse) {
    for (const double cv : {0.03, 0.12, 0.4})
        for (const int n : {2, 3, 5, 7, 20}) {
            const double d = *detectableDifference(n, cv);
            EXPECT_NEAR(powerOf(n, cv, d), 0.8, 1e-6);
            EXPECT_EQ(*replicatesFor(cv, d * (1 + 1e-9)), n);
        }
    EXPECT_FALSE(detectableDifference(1, 0.1));
    EXPECT_FALSE(detectableDifference(5, 0));
}

TEST(Power, ReplicatesForAFloor) {
    const int n = *replicatesForFloor(0.05, 0.12); // k(n) ≤ 2.4
    EXPECT_LE(toleranceFactor(n, 0.9, 0.95), 2.4);
    EXPECT_GT(toleranceFactor(n - 1, 0.9, 0.95), 2.4);
    EXPECT_FALSE(replicatesForFloor(0.5, 0.1)) << "1.28 CV is the best any number of pulls can do";
}

// The next value of a normal sample exceeds the limit in 5 % of cases: 40 000 samples of four, standard error
// 0.11 %.
TEST(Power, UpperPredictionCoversNinetyFivePercent) {
    std::uint64_t state = 99;
    const auto uniform = [&] {
        state = state * 6364136223846793005ULL + 1442695040888963407ULL;
        return (static_cast<double>(state >> 11) + 0.5) * 0x1.0p-53;
    };
    const auto normal = [&] {
        return std::sqrt(-2 * std::log(uniform())) * std::cos(6.283185307179586 * uniform());
    };
    int above = 0;
    constexpr int rounds = 40000;
    for (int r = 0; r < rounds; ++r) {
        double m = 0, q = 0;
        for (int i = 0; i < 4; ++i) {
            const double x = normal();
            m += x / 4;
            q += x * x;
        }
        above += normal() > upperPrediction(m, std::sqrt((q - 4 * m * m) / 3), 4);
    }
    EXPECT_NEAR(static_cast<double>(above) / rounds, 0.05, 0.005);
}

} // namespace
