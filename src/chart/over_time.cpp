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
        return fmt::format("Time since it was loaded ({}{})", m_unit.symbol,
                           m_log ? ", by its logarithm" : "");
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

namespace {

/// What all panels of a creep picture share.
struct CreepScale {
    Times times;
    double most = 0; ///< on the upper axis, in display units
    const quantity::Unit& unit;
};

/// One held load: its readings under load as a line, those after it was taken off as rings on a dotted one.
void drawCreep(Picture& p, const Plane& plane, const CreepScale& scale, const results::CreepCurve& c,
               std::size_t n) {
    Polyline loaded{{}, seriesInk(n), 1.8, seriesDash(n), 1}, back{{}, seriesInk(n), 1.2, Dash::dotted, 1};
    for (const auto& g : c.moved) {
        if (!scale.times.shows(c, g.at)) continue;
        const Point at{plane.px(scale.times.x(g.at)), plane.py(scale.unit.fromSi(g.value))};
        const bool after = Times::after(c, g.at);
        if (after && back.points.empty() && !loaded.points.empty())
            back.points.push_back(loaded.points.back());
        (after ? back : loaded).points.push_back(at);
        p.add(Mark{at, after ? MarkShape::ring : MarkShape::disc, 6, seriesInk(n)});
        p.hits.push_back({at.x - 6, at.y - 6, 12, 12,
                          fmt::format("{}: {}", c.label, quantity::withUnit(g.value, scale.unit)),
                          OfPull{c.pull}});
    }
    p.add(std::move(loaded));
    if (back.points.size() > 1) p.add(std::move(back));
}

/// The loads of one condition.
void drawCondition(Picture& p, const Plane& plane, const CreepScale& scale, const domain::StudyData& data,
                   const std::vector<results::CreepCurve>& curves, domain::Id condition) {
    drawAxes(p, plane, scale.times.title(), fmt::format("Movement ({})", scale.unit.symbol),
             scale.times.logarithmic() ? TickText::powers : TickText::plain);
    std::set<double> limits;
    for (const auto& c : curves)
        if (c.condition == condition && c.limit) limits.insert(*c.limit);
    for (const double l : limits) {
        const double y = plane.py(scale.unit.fromSi(l));
        if (y < plane.top) continue;
        p.add(Line{{plane.left, y}, {plane.right, y}, Ink::warn, 1.4, Dash::dashDot});
        p.add(Label{{plane.left + 6, y - 5},
                    "limit " + quantity::withUnit(l, scale.unit),
                    11,
                    Align::left,
                    Ink::warn});
    }
    for (const auto& c : curves)
        if (c.condition == condition) drawCreep(p, plane, scale, c, placeOf(data, c.option));
}

} // namespace

Picture creepLines(const domain::StudyData& data, const std::vector<results::CreepCurve>& curves,
                   const quantity::Unit& unit, const CreepLook& look) {
    CreepScale scale{Times(curves, look.logTime), 0, unit};
    std::set<domain::Id> options, seen;
    for (const auto& c : curves) {
        options.insert(c.option);
        seen.insert(c.condition);
        for (const auto& g : c.moved)
            scale.most = std::max(scale.most, unit.fromSi(g.value));
    }
    for (const auto& c : curves) // a limit that was nearly reached is seen
        if (c.limit && unit.fromSi(*c.limit) < 1.6 * scale.most)
            scale.most = std::max(scale.most, unit.fromSi(*c.limit));
    Picture p;
    p.width = look.width;
    const double room = look.width - legendWidth;
    const auto columns = std::clamp<std::size_t>(static_cast<std::size_t>(room / 300), 1,
                                                 std::max<std::size_t>(seen.size(), 1));
    const auto rows = (seen.size() + columns - 1) / columns;
    const double wide = room / static_cast<double>(columns),
                 high = std::max(look.height / static_cast<double>(std::max<std::size_t>(rows, 1)), 190.0);
    p.height = high * static_cast<double>(rows);
    std::size_t place = 0;
    for (const auto& condition : data.conditions) {
        if (!seen.contains(condition.id)) continue;
        const auto row = place / columns, column = place % columns;
        const double left = wide * static_cast<double>(column), top = high * static_cast<double>(row);
        ++place;
        const Plane plane{scale.times.low,
                          scale.times.high,
                          0,
                          scale.most > 0 ? 1.08 * scale.most : 1,
                          left + 54,
                          top + 30,
                          left + wide - 14,
                          top + high - 44};
        if (seen.size() > 1)
            p.add(
                Label{{plane.left, top + 18}, elided(condition.name, 34), 13, Align::left, Ink::text, true});
        drawCondition(p, plane, scale, data, curves, condition.id);
    }
    drawNames(p, data, options, room + 14);
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
            p.add(Mark{at, markOf(h.peak), 9, seriesInk(n)});
            p.hits.push_back({at.x - 7, at.y - 7, 14, 14,
                              fmt::format("{}{}{}, hit {}: {}", s.piece, s.where.empty() ? "" : ", ", s.where,
                                          h.number, quantity::withUnit(h.peak.value, unit)),
                              OfPull{h.pull}});
        }
        p.add(std::move(line));
    }
    drawNames(p, data, shown, width - legendWidth + 14);
    return p;
}

} // namespace anvil::chart
