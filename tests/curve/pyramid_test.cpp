#include "shapes.h"

#include <algorithm>
#include <anvil/curve/pyramid.h>
#include <gtest/gtest.h>

using namespace anvil::curve;

namespace {

struct Long {
    std::vector<double> x, y;
    explicit Long(std::size_t n) {
        Noise random(n);
        for (std::size_t i = 0; i < n; ++i) {
            x.push_back(static_cast<double>(i));
            y.push_back(random.normal());
        }
    }
};

// Against the plain search over the same stretch.
TEST(Pyramid, RangesAreExact) {
    for (const std::size_t n : {1U, 63U, 64U, 65U, 5000U, 40000U}) {
        const Long s(n);
        const Pyramid p(s.y);
        Noise random(9);
        for (int round = 0; round < 300; ++round) {
            auto a = static_cast<std::size_t>(random.uniform() * static_cast<double>(n)),
                 b = static_cast<std::size_t>(random.uniform() * static_cast<double>(n));
            if (a > b) std::swap(a, b);
            ++b;
            const auto [low, high] = std::minmax_element(s.y.begin() + static_cast<std::ptrdiff_t>(a),
                                                         s.y.begin() + static_cast<std::ptrdiff_t>(b));
            EXPECT_EQ(p.range(s.y, a, b), (Pyramid::Range{*low, *high})) << n << " " << a << " " << b;
        }
    }
}

TEST(Pyramid, AtMostFourPointsAColumnAndNothingOfTheExtremesLost) {
    const Long s(100000);
    const Pyramid p(s.y);
    const auto points = p.draw(s.x, s.y, 0, 99999, 500);
    EXPECT_LE(points.size(), 2000U);
    const auto byY = [](const auto& a, const auto& b) { return a.y < b.y; };
    EXPECT_EQ(std::max_element(points.begin(), points.end(), byY)->y,
              *std::max_element(s.y.begin(), s.y.end()));
    EXPECT_EQ(std::min_element(points.begin(), points.end(), byY)->y,
              *std::min_element(s.y.begin(), s.y.end()));
    EXPECT_TRUE(
        std::is_sorted(points.begin(), points.end(), [](const auto& a, const auto& b) { return a.x < b.x; }));
}

TEST(Pyramid, ExactAtFullZoom) {
    const Long s(100000);
    const auto points = Pyramid(s.y).draw(s.x, s.y, 5000, 5200, 500);
    ASSERT_EQ(points.size(), 203U) << "the samples in view and one on each side";
    for (const auto& q : points)
        EXPECT_EQ(q.y, s.y[static_cast<std::size_t>(q.x)]);
}

TEST(Pyramid, OddCasesDrawNothing) {
    const Pyramid empty;
    EXPECT_TRUE(empty.draw({}, {}, 0, 1, 100).empty());
    const Long s(10);
    EXPECT_TRUE(Pyramid(s.y).draw(s.x, s.y, 3, 3, 100).empty());
    EXPECT_TRUE(Pyramid(s.y).draw(s.x, s.y, 0, 9, 0).empty());
}

} // namespace
