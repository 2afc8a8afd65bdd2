#include <anvil/words/values.h>
#include <gtest/gtest.h>
#include <vector>

using namespace anvil;
using namespace anvil::words;

namespace {

TEST(Values, BoundsAndIntervals) {
    const auto& kN = quantity::unit("kN");
    stats::Summary s;
    EXPECT_EQ(meanText(s, kN), "–");
    s = stats::summarise(
        std::vector<stats::Value>{{4000, stats::Bound::exact, 0}, {4100, stats::Bound::above, 0}});
    EXPECT_EQ(meanText(s, kN), "at least 4.050 kN");
    EXPECT_EQ(intervalText(s, kN), "needs three exact values");
    EXPECT_EQ(countText(s), "1 + 1 at least");
    EXPECT_EQ(intervalText(stats::summarise(std::vector<stats::Value>{{4000, stats::Bound::exact, 0}}), kN),
              "needs two pulls");
    EXPECT_EQ(valueText({4000, stats::Bound::between, 5000}, kN), "4.000 to 5.000 kN");
    EXPECT_EQ(valueText({4000, stats::Bound::below, 0}, kN), "at most 4.000 kN");
    EXPECT_EQ(valueText({4000, stats::Bound::exact, 0}, kN, true), "~4.000 kN");
    EXPECT_EQ(valueText({4000, stats::Bound::above, 0}, kN, true), "at least ~4.000 kN");
    EXPECT_EQ(valueText({4000, stats::Bound::between, 5000}, kN, true), "~4.000 to ~5.000 kN");
}

} // namespace
