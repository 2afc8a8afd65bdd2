#include <anvil/chart/over_time.h>

#include "axes.h"
#include <algorithm>
#include <anvil/chart/charts.h>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace anvil::chart {
namespace {

constexpr double legendWidth = 170;

/// The unit of time in which a span is told: days, hours, minutes or seconds.
struct TimeUnit {
    double seconds;
    const char* symbol;
};
TimeUnit timeUnitFor(double span) {
    if (span >= 2 * 86400) return {86400, "d"};
    if (span >= 2 * 3600) return {3600, "h"};
    if (span >= 120) return {60, "min"};
    return {1, "s"};
}

std::size_t placeOf(const domain::StudyData& data, domain::Id option) {
    std::size_t n = 0;
    while (n < data.options.size() && data.options[n].id != option)
        ++n;
    return n;
}

/// The names of the options that are drawn, each in its ink.
void drawNames(Picture& p, const domain::StudyData& data, const std::set<domain::Id>& shown, double x) {
    double y = 26;
    for (std::size_t n = 0; n < data.options.size(); ++n) {
        if (!shown.contains(data.options[n].id)) continue;
        p.add(Line{{x, y - 4}, {x + 22, y - 4}, seriesInk(n), 2.4, seriesDash(n)});
        p.add(Label{{x + 28, y}, elided(data.options[n].name, 20), 12});
        y += 20;
    }
}

/// The time axis: plain, or decades.
class Times {
public:
    Times(const std::vector<results::CreepCurve>& curves, bool logTime) : m_log(logTime) {
        double least = 0, most = 0;
        for (const auto& c : curves)
            for (const auto& g : c.moved) {
                if (m_log && (!(g.at > 0) || after(c, g.at))) continue;
                most = std::max(most, g.at);
                if (g.at > 0) least = least > 0 ? std::min(least, g.at) : g.at;
            }
        m_unit = timeUnitFor(most);
        low = m_log ? std::floor(std::log10(least > 0 ? least / m_unit.seconds : 0.1)) : 0;
        high = m_log ? std::log10(std::max(most / m_unit.seconds, 1e-9)) : most / m_unit.seconds;
        if (!(high > low)) high = low + 1;
    }
    bool shows(const results::CreepCurve& c, double at) const { return !m_log || (at > 0 && !after(c, at)); }
    double x(double at) const { return m_log ? std::log10(at / m_unit.seconds) : at / m_unit.seconds; }
    std::string title() const {
        return fmt::format("Time under load ({}{})", m_unit.symbol, m_log ? ", by its logarithm" : "");
    }
    static bool after(const results::CreepCurve& c, double at) {
        return c.unloadedAfter && at >= *c.unloadedAfter;
    }
    double low = 0, high = 1;
    bool logarithmic() const { return m_log; }

private:
    bool m_log;
    TimeUnit m_unit{1, "s"};
};

} // namespace

Picture creepLines(const domain::StudyData& data, const std::vector<results::CreepCurve>& curves,
                   const quantity::Unit& unit, const CreepLook& look) {
    const Times times(curves, look.logTime);
    double most = 0;
    std::set<domain::Id> shown;
    std::set<double> limits;
    for (const auto& c : curves) {
        shown.insert(c.option);
        for (const auto& g : c.moved)
            most = std::max(most, unit.fromSi(g.value));
        if (c.limit) limits.insert(*c.limit);
    }
    for (const double l : limits)
        if (unit.fromSi(l) < 1.6 * most) most = std::max(most, unit.fromSi(l));
    Picture p;
    p.width = look.width;
    p.height = look.height;
    Plane plane{times.low,       times.high, 0, most > 0 ? 1.08 * most : 1, 64, 14, look.width - legendWidth,
                look.height - 44};
    drawAxes(p, plane, times.title(), fmt::format("Movement ({})", unit.symbol),
             times.logarithmic() ? TickText::powers : TickText::plain);
    for (const double l : limits) {
        const double y = plane.py(unit.fromSi(l));
        if (y < plane.top) continue;
        p.add(Line{{plane.left, y}, {plane.right, y}, Ink::warn, 1.4, Dash::dashDot});
        p.add(Label{
            {plane.right - 4, y - 5}, "limit " + quantity::withUnit(l, unit), 11, Align::right, Ink::warn});
    }
    for (const auto& c : curves) {
        const auto n = placeOf(data, c.option);
        Polyline loaded{{}, seriesInk(n), 1.8, seriesDash(n), 1},
            back{{}, seriesInk(n), 1.2, Dash::dotted, 1};
        for (const auto& g : c.moved) {
            if (!times.shows(c, g.at)) continue;
            const Point at{plane.px(times.x(g.at)), plane.py(unit.fromSi(g.value))};
            const bool after = Times::after(c, g.at);
            if (after && back.points.empty() && !loaded.points.empty())
                back.points.push_back(loaded.points.back());
            (after ? back : loaded).points.push_back(at);
            p.add(Mark{at, after ? MarkShape::ring : MarkShape::disc, 6, seriesInk(n)});
            p.hits.push_back({at.x - 6, at.y - 6, 12, 12,
                              fmt::format("{}: {}", c.label, quantity::withUnit(g.value, unit)), c.pull});
        }
        p.add(std::move(loaded));
        if (back.points.size() > 1) p.add(std::move(back));
    }
    drawNames(p, data, shown, look.width - legendWidth + 14);
    return p;
}

Picture hitLines(const domain::StudyData& data, const std::vector<results::HitHistory>& spots,
                 const std::string& title, const quantity::Unit& unit, double width, double height) {
    int most = 2;
    double high = 0;
    std::set<domain::Id> shown;
    for (const auto& s : spots) {
        shown.insert(s.option);
        for (const auto& h : s.hits) {
            most = std::max(most, h.number);
            high = std::max(high, unit.fromSi(h.peak.value));
        }
    }
    Picture p;
    p.width = width;
    p.height = height;
    Plane plane{0.5, most + 0.5, 0, high > 0 ? 1.08 * high : 1, 64, 14, width - legendWidth, height - 44};
    drawAxes(p, plane, "Hit on the same spot", fmt::format("{} ({})", title, unit.symbol), TickText::counts);
    for (const auto& s : spots) {
        const auto n = placeOf(data, s.option);
        Polyline line{{}, seriesInk(n), 1.8, seriesDash(n), 1};
        for (const auto& h : s.hits) {
            const Point at{plane.px(h.number), plane.py(unit.fromSi(h.peak.value))};
            line.points.push_back(at);
            p.add(Mark{at, markOf(h.peak.state), 9, seriesInk(n)});
            p.hits.push_back({at.x - 7, at.y - 7, 14, 14,
                              fmt::format("{}{}{}, hit {}: {}", s.piece, s.where.empty() ? "" : ", ", s.where,
                                          h.number, quantity::withUnit(h.peak.value, unit)),
                              h.pull});
        }
        p.add(std::move(line));
    }
    drawNames(p, data, shown, width - legendWidth + 14);
    return p;
}

} // namespace anvil::chart
