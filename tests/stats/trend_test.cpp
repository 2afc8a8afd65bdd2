#include <anvil/stats/trend.h>

#include <cmath>
#include <gtest/gtest.h>
#include <vector>

namespace anvil::stats {
namespace {

// Anscombe's first set (1973): slope 0.5001, intercept 3.0001, standard error 0.1179, p = 0.00217.
TEST(LinearTrend, AnscombesFirstSet) {
    const std::vector<double> x{10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5},
        y{8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68};
    const auto t = linearTrend(x, y);
    ASSERT_TRUE(t);
    EXPECT_NEAR(t->slope, 0.5001, 5e-5);
    EXPECT_NEAR(t->intercept, 3.0001, 5e-5);
    EXPECT_NEAR(t->slopeError, 0.1179, 5e-5);
    EXPECT_NEAR(*t->p, 0.00217, 5e-6);
}

TEST(LinearTrend, ByHandAndAtTheEdges) {
    const std::vector<double> x{0, 1, 2}, line{5, 7, 9}, y{1, 3, 2};
    const auto exact = linearTrend(x, line);
    EXPECT_DOUBLE_EQ(exact->slope, 2);
    EXPECT_FALSE(exact->p) << "no scatter, so nothing to test against";
    EXPECT_NEAR(linearTrend(x, y)->slope, 0.5, 1e-12);
    EXPECT_NEAR(linearTrend(x, y)->slopeError, std::sqrt(1.5 / 2), 1e-12);
    EXPECT_FALSE(linearTrend(std::vector<double>{1, 2}, std::vector<double>{1, 2}));
    EXPECT_FALSE(linearTrend(std::vector<double>{4, 4, 4}, y)) << "no spread in x";
    const auto flat = linearTrend(x, std::vector<double>{3, 3, 3});
    EXPECT_EQ(flat->slope, 0);
    EXPECT_FALSE(flat->p);
}

} // namespace
} // namespace anvil::stats
