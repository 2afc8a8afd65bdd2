#include <anvil/chart/charts.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::chart {
namespace {

constexpr double cellWidth = 92, height = 112, middle = 52;

void box(Picture& p, double x, const std::string& text) {
    p.add(Area{
        {{x, middle - 14}, {x + 60, middle - 14}, {x + 60, middle + 14}, {x, middle + 14}}, Ink::grid, 1});
    p.add(Label{{x + 30, middle + 4}, text, 13, Align::center, Ink::text, true});
}

/// One part between x and x + cellWidth.
void part(Picture& p, const rig::RatioPart& r, double x) {
    using K = rig::RatioPart::Kind;
    const double mid = x + cellWidth / 2;
    switch (r.kind) {
    case K::lever: { // arms in proportion, on a pivot
        const double whole = cellWidth - 20, at = x + 10 + whole * r.a / std::max(1e-9, r.a + r.b);
        p.add(Line{{x + 10, middle}, {x + 10 + whole, middle}, Ink::series0, 5});
        p.add(Area{{{at, middle + 3}, {at - 8, middle + 18}, {at + 8, middle + 18}}, Ink::accent, 1});
        break;
    }
    case K::line: // so many strands between two wheels
        for (int i = 0; i < std::clamp(static_cast<int>(r.a), 1, 6); ++i)
            p.add(Line{
                {mid - 12 + 5.0 * i, middle - 20}, {mid - 12 + 5.0 * i, middle + 20}, Ink::series0, 1.6});
        p.add(Mark{{mid, middle - 22}, MarkShape::ring, 16, Ink::accent});
        p.add(Mark{{mid, middle + 22}, MarkShape::ring, 16, Ink::accent});
        break;
    case K::angle:
        p.add(Line{{x + 14, middle + 16}, {x + cellWidth - 14, middle + 16}, Ink::faint, 1, Dash::dashed});
        p.add(Line{{x + 14, middle + 16},
                   {x + 14 + 60 * std::cos(r.a), middle + 16 - 60 * std::sin(r.a)},
                   Ink::series0,
                   3});
        break;
    case K::ram: // a piston in its cylinder
        p.add(Line{{x + 14, middle - 18}, {x + 58, middle - 18}, Ink::text, 2});
        p.add(Line{{x + 14, middle + 18}, {x + 58, middle + 18}, Ink::text, 2});
        p.add(Line{{x + 14, middle - 18}, {x + 14, middle + 18}, Ink::text, 2});
        p.add(
            Area{{{x + 38, middle - 17}, {x + 46, middle - 17}, {x + 46, middle + 17}, {x + 38, middle + 17}},
                 Ink::accent,
                 1});
        p.add(Line{{x + 46, middle}, {x + cellWidth - 6, middle}, Ink::series0, 4});
        break;
    case K::sensor: // volts against load: a straight line
        p.add(Line{{x + 14, middle + 20}, {x + 14, middle - 20}, Ink::faint, 1});
        p.add(Line{{x + 14, middle + 20}, {x + cellWidth - 12, middle + 20}, Ink::faint, 1});
        p.add(Line{{x + 14, middle + 16}, {x + cellWidth - 16, middle - 18}, Ink::series0, 3});
        break;
    case K::plain:
        p.add(Line{{x + 8, middle}, {x + cellWidth - 8, middle}, Ink::series0, 2});
        p.add(Label{{mid, middle - 8},
                    "\u00d7 " + quantity::significant(r.a, 3),
                    13,
                    Align::center,
                    Ink::text,
                    true});
        break;
    }
}

} // namespace

namespace {

/// What one on the display is by then: a number, or newtons for each bar or volt.
std::string oneIs(const rig::Ratio& r) {
    using quantity::Dimension;
    if (r.of == Dimension::force) return quantity::significant(r.value, 3);
    const auto& unit = quantity::unit(r.of == Dimension::stress ? "bar" : "V");
    return fmt::format("{} N", quantity::significant(r.value * unit.factor, 3));
}

} // namespace

Picture loadPath(std::span<const rig::RatioPart> parts, double width) {
    Picture p;
    p.width = width;
    p.height = height;
    double x = 8;
    using K = rig::RatioPart::Kind;
    using quantity::Dimension;
    const auto of = parts.empty()                ? Dimension::force
                    : parts[0].kind == K::ram    ? Dimension::stress
                    : parts[0].kind == K::sensor ? Dimension::voltage
                                                 : Dimension::force;
    box(p, x, of == quantity::Dimension::force ? "cell" : "display");
    p.add(Label{{x + 30, height - 14},
                of == quantity::Dimension::stress    ? "1 bar"
                : of == quantity::Dimension::voltage ? "1 V"
                                                     : "1",
                13,
                Align::center,
                Ink::text,
                false});
    x += 64;
    for (std::size_t i = 0; i < parts.size(); ++i) {
        part(p, parts[i], x);
        x += cellWidth;
        if (const auto so = rig::ratioOf(parts.subspan(0, i + 1)))
            p.add(Label{{x - cellWidth / 2, height - 14}, oneIs(*so), 13, Align::center, Ink::text, false});
    }
    if (parts.empty()) {
        p.add(Line{{x, middle}, {x + cellWidth, middle}, Ink::series0, 2});
        x += cellWidth;
    }
    box(p, x + 4, "piece");
    if (const auto whole = rig::ratioOf(parts))
        p.add(Label{{x + 34, height - 14}, oneIs(*whole), 13, Align::center, Ink::text, true});
    return p;
}

Picture calibrationPicture(const rig::Calibration& calibration, const quantity::Unit& shown,
                           const quantity::Unit& unit, double width, double height_) {
    CurveChart c;
    c.xTitle = shown.symbol.empty() ? "Reading" : "Reading (" + std::string(shown.symbol) + ")";
    c.yTitle = "True load (" + std::string(unit.symbol) + ")";
    if (calibration.empty()) return curves(c, width, height_);
    const double span = calibration.high() - calibration.low(), from = calibration.low() - 0.15 * span,
                 to = calibration.high() + 0.15 * span;
    Trace inside, below, above;
    inside.ink = Ink::series0;
    below.ink = above.ink = Ink::faint;
    below.dash = above.dash = Dash::dashed;
    double low = 1e300, high = -1e300;
    for (int i = 0; i <= 240; ++i) {
        const double x = from + (to - from) * i / 240, y = unit.fromSi(calibration(x).value);
        low = std::min(low, y);
        high = std::max(high, y);
        (x < calibration.low()    ? below
         : x > calibration.high() ? above
                                  : inside)
            .points.push_back({shown.fromSi(x), y});
    }
    c.traces = {inside, below, above};
    const auto line = calibration.line();
    for (std::size_t i = 0; line && i < calibration.points().size(); ++i) {
        const auto& p = calibration.points()[i];
        c.pins.push_back({fmt::format("{}{}", line->residuals[i] >= 0 ? "+" : "\u2212",
                                      quantity::significant(unit.fromSi(std::abs(line->residuals[i])), 2)),
                          shown.fromSi(p.reading), unit.fromSi(p.truth), false, 0, true,
                          i * 2 > calibration.points().size()});
    }
    c.x0 = shown.fromSi(from);
    c.x1 = shown.fromSi(to);
    c.y0 = low - 0.08 * (high - low);
    c.y1 = high + 0.12 * (high - low);
    return curves(c, width, height_);
}

} // namespace anvil::chart
