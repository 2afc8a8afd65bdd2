// A line with a head, for the drawings of methods and legs.
#pragma once

#include <anvil/chart/picture.h>
#include <cmath>

namespace anvil::chart {

/// How an arrow is drawn: its ink, the width of its line and the length of its head, px.
struct ArrowLook {
    Ink ink = Ink::accent;
    double width = 2.4, head = 10;
};

inline void drawArrow(Picture& p, const Point& from, const Point& to, const ArrowLook& look = {}) {
    p.add(Line{from, to, look.ink, look.width});
    const double angle = std::atan2(to.y - from.y, to.x - from.x);
    std::vector<Point> head{to};
    for (const double turn : {2.6, -2.6})
        head.push_back(
            {to.x + look.head * std::cos(angle + turn), to.y + look.head * std::sin(angle + turn)});
    p.add(Area{head, look.ink, 1});
}

} // namespace anvil::chart
