#include <algorithm>
#include <anvil/chart/charts.h>
#include <anvil/domain/outcomes.h>

namespace anvil::chart {

Picture livePull(const LivePull& pull, const quantity::Unit& unit, double width, double height) {
    CurveChart c;
    c.xTitle = "Time (s)";
    c.yTitle = loadTitle(unit);
    const auto& trace = pull.trace;
    const double begin = trace.empty() ? 0 : trace.front().time;
    double top = 0, last = trace.empty() ? 0 : trace.back().time - begin;
    for (auto t : pull.earlier) {
        for (auto& p : t.points) {
            top = std::max(top, p.y);
            last = std::max(last, p.x);
            p.y = unit.fromSi(p.y);
        }
        c.traces.push_back(std::move(t));
    }
    c.x1 = std::max(10.0, last);
    if (pull.expected)
        for (const auto& [value, dash] : {std::pair{pull.expected->first, Dash::dashed},
                                          std::pair{pull.expected->second, Dash::dotted}}) {
            Trace t;
            t.ink = Ink::faint;
            t.dash = dash;
            t.points = {{0, unit.fromSi(value)}, {c.x1, unit.fromSi(value)}};
            top = std::max(top, value);
            c.traces.push_back(std::move(t));
        }
    Trace live;
    live.ink = Ink::accent;
    live.width = 1.8;
    if (pull.calibratedTo) live.calibratedTo = unit.fromSi(*pull.calibratedTo);
    for (const auto& s : rig::thinned(trace, static_cast<std::size_t>(std::max(100.0, width / 2)))) {
        top = std::max(top, s.high);
        live.points.push_back({s.time - begin, unit.fromSi(s.low)});
        if (s.high != s.low) live.points.push_back({s.time - begin, unit.fromSi(s.high)});
    }
    if (live.points.size() > 400) live.width = 1; // a thick zigzag of noise costs many times a thin one
    c.traces.push_back(std::move(live));
    for (std::size_t k = 0; k < pull.marks.size(); ++k)
        c.pins.push_back({domain::markName(pull.marks, k), pull.marks[k].at - begin, unit.fromSi(0.05 * top),
                          false, 0, true, false});
    if (pull.limit) {
        c.limit = unit.fromSi(*pull.limit);
        if (top > 0.5 * *pull.limit) top = std::max(top, *pull.limit);
    }
    // An unloaded rig shows a line, not its noise: 100 N, 1 N·m, 1 g.
    const double least = unit.dimension == quantity::Dimension::force    ? 100
                         : unit.dimension == quantity::Dimension::torque ? 1
                                                                         : 9.80665;
    c.y0 = unit.fromSi(-0.03 * top);
    c.y1 = unit.fromSi(1.08 * std::max(top, least));
    return curves(c, width, height);
}

} // namespace anvil::chart
