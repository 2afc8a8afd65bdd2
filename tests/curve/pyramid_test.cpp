#include "shapes.h"

#include <algorithm>
#include <anvil/curve/pyramid.h>
#include <gtest/gtest.h>
#include <random>

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

/// A signal that comes in pieces makes the same pyramid; its first level is looked at by hand.
TEST(Pyramid, PiecesOfAnyLengthMakeTheSame) {
    std::mt19937 random(11);
    for (const std::size_t n : {0, 1, 63, 64, 65, 511, 512, 513, 40000}) {
        const Long s(n);
        for (int time = 0; time < 10; ++time) {
            Pyramid::Builder builder;
            for (std::size_t from = 0; from < n;) {
                const auto piece =
                    std::min<std::size_t>(n - from, random() % (time < 5 ? 5U : 1000U)); // empty ones too
                builder.add(std::span(s.y).subspan(from, piece));
                from += piece;
            }
            const auto pyramid = builder.done();
            ASSERT_EQ(pyramid.levels(), Pyramid(s.y).levels()) << n;
            if (n == 0) continue;
            ASSERT_EQ(pyramid.levels()[0].size(), (n + Pyramid::base - 1) / Pyramid::base);
            const auto last = (n - 1) / Pyramid::base * Pyramid::base;
            const auto [low, high] =
                std::minmax_element(s.y.begin() + static_cast<std::ptrdiff_t>(last), s.y.end());
            EXPECT_EQ(pyramid.levels()[0].back(), (Pyramid::Range{*low, *high}));
            builder.add(std::span(s.y).first(1));
            EXPECT_EQ(builder.done().levels(), Pyramid(std::span(s.y).first(1)).levels())
                << "and can begin anew";
        }
    }
}

} // namespace
