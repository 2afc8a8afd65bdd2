#include "axes.h"

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::chart {

void drawAxes(Picture& p, const Plane& plane, const std::string& xTitle, const std::string& yTitle,
              TickText x) {
    const double wide = plane.right - plane.left, high = plane.bottom - plane.top;
    double xs = niceStep(plane.x0, plane.x1, std::max(3, static_cast<int>(wide / 90)));
    if (x != TickText::plain) xs = std::max(1.0, std::round(xs));
    for (const double v : ticks(plane.x0, plane.x1, xs)) {
        p.add(Line{{plane.px(v), plane.top}, {plane.px(v), plane.bottom}, Ink::grid, 0.8});
        const auto text = x == TickText::powers ? quantity::shortest(std::pow(10.0, v)) : tickText(v, xs);
        p.add(Label{{plane.px(v), plane.bottom + 15}, text, 11, Align::center, Ink::faint, false});
    }
    const double ys = niceStep(plane.y0, plane.y1, std::max(3, static_cast<int>(high / 60)));
    for (const double v : ticks(plane.y0, plane.y1, ys)) {
        p.add(Line{{plane.left, plane.py(v)}, {plane.right, plane.py(v)}, Ink::grid, 0.8});
        p.add(Label{{plane.left - 6, plane.py(v) + 4}, tickText(v, ys), 11, Align::right, Ink::faint, false});
    }
    p.add(Line{{plane.left, plane.top}, {plane.left, plane.bottom}, Ink::faint, 1.2});
    p.add(Line{{plane.left, plane.bottom}, {plane.right, plane.bottom}, Ink::faint, 1.2});
    p.add(Label{{plane.right, plane.bottom + 34}, xTitle, 13, Align::right});
    p.add(Label{{plane.left + 8, plane.top + 12}, yTitle, 13, Align::left});
}

} // namespace anvil::chart
