#include <anvil/chart/method_card.h>

#include "arrow.h"
#include <algorithm>
#include <anvil/chart/charts.h>
#include <cmath>
#include <iterator>
#include <utility>

namespace anvil::chart {
namespace {

void block(Picture& p, const Point& corner, double w, double h, Ink ink = Ink::series0) {
    const auto [x, y] = corner;
    p.add(Area{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}, ink, 1});
}

/// A waisted strip with the marks of its gauge length.
void coupon(Picture& p) {
    p.add(Area{{{36, 34},
                {52, 34},
                {62, 40},
                {88, 40},
                {98, 34},
                {114, 34},
                {114, 56},
                {98, 56},
                {88, 50},
                {62, 50},
                {52, 56},
                {36, 56}},
               Ink::series0,
               1});
    for (const double x : {66.0, 84.0})
        p.add(Line{{x, 34}, {x, 56}, Ink::faint, 2});
    drawArrow(p, {34, 45}, {8, 45});
    drawArrow(p, {116, 45}, {142, 45});
}

/// A pin through three plates.
void pin(Picture& p) {
    block(p, {14, 28}, 76, 9, Ink::series2);
    block(p, {60, 40}, 76, 10);
    block(p, {14, 53}, 76, 9, Ink::series2);
    block(p, {71, 18}, 9, 54, Ink::warn);
    drawArrow(p, {12, 45}, {0, 45});
    drawArrow(p, {136, 45}, {149, 45});
}

/// An arm held at one end, a weight at the other.
void lever(Picture& p) {
    block(p, {12, 18}, 12, 54, Ink::faint);
    p.add(Polyline{{{24, 38}, {60, 40}, {96, 46}, {126, 54}}, Ink::series0, 7});
    p.add(Line{{120, 56}, {120, 68}, Ink::faint, 2});
    block(p, {108, 66}, 24, 18, Ink::series2);
}

/// A bolt's head seen from above and a wrench on it.
void wrench(Picture& p) {
    Area head{{}, Ink::series2, 1};
    for (int i = 0; i < 6; ++i)
        head.points.push_back({42 + 20 * std::cos(i * M_PI / 3), 52 + 20 * std::sin(i * M_PI / 3)});
    p.add(Line{{56, 48}, {132, 26}, Ink::series0, 9});
    p.add(std::move(head));
    drawArrow(p, {132, 40}, {120, 74});
}

/// A weight that has hung for a while: where it was, where it is, and the hours between.
void hanging(Picture& p) {
    p.add(Line{{12, 14}, {92, 14}, Ink::faint, 4});
    p.add(Line{{52, 14}, {52, 50}, Ink::series0, 3});
    p.add(Line{{24, 52}, {80, 52}, Ink::faint, 1.4, Dash::dashed});
    block(p, {40, 62}, 24, 20, Ink::series2);
    p.add(Line{{52, 50}, {52, 62}, Ink::series0, 3, Dash::dotted});
    p.add(Mark{{116, 48}, MarkShape::ring, 38, Ink::accent});
    p.add(Line{{116, 48}, {116, 35}, Ink::accent, 2.4});
    p.add(Line{{116, 48}, {126, 53}, Ink::accent, 2.4});
}

/// Tries that came off and tries that did not.
void tries(Picture& p) {
    for (int i = 0; i < 8; ++i) {
        const int row = i / 4, column = i % 4;
        const Point at{30.0 + 30.0 * column, 30.0 + 30.0 * row};
        const bool failed = i == 2 || i == 7;
        p.add(Mark{at, failed ? MarkShape::cross : MarkShape::disc, 16, failed ? Ink::warn : Ink::series0});
    }
}

/// A line to and fro between two wheels.
void wheels(Picture& p) {
    p.add(Line{{24, 20}, {24, 70}, Ink::faint, 4});
    for (const double x : {44.0, 106.0})
        p.add(Mark{{x, 45}, MarkShape::ring, 24, Ink::series0});
    p.add(Line{{44, 33}, {106, 33}, Ink::series2, 2.4});
    p.add(Line{{44, 57}, {106, 57}, Ink::series2, 2.4});
    p.add(Line{{24, 45}, {36, 45}, Ink::faint, 2});
    drawArrow(p, {106, 33}, {136, 12});
    drawArrow(p, {120, 45}, {146, 45});
}

} // namespace

Picture methodCard(const methods::Method& method) {
    using Draw = void (*)(Picture&);
    static constexpr std::pair<std::string_view, Draw> own[] = {
        {"tension-coupon", coupon}, {"pin-shear", pin},  {"lever-bend", lever}, {"torque", wrench},
        {"creep", hanging},         {"attempts", tries}, {"advantage", wheels}};
    const auto* found =
        std::find_if(std::begin(own), std::end(own), [&](const auto& o) { return o.first == method.key; });
    if (found == std::end(own)) return methodPicture(method.action);
    Picture p;
    p.width = 150;
    p.height = 90;
    found->second(p);
    return p;
}

} // namespace anvil::chart
