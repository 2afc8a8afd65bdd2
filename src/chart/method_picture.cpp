// Small drawings of what a method does to a piece: our own, of a few lines and arrows.
#include <anvil/chart/charts.h>

#include "arrow.h"
#include <cmath>
#include <numbers>

namespace anvil::chart {
namespace {

void block(Picture& p, double x, double y, double w, double h, Ink ink = Ink::series0) {
    p.add(Area{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}, ink, 1});
}

} // namespace

Picture methodPicture(methods::Action action) {
    using methods::Action;
    Picture p;
    p.width = 150;
    p.height = 90;
    switch (action) {
    case Action::pull:
        block(p, 50, 38, 50, 14);
        drawArrow(p, {48, 45}, {10, 45});
        drawArrow(p, {102, 45}, {140, 45});
        break;
    case Action::press:
        block(p, 55, 30, 40, 30);
        drawArrow(p, {75, 4}, {75, 26});
        drawArrow(p, {75, 86}, {75, 64});
        break;
    case Action::shear:
        block(p, 20, 34, 70, 10);
        block(p, 60, 46, 70, 10, Ink::series2);
        drawArrow(p, {18, 39}, {2, 39});
        drawArrow(p, {132, 51}, {148, 51});
        break;
    case Action::bend:
        p.add(Polyline{{{10, 42}, {45, 48}, {75, 50}, {105, 48}, {140, 42}}, Ink::series0, 7});
        drawArrow(p, {75, 8}, {75, 42});
        drawArrow(p, {18, 84}, {18, 52}, {Ink::faint});
        drawArrow(p, {132, 84}, {132, 52}, {Ink::faint});
        break;
    case Action::twist: {
        block(p, 66, 20, 18, 50);
        Polyline turn{{}, Ink::accent, 2.4};
        for (int i = 0; i <= 24; ++i) {
            const double a = -0.3 + i / 24.0 * 4.4;
            turn.points.push_back({75 + 44 * std::cos(a), 45 + 20 * std::sin(a)});
        }
        const auto n = turn.points.size();
        drawArrow(p, turn.points[n - 2], turn.points[n - 1]);
        p.add(std::move(turn));
        break;
    }
    case Action::swing:
        p.add(Line{{40, 8}, {104, 54}, Ink::faint, 2});
        block(p, 96, 48, 22, 22);
        drawArrow(p, {130, 30}, {120, 48});
        block(p, 60, 60, 10, 24, Ink::series2);
        break;
    case Action::drop:
        block(p, 60, 12, 30, 24);
        drawArrow(p, {75, 40}, {75, 72});
        p.add(Line{{30, 80}, {120, 80}, Ink::faint, 3});
        break;
    case Action::hang:
        p.add(Polyline{{{10, 18}, {45, 28}, {75, 31}, {105, 28}, {140, 18}}, Ink::series0, 5});
        p.add(Line{{75, 32}, {75, 54}, Ink::faint, 2});
        block(p, 62, 54, 26, 20, Ink::series2);
        break;
    case Action::hold:
        block(p, 40, 38, 40, 14);
        p.add(Line{{26, 26}, {26, 64}, Ink::faint, 4});
        p.add(Line{{26, 45}, {40, 45}, Ink::faint, 2});
        drawArrow(p, {82, 45}, {130, 45});
        break;
    case Action::share:
        for (const double x : {20.0, 75.0, 130.0})
            p.add(Line{{x, 10}, {75, 54}, Ink::series0, 3});
        drawArrow(p, {75, 54}, {75, 84});
        break;
    case Action::step:
        for (int i = 0; i < 4; ++i)
            block(p, 20 + 28.0 * i, 70 - 16.0 * i, 26, 14 + 16.0 * i, i < 3 ? Ink::series0 : Ink::warn);
        break;
    case Action::look:
        p.add(Polyline{
            {{20, 45}, {50, 26}, {75, 22}, {100, 26}, {130, 45}, {100, 64}, {75, 68}, {50, 64}, {20, 45}},
            Ink::series0,
            3});
        p.add(Mark{{75, 45}, MarkShape::disc, 22, Ink::accent});
        break;
    }
    return p;
}

} // namespace anvil::chart
