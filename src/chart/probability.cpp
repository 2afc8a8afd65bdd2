#include <anvil/chart/charts.h>

#include "axis_title.h"

#include <algorithm>
#include <anvil/quantity/print.h>
#include <anvil/words/values.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::chart {
namespace {

constexpr double usualHeight = 340, margin = 62, foot = 44, top = 26;

/// Shares stand at their place on the normal law, so that a normal group lies on a straight line.
double place(double below) { return stats::standardQuantile(stats::Family::normal, below); }

struct Frame {
    double low, high, left, right, bottom;
    const quantity::Unit& unit;
    double x(double si) const { return left + (unit.fromSi(si) - low) / (high - low) * (right - left); }
    double y(double below) const {
        const double ends = place(0.98);
        return bottom - (place(below) + ends) / (2 * ends) * (bottom - top);
    }
};

/// What is shown lies between these, in the unit: of a wide band only so much as the values fill half of it.
std::pair<double, double> ends(const results::ProbabilityPlot& plot, const quantity::Unit& unit) {
    double low = INFINITY, high = -INFINITY;
    const auto take = [&](double si) {
        low = std::min(low, unit.fromSi(si));
        high = std::max(high, unit.fromSi(si));
    };
    for (const auto* all : {&plot.points, &plot.bounds})
        for (const auto& p : *all)
            take(p.value);
    for (const auto& line : plot.lines)
        if (line.best) {
            take(line.line.front().value);
            take(line.line.back().value);
        }
    const double room = 0.35 * std::max(high - low, 1e-3 * std::abs(high));
    return {low - room, high + room};
}

std::vector<Point> clipped(const Frame& f, const std::vector<results::PlotPoint>& points) {
    std::vector<Point> out;
    for (const auto& p : points)
        out.push_back({std::clamp(f.x(p.value), f.left, f.right), f.y(p.below)});
    return out;
}

void addLines(Picture& p, const Frame& f, const results::ProbabilityPlot& plot) {
    std::size_t n = 1;
    double told = top + 14;
    for (const auto& line : plot.lines) {
        if (!line.low.empty()) {
            auto band = clipped(f, line.low);
            const auto back = clipped(f, line.high);
            band.insert(band.end(), back.rbegin(), back.rend());
            p.add(Area{std::move(band), Ink::band, 0.8});
            std::rotate(p.shapes.begin(), p.shapes.end() - 1, p.shapes.end()); // behind all else
        }
        const auto ink = line.best ? Ink::accent : seriesInk(n);
        const auto dash = line.best ? Dash::solid : n == 1 ? Dash::dashed : Dash::dotted;
        p.add(Polyline{clipped(f, line.line), ink, line.best ? 2.2 : 1.4, dash, 1});
        p.add(Line{{f.left + 10, told - 4}, {f.left + 34, told - 4}, ink, line.best ? 2.2 : 1.4, dash});
        p.add(Label{{f.left + 40, told},
                    std::string(words::familyName(line.family)) +
                        (line.best ? ", fits best; its 90 % band" : ""),
                    11,
                    Align::left,
                    Ink::text,
                    line.best});
        told += 16;
        ++n;
    }
}

} // namespace

Picture probability(const results::ProbabilityPlot& plot, const domain::StudyData& data,
                    const std::string& title, const quantity::Unit& unit, double width, double height) {
    Picture p;
    p.width = width;
    p.height = std::max(height, usualHeight);
    const auto [low, high] = ends(plot, unit);
    const Frame f{low, high, margin, width - 16, p.height - foot, unit};
    const double step = niceStep(low, high, width > 500 ? 7 : 4);
    for (const double v : ticks(low, high, step)) {
        const double x = f.left + (v - low) / (high - low) * (f.right - f.left);
        p.add(Line{{x, top}, {x, f.bottom}, Ink::grid, 1});
        p.add(Label{{x, f.bottom + 15}, tickText(v, step), 11, Align::center, Ink::faint});
    }
    for (const double below : {0.02, 0.05, 0.1, 0.25, 0.5, 0.75, 0.9, 0.95, 0.98}) {
        p.add(Line{{f.left, f.y(below)}, {f.right, f.y(below)}, Ink::grid, 1});
        p.add(Label{{f.left - 6, f.y(below) + 4},
                    fmt::format("{:.0f} %", 100 * below),
                    11,
                    Align::right,
                    Ink::faint});
    }
    addLines(p, f, plot);
    const auto mark = [&](const results::PlotPoint& at, MarkShape shape) {
        const Point where{f.x(at.value), f.y(std::clamp(at.below, 0.02, 0.98))};
        p.add(Mark{where, shape, 9, Ink::series0});
        const auto* pull = data.pull(at.pull);
        p.hits.push_back(
            {where.x - 7, where.y - 7, 14, 14,
             pull ? data.specimenAt(pull->specimen).label + ": " + quantity::withUnit(at.value, unit)
                  : std::string(),
             OfPull{at.pull}});
    };
    for (const auto& at : plot.points)
        mark(at, MarkShape::disc);
    for (const auto& at : plot.bounds)
        mark(at, MarkShape::arrowRight);
    p.add(Label{{(f.left + f.right) / 2, f.bottom + 34},
                axisTitle(title, unit.symbol),
                13,
                Align::center,
                Ink::text});
    p.add(Label{{6, top - 12}, "share below", 11, Align::left, Ink::faint});
    return p;
}

} // namespace anvil::chart
