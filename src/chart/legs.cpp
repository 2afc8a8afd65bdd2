#include <anvil/chart/legs.h>

#include "arrow.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace anvil::chart {
namespace {

constexpr double cell = 250, head = 26;

/// Where a leg goes on the picture, of length one; without directions they stand in a row.
std::vector<Point> towards(const results::SquareLegs& legs) {
    std::vector<Point> out;
    const auto n = legs.loads.size();
    for (std::size_t i = 0; i < n; ++i) {
        if (legs.directions.empty()) {
            const double a = M_PI * (static_cast<double>(i) + 1) / (static_cast<double>(n) + 1);
            out.push_back({-std::cos(a), -std::sin(a)});
            continue;
        }
        const auto& d = legs.directions[i];
        const double flat = std::hypot(d[0], d[1]);
        out.push_back(flat > 1e-9 ? Point{d[0] / flat, -d[1] / flat} : Point{0, -1});
    }
    return out;
}

void drawOne(Picture& p, const results::SquareLegs& legs, const std::string& name, double x, double y) {
    p.add(Label{{x + 8, y + 16}, elided(name, 34), 13, Align::left, Ink::text, true});
    const Point middle{x + cell / 2, y + head + (cell - head) / 2};
    const double most = *std::max_element(legs.shares.begin(), legs.shares.end());
    const double reach = 0.33 * cell / std::max(most, 1e-9);
    const auto ways = towards(legs);
    for (std::size_t i = 0; i < legs.loads.size(); ++i) {
        const Point end{middle.x + reach * legs.shares[i] * ways[i].x,
                        middle.y + reach * legs.shares[i] * ways[i].y};
        drawArrow(p, middle, end, {Ink::series0, 4, 11});
        if (i < legs.predicted.size())
            p.add(Mark{{middle.x + reach * legs.predicted[i] * ways[i].x,
                        middle.y + reach * legs.predicted[i] * ways[i].y},
                       MarkShape::ring,
                       11,
                       Ink::accent});
        const Point at{middle.x + (reach * legs.shares[i] + 36) * ways[i].x,
                       middle.y + (reach * legs.shares[i] + 22) * ways[i].y + 4};
        p.add(Label{at, fmt::format("{}: {:.0f} %", i + 1, 100 * legs.shares[i]), 12, Align::center,
                    Ink::text, legs.shares[i] == most});
    }
    p.add(Mark{middle, MarkShape::disc, 11, Ink::text});
}

} // namespace

Picture legPlans(const std::vector<results::SquareLegs>& squares, const std::vector<std::string>& names,
                 double width) {
    Picture p;
    p.width = width;
    const auto columns = std::max<std::size_t>(1, static_cast<std::size_t>(width / cell));
    for (std::size_t i = 0; i < squares.size(); ++i)
        drawOne(p, squares[i], names[i], cell * static_cast<double>(i % columns),
                cell * static_cast<double>(i / columns));
    p.height = cell * std::ceil(static_cast<double>(squares.size()) / static_cast<double>(columns)) + 4;
    return p;
}

} // namespace anvil::chart
