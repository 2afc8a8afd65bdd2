#include <anvil/chart/charts.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::chart {

std::vector<double> abscissa(const curve::ReadCurve& c) {
    const auto& r = c.reading;
    std::vector<double> x;
    if (!c.cleaned.travel.empty() && r.peak.travel) {
        const double toe = c.cleaned.travel[r.peak.index] - *r.peak.travel;
        x = c.cleaned.travel;
        for (auto& v : x)
            v -= toe;
        return x;
    }
    return sinceLoad(c);
}

std::vector<double> sinceLoad(const curve::ReadCurve& c) {
    auto x = c.cleaned.time;
    const double start = x.empty() ? 0 : x[c.reading.departure];
    for (auto& v : x)
        v -= start;
    return x;
}

std::string loadTitle(const quantity::Unit& unit) {
    const char* name = unit.dimension == quantity::Dimension::torque         ? "Torque"
                       : unit.dimension == quantity::Dimension::acceleration ? "Deceleration"
                                                                             : "Force";
    return std::string(name) + " (" + std::string(unit.symbol) + ")";
}

std::string travelTitle(const quantity::Unit& unit) {
    return std::string(unit.dimension == quantity::Dimension::angle ? "Angle" : "Displacement") +
           " from the toe (" + std::string(unit.symbol) + ")";
}

namespace {

/// A line cut where it crosses a level: stretches that lie above it (true) and below, in order; neighbours
/// share the point of crossing.
std::vector<std::pair<bool, std::vector<curve::Pyramid::Point>>>
splitAt(const std::vector<curve::Pyramid::Point>& points, double level) {
    std::vector<std::pair<bool, std::vector<curve::Pyramid::Point>>> out;
    for (const auto& q : points) {
        const bool above = q.y > level;
        if (out.empty()) {
            out.push_back({above, {q}});
            continue;
        }
        if (above != out.back().first) {
            const auto before = out.back().second.back();
            const double share = q.y == before.y ? 0 : (level - before.y) / (q.y - before.y);
            const curve::Pyramid::Point crossing{before.x + share * (q.x - before.x), level};
            out.back().second.push_back(crossing);
            out.push_back({above, {crossing}});
        }
        out.back().second.push_back(q);
    }
    return out;
}

/// Draws curves on a plane, layer by layer.
class CurveDrawer {
public:
    CurveDrawer(const CurveChart& chart, double width, double height)
        : c(chart), legend(chart.legend && width > 340), // in a column of its own, clear of the curves
          plane{chart.x0, chart.x1, chart.y0, chart.y1, 64, 14, width - (legend ? 150 : 14), height - 44} {
        p.width = width;
        p.height = height;
        if (!(plane.x1 > plane.x0)) plane.x1 = plane.x0 + 1;
        if (!(plane.y1 > plane.y0)) plane.y1 = plane.y0 + 1;
    }
    Picture done(Plane* out) {
        axes();
        if (c.limit && *c.limit < plane.y1) {
            const double y = plane.py(*c.limit);
            p.add(Line{{plane.left, y}, {plane.right, y}, Ink::warn, 1.4, Dash::dashed});
            p.add(Label{{plane.right - 4, y - 5}, "rig limit", 11, Align::right, Ink::warn});
        }
        lines();
        bands();
        traces();
        if (c.stiffnessLine) {
            const auto& [a, b] = *c.stiffnessLine;
            p.add(Line{{plane.px(a.x), clampY(plane.py(a.y))},
                       {plane.px(b.x), clampY(plane.py(b.y))},
                       Ink::accent,
                       2.4,
                       Dash::dashed});
        }
        for (const auto& one : c.pins)
            pin(one);
        if (legend) names();
        if (out) *out = plane;
        return std::move(p);
    }

private:
    double clampX(double x) const { return std::clamp(x, plane.left - 2, plane.right + 2); }
    double clampY(double y) const { return std::clamp(y, plane.top - 2, plane.bottom + 2); }

