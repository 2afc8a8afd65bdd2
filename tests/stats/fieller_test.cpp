#include "stats/exact_values.h"

#include <anvil/stats/fieller.h>
#include <cmath>
#include <gtest/gtest.h>

namespace anvil::stats {
namespace {

/// An end e of the interval is where (ma − e·mb)² = t²·(va + e²·vb): by hand, not by the formula of the code.
TEST(Fieller, ItsEndsSolveTheirEquation) {
    const auto a = summarise(exact({412, 431, 398, 420})), b = summarise(exact({305, 319, 290}));
    const auto ends = fiellerInterval(a, b);
    ASSERT_TRUE(ends);
    const double va = *a.sd * *a.sd / 4, vb = *b.sd * *b.sd / 3, r = *a.mean / *b.mean;
    const double df = std::pow(va + r * r * vb, 2) / (va * va / 3 + std::pow(r * r * vb, 2) / 2);
    const double t = studentQuantile(df, 0.975);
    for (const double e : {ends->first, ends->second})
        EXPECT_NEAR(std::pow(*a.mean - e * *b.mean, 2), t * t * (va + e * e * vb), 1e-6);
    EXPECT_LT(ends->first, r);
    EXPECT_GT(ends->second, r);
}

TEST(Fieller, SaysNothingWhereTheSecondMayBeNothing) {
    const auto a = summarise(exact({10, 11, 12})), wide = summarise(exact({1, 9, 20}));
    EXPECT_FALSE(fiellerInterval(a, wide));
    EXPECT_FALSE(fiellerInterval(a, summarise(exact({5}))));
    EXPECT_FALSE(fiellerInterval(a, summarise(exact({-5, -6}))));
    const auto flat = fiellerInterval(summarise(exact({4, 4})), summarise(exact({2, 2})));
    ASSERT_TRUE(flat);
    EXPECT_DOUBLE_EQ(flat->first, 2);
    EXPECT_DOUBLE_EQ(flat->second, 2);
}

} // namespace
} // namespace anvil::stats
