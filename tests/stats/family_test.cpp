#include "stats/exact_values.h"

#include <anvil/stats/floors.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::stats {
namespace {

TEST(Family, KeysAndStandardQuantiles) {
    for (const auto family : {Family::normal, Family::lognormal, Family::weibull})
        EXPECT_EQ(familyFromKey(key(family)), family);
    EXPECT_FALSE(familyFromKey("gumbel"));
    EXPECT_NEAR(standardQuantile(Family::normal, 0.975), 1.959963984540054, 1e-12); // tables
    EXPECT_NEAR(standardQuantile(Family::lognormal, 0.1), -1.2815515655446004, 1e-12);
    EXPECT_NEAR(standardQuantile(Family::weibull, 1 - std::exp(-1.0)), 0, 1e-12); // at its scale
}

TEST(Floors, OneAloneIsTheSame) {
    const auto values = exact({96, 104, 100, 99, 108});
    const auto all = floorsOf(values);
    EXPECT_EQ(floorOf(Family::normal, values, 0.90, 0.95), all.normal90_95);
    EXPECT_EQ(floorOf(Family::normal, values, 0.99, 0.95), all.normal99_95);
    EXPECT_EQ(floorOf(Family::lognormal, values, 0.90, 0.95), all.lognormal90_95);
    EXPECT_EQ(floorOf(Family::weibull, values, 0.90, 0.95), all.weibull90_95);
    EXPECT_FALSE(floorOf(Family::normal, exact({1, 2}), 0.9, 0.95));
}

} // namespace
} // namespace anvil::stats
