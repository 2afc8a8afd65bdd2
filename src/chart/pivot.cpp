#include <anvil/chart/pivot.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::chart {
namespace {

constexpr double high = 178, body = 102, margin = 74, longest = 46;

/// An arrow from a place up or down, as long as its force.
void arrow(Picture& p, const Point& from, double length, Ink ink) {
    const Point tip{from.x, from.y + length};
    p.add(Line{from, tip, ink, 3});
    const double back = length < 0 ? 9 : -9;
    p.add(Area{{tip, {tip.x - 5, tip.y + back}, {tip.x + 5, tip.y + back}}, ink, 1});
}

} // namespace

Picture pivotPicture(const PivotCheck& c, const quantity::Unit& force, const quantity::Unit& length,
                     double width) {
    Picture p;
    p.width = width;
    p.height = high;
    const double low = std::min({c.pivot, c.centre, c.lift}), top = std::max({c.pivot, c.centre, c.lift});
    const double scale = (width - 2 * margin) / std::max(top - low, 1e-9);
    const auto x = [&](double at) { return margin + (at - low) * scale; };
    const double most = std::max(c.weight, c.shown);
    p.add(Line{{16, body + 34}, {width - 16, body + 34}, Ink::faint, 1.2}); // the ground
    p.add(Area{
        {{x(low) - 24, body - 9}, {x(top) + 24, body - 9}, {x(top) + 24, body + 9}, {x(low) - 24, body + 9}},
        Ink::grid,
        1});
    const double at = x(c.pivot);
    p.add(Area{{{at, body + 9}, {at - 13, body + 34}, {at + 13, body + 34}}, Ink::accent, 1});
    p.add(Label{{at, body + 52}, "stands at " + quantity::withUnit(c.pivot, length), 12, Align::center});
    p.add(Mark{{x(c.centre), body}, MarkShape::ring, 12, Ink::text});
    arrow(p, {x(c.centre), body + 4}, longest * c.weight / most, Ink::series0);
    p.add(Label{
        {x(c.centre), body - 16}, quantity::withUnit(c.weight, force), 12, Align::center, Ink::text, true});
    p.add(Label{
        {x(c.centre), body + 70}, "weighs at " + quantity::withUnit(c.centre, length), 12, Align::center});
    arrow(p, {x(c.lift), body - 9}, -longest * c.shown / most, Ink::series1);
    p.add(Label{{x(c.lift), body - 18 - longest * c.shown / most},
                "reads " + quantity::withUnit(c.shown, force),
                12,
                Align::center,
                Ink::text,
                true});
    p.add(
        Label{{x(c.lift), body + 28}, "lifted at " + quantity::withUnit(c.lift, length), 12, Align::center});
    return p;
}

} // namespace anvil::chart
