// Measures on pictures of known geometry: planes seen square on and from the side by a made-up camera.
#include <anvil/methods/picture.h>
#include <anvil/quantity/print.h>
#include <cmath>
#include <gtest/gtest.h>
#include <numbers>
#include <random>

namespace anvil::methods {
namespace {

using quantity::Dimension;

/// A pinhole camera before a plane that is turned about both axes and moved away: place on the plane, m, to
/// px. By rotations and a division, not by a matrix of the plane.
struct Camera {
    double yaw = 0, pitch = 0, away = 3, focal = 2400, cx = 2000, cy = 1500;
    PicturePoint operator()(double x, double y) const {
        const double x1 = x * std::cos(yaw), z1 = x * std::sin(yaw);
        const double y2 = y * std::cos(pitch) - z1 * std::sin(pitch);
        const double z2 = y * std::sin(pitch) + z1 * std::cos(pitch) + away;
        return {cx + focal * x1 / z2, cy + focal * y2 / z2};
    }
};

PictureScale squareOn(const Camera& camera, double length) {
    return {{camera(0, 0), camera(length, 0)}, length, 0, 0};
}
PictureScale rectangle(const Camera& camera, double wide, double high) {
    return {{camera(0, 0), camera(wide, 0), camera(wide, high), camera(0, high)}, wide, high, 0};
}

TEST(Picture, SquareOnAllIsByOneLength) {
    const Camera camera;
    PictureMarks p{squareOn(camera, 0.3), 1, {}};
    p.marks.push_back({MarkKind::distance, "sag", {camera(0.1, 0.1), camera(0.1, 0.512)}});
    p.marks.push_back(
        {MarkKind::angle, "leg", {camera(0.5, 0), camera(0.2, 0), camera(0.2 + 0.1, 0.1 * std::sqrt(3.0))}});
    p.marks.push_back(
        {MarkKind::area, "crack", {camera(0, 0), camera(0.2, 0), camera(0.2, 0.1), camera(0, 0.1)}});
    EXPECT_NEAR(measureMark(p, 0)->value, 0.412, 1e-12);
    EXPECT_NEAR(measureMark(p, 1)->value, std::numbers::pi / 3, 1e-12);
    EXPECT_NEAR(measureMark(p, 2)->value, 0.02, 1e-12);
    EXPECT_EQ(measureMark(p, 0)->dimension, Dimension::length);
    EXPECT_EQ(measureMark(p, 1)->dimension, Dimension::angle);
    EXPECT_EQ(measureMark(p, 2)->dimension, Dimension::area);
}

TEST(Picture, ARectangleUndoesThePerspectiveOfItsPlane) {
    std::mt19937 random(4);
    std::uniform_real_distribution<> turn(-0.7, 0.7), at(-0.4, 0.9);
    for (int n = 0; n < 200; ++n) {
        const Camera camera{turn(random), turn(random), 3.5};
        PictureMarks p{rectangle(camera, 0.5, 0.4), 1, {}};
        const double ax = at(random), ay = at(random), bx = at(random), by = at(random), cx = at(random),
                     cy = at(random);
        p.marks.push_back({MarkKind::distance, "", {camera(ax, ay), camera(bx, by)}});
        p.marks.push_back({MarkKind::area, "", {camera(ax, ay), camera(bx, by), camera(cx, cy)}});
        p.marks.push_back({MarkKind::angle, "", {camera(ax, ay), camera(bx, by), camera(cx, cy)}});
        const double area = 0.5 * std::abs((bx - ax) * (cy - ay) - (cx - ax) * (by - ay));
        const double u = std::hypot(ax - bx, ay - by), v = std::hypot(cx - bx, cy - by);
        ASSERT_NEAR(measureMark(p, 0)->value, u, 1e-9) << n;
        ASSERT_NEAR(measureMark(p, 1)->value, area, 1e-9) << n;
        const double cosine = ((ax - bx) * (cx - bx) + (ay - by) * (cy - by)) / (u * v);
        ASSERT_NEAR(std::cos(measureMark(p, 2)->value), cosine, 1e-9) << n;
    }
}

TEST(Picture, WhichCornerComesFirstAndWhichWayRoundIsTheSame) {
    const Camera camera{0.4, -0.3, 3};
    const auto mark = PictureMark{MarkKind::distance, "", {camera(0.1, 0.1), camera(0.4, 0.3)}};
    const double truth = std::hypot(0.3, 0.2);
    const auto q = rectangle(camera, 0.5, 0.4).points;
    for (const auto& [points, length, height] : {std::tuple{std::vector{q[0], q[1], q[2], q[3]}, 0.5, 0.4},
                                                 {std::vector{q[1], q[2], q[3], q[0]}, 0.4, 0.5},
                                                 {std::vector{q[3], q[2], q[1], q[0]}, 0.5, 0.4}})
        EXPECT_NEAR(measureMark({{points, length, height, 0}, 1, {mark}}, 0)->value, truth, 1e-9);
}

TEST(Picture, TheUncertaintyIsThatOfManyWorseClicks) {
    const Camera camera{0.3, 0.2, 3};
    PictureMarks p{rectangle(camera, 0.5, 0.4), 2, {}};
    p.scale.doubt = 0.001;
    p.marks.push_back({MarkKind::distance, "", {camera(0.1, 0.05), camera(0.35, 0.3)}});
    p.marks.push_back({MarkKind::angle, "", {camera(0.4, 0.1), camera(0.1, 0.1), camera(0.1, 0.35)}});
    p.marks.push_back({MarkKind::area, "", {camera(0.1, 0.1), camera(0.2, 0.1), camera(0.15, 0.2)}});
    p.marks.push_back(
        {MarkKind::whole, "", {camera(0, 0), camera(0.5, 0), camera(0.5, 0.4), camera(0, 0.4)}});
    std::mt19937 random(9);
    std::normal_distribution<> click(0, 2), known(0, 0.001);
    for (std::size_t which = 0; which < p.marks.size(); ++which) {
        double sum = 0, squares = 0;
        constexpr int n = 4000;
        for (int i = 0; i < n; ++i) {
            auto moved = p;
            const auto shake = [&](auto& points) {
                for (auto& q : points) {
                    q.x += click(random);
                    q.y += click(random);
                }
            };
            shake(moved.scale.points);
            moved.scale.length += known(random);
            moved.scale.height += known(random);
            for (auto& mark : moved.marks)
                shake(mark.points);
            const double value = measureMark(moved, which)->value;
            sum += value;
            squares += value * value;
        }
        const double spread = std::sqrt((squares - sum * sum / n) / (n - 1));
        EXPECT_NEAR(measureMark(p, which)->uncertainty, spread, 0.06 * spread) << which;
    }
}

TEST(Picture, TheDoubtOfTheKnownLengthAloneScalesWithIt) {
    const Camera camera;
    PictureMarks p{
        squareOn(camera, 0.3), 1e-6, {{MarkKind::distance, "", {camera(0, 0.2), camera(0.6, 0.2)}}}};
    p.scale.doubt = 0.003; // 1 % of it
    EXPECT_NEAR(measureMark(p, 0)->uncertainty, 0.006, 1e-6);
}

TEST(Picture, ASharesOfAWholeNeedNoLength) {
    PictureMarks p;
    p.marks = {{MarkKind::area, "", {{10, 10}, {60, 10}, {60, 60}, {10, 60}}},
               {MarkKind::whole, "", {{0, 0}, {100, 0}, {100, 100}, {0, 100}}},
               {MarkKind::area, "", {{70, 0}, {90, 0}, {90, 50}}},
               {MarkKind::angle, "", {{50, 0}, {0, 0}, {0, 70}}},
               {MarkKind::distance, "", {{0, 0}, {9, 9}}}};
    EXPECT_NEAR(measureMark(p, 1)->value, 0.25 + 0.05, 1e-12);
    EXPECT_EQ(measureMark(p, 1)->dimension, Dimension::ratio);
    EXPECT_NEAR(measureMark(p, 3)->value, std::numbers::pi / 2, 1e-12);
    EXPECT_NE(measureMark(p, 4).error().message.find("No length is known"), std::string::npos);
    EXPECT_NE(measureMark(p, 0).error().message.find("No length is known"), std::string::npos);
}

TEST(Picture, WhatCannotBeIsASentence) {
    const Camera camera;
    const auto told = [](const PictureMarks& p, std::size_t which = 0) {
        const auto m = measureMark(p, which);
        return m ? std::string("a number") : m.error().message;
    };
    const PictureMark line{MarkKind::distance, "", {{10, 10}, {400, 10}}};
    const std::vector<PicturePoint> corners{{0, 0}, {900, 0}, {900, 700}, {0, 700}};
    EXPECT_NE(told({}).find("no such mark"), std::string::npos);
    EXPECT_NE(told({{}, 2, {{MarkKind::distance, "", {{1, 1}}}}}).find("not clicked to its end"),
              std::string::npos);
    EXPECT_NE(told({{{{0, 0}, {300, 0}}, 0, 0, 0}, 2, {line}}).find("not said to its end"),
              std::string::npos);
    EXPECT_NE(told({{corners, 0.3, 0, 0}, 2, {line}}).find("not said to its end"), std::string::npos);
    EXPECT_NE(told({{{{0, 0}, {3, 0}}, 0.3, 0, 0}, 2, {line}}).find("too close together"), std::string::npos);
    auto crossed = corners;
    std::swap(crossed[1], crossed[2]);
    EXPECT_NE(told({{crossed, 0.3, 0.2, 0}, 2, {line}}).find("go round"), std::string::npos);
    // Far beyond where the plane of this rectangle meets the horizon.
    const Camera steep{0, 1.3, 3};
    PictureMarks far{rectangle(steep, 0.5, 0.4), 2, {line}};
    const auto a = steep(0, 0), b = steep(0, 0.4);
    far.marks[0].points = {a, {a.x + 60 * (b.x - a.x), a.y + 60 * (b.y - a.y)}};
    EXPECT_NE(told(far).find("horizon"), std::string::npos);
    PictureMarks bow{
        {{{0, 0}, {300, 0}}, 0.3, 0, 0}, 2, {{MarkKind::area, "", {{0, 0}, {90, 90}, {90, 0}, {0, 90}}}}};
    EXPECT_NE(told(bow).find("crosses itself"), std::string::npos);
    PictureMarks shares;
    shares.marks = {{MarkKind::whole, "", {{0, 0}, {100, 0}, {100, 100}, {0, 100}}}};
    EXPECT_NE(told(shares).find("No area"), std::string::npos);
    shares.marks.push_back({MarkKind::area, "", {{10, 10}, {60, 10}, {60, 60}, {10, 60}}});
    shares.marks.push_back({MarkKind::area, "", {{50, 50}, {90, 50}, {90, 90}, {50, 90}}});
    EXPECT_NE(told(shares).find("overlap"), std::string::npos);
    shares.marks[2] = {MarkKind::area, "", {{20, 20}, {30, 20}, {30, 30}}}; // wholly inside the other
    EXPECT_NE(told(shares).find("overlap"), std::string::npos);
    shares.marks[2] = {MarkKind::area, "", {{200, 0}, {900, 0}, {900, 900}}};
    EXPECT_NE(told(shares).find("greater than the whole"), std::string::npos);
    EXPECT_NE(told({{}, 0, {{MarkKind::angle, "", {{0, 0}, {50, 0}, {50, 50}}}}}).find("pixels"),
              std::string::npos);
}

TEST(Picture, IsTypedWithTwoDigitsOfItsUncertainty) {
    const auto& mm = quantity::unit("mm");
    EXPECT_EQ(quantity::print(asEntry({Dimension::length, 0.41234, 0.00187}, mm)), "412.3 ± 1.9 mm");
    EXPECT_EQ(quantity::print(asEntry({Dimension::length, 0.41234, 0.0187}, mm)), "412 ± 19 mm");
    EXPECT_EQ(quantity::print(asEntry({Dimension::ratio, 0.3, 0.012}, quantity::unit("%"))),
              "30.0 % ± 1.2 %");
    const auto back = quantity::parseEntry("412.3 ± 1.9 mm", Dimension::length);
    EXPECT_NEAR(back->si, 0.4123, 1e-12);
    EXPECT_NEAR(back->plusMinusSi, 0.0019, 1e-12);
}

TEST(Picture, EveryKindHasItsKey) {
    for (const auto kind : {MarkKind::distance, MarkKind::angle, MarkKind::area, MarkKind::whole})
        EXPECT_EQ(markKindFromKey(key(kind)), kind);
    EXPECT_FALSE(markKindFromKey("circle"));
}

} // namespace
} // namespace anvil::methods
