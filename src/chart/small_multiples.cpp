#include <anvil/chart/charts.h>

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace anvil::chart {
namespace {

Point moved(Point p, double dx, double dy) { return {p.x + dx, p.y + dy}; }

/// A shape at another place.
Shape moved(Shape shape, double dx, double dy) {
    std::visit(
        [&](auto& s) {
            using T = std::decay_t<decltype(s)>;
            if constexpr (std::is_same_v<T, Line>) {
                s.a = moved(s.a, dx, dy);
                s.b = moved(s.b, dx, dy);
            } else if constexpr (std::is_same_v<T, Polyline> || std::is_same_v<T, Area>) {
                for (auto& q : s.points)
                    q = moved(q, dx, dy);
            } else {
                s.at = moved(s.at, dx, dy);
            }
        },
        shape);
    return shape;
}

} // namespace

Picture smallMultiples(const std::vector<std::pair<std::string, CurveChart>>& charts, double width,
                       double height) {
    Picture p;
    p.width = width;
    p.height = height;
    if (charts.empty()) return p;
    // As many columns as keep each picture about half as high again as it is broad.
    const auto n = static_cast<double>(charts.size());
    const double columns = std::clamp(std::round(std::sqrt(n * width / std::max(1.0, height) / 1.5)), 1.0,
                                      std::min(n, std::floor(width / 180)));
    const double rows = std::ceil(n / columns), w = width / columns, h = std::max(130.0, height / rows);
    p.height = rows * h;
    double x0 = charts.front().second.x0, x1 = charts.front().second.x1, y0 = 0, y1 = 0;
    for (const auto& [name, c] : charts) {
        if (c.traces.empty()) continue;
        x0 = std::min(x0, c.x0);
        x1 = std::max(x1, c.x1);
        y0 = std::min(y0, c.y0);
        y1 = std::max(y1, c.y1);
    }
    for (std::size_t i = 0; i < charts.size(); ++i) {
        auto chart = charts[i].second;
        chart.x0 = x0;
        chart.x1 = x1;
        chart.y0 = y0;
        chart.y1 = y1;
        chart.legend = false;
        const double dx = std::fmod(static_cast<double>(i), columns) * w,
                     dy = std::floor(static_cast<double>(i) / columns) * h;
        p.add(Label{{dx + 64, dy + 15},
                    elided(charts[i].first, static_cast<std::size_t>(std::max(8.0, w / 8))),
                    13,
                    Align::left,
                    Ink::text,
                    true});
        if (chart.traces.empty())
            p.add(Label{{dx + w / 2, dy + h / 2}, "no curve", 13, Align::center, Ink::faint});
        else
            for (auto& shape : curves(chart, w, h - 20).shapes)
                p.shapes.push_back(moved(std::move(shape), dx, dy + 20));
        p.hits.push_back(
            {dx, dy, w, h, fmt::format("{}: {} curves", charts[i].first, chart.traces.size()), OfChart{i}});
    }
    return p;
}

Picture rateStrip(const RateStrip& strip, double width, double height, const Plane& plane) {
    Picture p;
    p.width = width;
    p.height = height;
    double top = strip.own.value_or(0);
    for (const auto& q : strip.rate)
        if (std::isfinite(q.y)) top = std::max(top, q.y);
    for (const auto& [who, rate] : strip.others)
        top = std::max(top, rate);
    if (!(top > 0)) return p;
    top *= 1.15;
    const double bottom = height - 6;
    const auto py = [&](double rate) { return bottom - std::clamp(rate / top, 0.0, 1.0) * (bottom - 4); };
    p.add(Line{{plane.left, bottom}, {plane.right, bottom}, Ink::faint, 1});
    p.add(
        Label{{plane.left - 6, 14}, tickText(top / 1.15, niceStep(0, top, 2)), 11, Align::right, Ink::faint});
    p.add(Label{{plane.left - 6, 28}, strip.unit, 11, Align::right, Ink::faint});
    for (const auto& [who, rate] : strip.others) {
        p.add(Line{{plane.left, py(rate)}, {plane.right, py(rate)}, Ink::warn, 1, Dash::dotted});
        p.add(Label{{plane.right - 4, py(rate) - 3}, who, 11, Align::right, Ink::warn});
    }
    Polyline line{{}, Ink::series0, 1.3};
    for (const auto& q : strip.rate)
        if (q.x >= strip.x0 && q.x <= strip.x1 && std::isfinite(q.y))
            line.points.push_back({plane.px(q.x), py(q.y)});
    p.add(std::move(line));
    if (strip.own)
        p.add(
            Line{{plane.left, py(*strip.own)}, {plane.right, py(*strip.own)}, Ink::accent, 1, Dash::dashed});
    return p;
}

} // namespace anvil::chart