    void axes() {
        const bool small = p.width < 340;
        const double xs =
            niceStep(plane.x0, plane.x1, small ? 3 : std::max(3, static_cast<int>(p.width / 110)));
        const double ys =
            niceStep(plane.y0, plane.y1, small ? 3 : std::max(3, static_cast<int>(p.height / 60)));
        for (const double v : ticks(plane.x0, plane.x1, xs)) {
            p.add(Line{{plane.px(v), plane.top}, {plane.px(v), plane.bottom}, Ink::grid, 0.8});
            p.add(Label{
                {plane.px(v), plane.bottom + 15}, tickText(v, xs), 11, Align::center, Ink::faint, false});
        }
        for (const double v : ticks(plane.y0, plane.y1, ys)) {
            p.add(Line{{plane.left, plane.py(v)}, {plane.right, plane.py(v)}, Ink::grid, 0.8});
            p.add(Label{
                {plane.left - 6, plane.py(v) + 4}, tickText(v, ys), 11, Align::right, Ink::faint, false});
        }
        p.add(Line{{plane.left, plane.top}, {plane.left, plane.bottom}, Ink::faint, 1.2});
        p.add(Line{{plane.left, plane.bottom}, {plane.right, plane.bottom}, Ink::faint, 1.2});
        p.add(Label{{plane.right, plane.bottom + 34}, c.xTitle, 13, Align::right});
        p.add(Label{{plane.left + 8, plane.top + 12}, c.yTitle, 13, Align::left});
    }
    /// Lines to see the curve against, as far as they lie in what is seen.
    void lines() {
        for (const auto& line : c.lines) {
            const double top = line.upper.value_or(line.value);
            if (top < plane.y0 || line.value > plane.y1) continue;
            const double y = clampY(plane.py(line.value)), high = clampY(plane.py(top));
            if (line.upper)
                p.add(Area{{{plane.left, y}, {plane.right, y}, {plane.right, high}, {plane.left, high}},
                           Ink::band,
                           0.5});
            else
                p.add(Line{{plane.left, y}, {plane.right, y}, Ink::warn, 1.4, Dash::dashDot});
            p.add(Label{{plane.left + 8, high - 5}, elided(line.name, 40), 11, Align::left, Ink::warn});
        }
    }
    void bands() {
        for (const auto& b : c.bands) {
            Area area{{}, b.ink, b.opacity};
            for (const auto& q : b.low)
                area.points.push_back({clampX(plane.px(q.x)), clampY(plane.py(q.y))});
            for (auto q = b.high.rbegin(); q != b.high.rend(); ++q)
                area.points.push_back({clampX(plane.px(q->x)), clampY(plane.py(q->y))});
            p.add(std::move(area));
        }
    }
    void draw(const Trace& t, std::span<const curve::Pyramid::Point> points, Dash dash) {
        Polyline line{{}, t.ink, t.width, dash, t.opacity};
        line.points.reserve(points.size());
        for (const auto& q : points)
            line.points.push_back({clampX(plane.px(q.x)), clampY(plane.py(q.y))});
        p.add(std::move(line));
    }
    void traces() {
        std::optional<double> guessedFrom;
        for (const auto& t : c.traces) {
            if (!t.calibratedTo || t.dash != Dash::solid) {
                draw(t, t.points, t.dash);
                continue;
            }
            for (const auto& [beyond, points] : splitAt(t.points, *t.calibratedTo)) {
                draw(t, points, beyond ? Dash::dashed : t.dash);
                if (beyond) guessedFrom = t.calibratedTo;
            }
        }
        if (!guessedFrom) return;
        const double y = clampY(plane.py(*guessedFrom));
        p.add(Line{{plane.left, y}, {plane.right, y}, Ink::faint, 1, Dash::dotted});
        p.add(Label{{plane.right - 4, y + 13}, "calibrated up to here", 11, Align::right, Ink::faint});
    }
    void pin(const Pin& pin) {
        const double x = plane.px(pin.x), y = plane.py(pin.y);
        if (x < plane.left - 1 || x > plane.right + 1 || y < plane.top - 20 || y > plane.bottom + 1) return;
        p.add(Mark{{x, y},
                   pin.byHand ? MarkShape::diamond : MarkShape::ring,
                   pin.byHand ? 13.0 : 11.0,
                   Ink::accent});
        if (pin.name.empty()) return;
        const bool left = pin.leftward || x > plane.right - 110;
        p.add(Label{{left ? x - 9 : x + 9, std::max(plane.top + 10, pin.upright ? y - 8 : y + 17)},
                    pin.name + (pin.byHand ? " (by hand)" : ""),
                    11.5,
                    left ? Align::right : Align::left,
                    Ink::accent,
                    true});
    }
    void names() {
        double y = plane.top + 14;
        for (const auto& t : c.traces) {
            if (t.name.empty()) continue;
            p.add(Line{{plane.right + 10, y - 4}, {plane.right + 36, y - 4}, t.ink, 2, t.dash});
            p.add(Label{{plane.right + 41, y}, elided(t.name, 16), 11});
            y += 16;
        }
    }

    const CurveChart& c;
    bool legend;
    Plane plane;
    Picture p;
};

} // namespace

Picture curves(const CurveChart& chart, double width, double height, Plane* plane) {
    return CurveDrawer(chart, width, height).done(plane);
}

} // namespace anvil::chart
