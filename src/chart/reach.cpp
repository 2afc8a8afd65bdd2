#include <anvil/chart/charts.h>

#include <algorithm>
#include <anvil/plan/reach.h>
#include <anvil/quantity/print.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <functional>

namespace anvil::chart {

namespace {

/// One bar a square: to the expected value thick, on to the upper prediction thin.
Picture bars(const domain::StudyData& data,
             const std::function<plan::HeadRoom(domain::Id, domain::Id)>& roomOf, const quantity::Unit& unit,
             const std::string& shortWord, double width) {
    Picture p;
    p.width = width;
    constexpr double row = 22;
    const double left = std::clamp(0.34 * width, 140.0, 260.0), right = width - 190;
    struct Bar {
        std::string name;
        plan::HeadRoom room;
    };
    std::vector<Bar> bars;
    double top = 0, limit = 0;
    for (const auto& c : data.conditions)
        for (const auto& o : data.options) {
            const auto* square = data.study.plan.square(o.id, c.id);
            if (square && square->struck) continue;
            bars.push_back({o.name + (data.conditions.size() > 1 ? ", " + c.name : ""), roomOf(o.id, c.id)});
            top = std::max({top, unit.fromSi(bars.back().room.upper), unit.fromSi(bars.back().room.limit)});
            limit = std::max(limit, unit.fromSi(bars.back().room.limit));
        }
    const double scale = top > 0 ? (right - left) / (1.05 * top) : 0;
    double y = 22;
    for (const auto& [name, room] : bars) {
        const double mid = y + row / 2;
        p.add(Label{{8, mid + 4}, elided(name, static_cast<std::size_t>((left - 16) / 7)), 13});
        p.hits.push_back({0, y, width, row, name + ": " + room.sentence});
        p.add(Line{{left, mid}, {right, mid}, Ink::grid, 1});
        const bool bad = room.reach == plan::Reach::topsOut || room.reach == plan::Reach::tooSmall;
        if (room.upper > 0) {
            const double a = left + unit.fromSi(room.expected) * scale,
                         b = left + unit.fromSi(room.upper) * scale;
            p.add(Line{{left, mid}, {a, mid}, bad ? Ink::warn : Ink::series0, 7});
            p.add(Line{{a, mid}, {b, mid}, bad ? Ink::warn : Ink::series0, 3});
            p.add(Mark{{b, mid}, MarkShape::tick, 11, bad ? Ink::warn : Ink::series0});
        }
        const std::string amount =
            room.upper > 0 ? "up to " + quantity::withUnit(room.upper, unit, 3) : std::string();
        p.add(Label{{right + 12, mid + 4},
                    room.reach == plan::Reach::topsOut && !shortWord.empty() ? shortWord
                                                                             : plan::word(room.reach),
                    13,
                    Align::left,
                    bad ? Ink::warn : Ink::text,
                    room.reach != plan::Reach::fine});
        p.add(Label{{width - 8, mid + 4}, amount, 11, Align::right, Ink::faint, false});
        y += row;
    }
    if (limit > 0) {
        const double x = left + limit * scale;
        p.add(Line{{x, 16}, {x, y}, Ink::warn, 1.4, Dash::dashed});
        p.add(Label{{x - 4, 13},
                    "the rig ends at " + quantity::withUnit(unit.toSi(limit), unit, 3),
                    11,
                    Align::right,
                    Ink::warn});
    }
    p.height = y + 8;
    return p;
}

} // namespace

Picture reachBars(const domain::StudyData& data, const results::Verdict& verdict, const quantity::Unit& unit,
                  double width) {
    return bars(
        data, [&](auto option, auto condition) { return plan::headRoom(data, verdict, option, condition); },
        unit, {}, width);
}

Picture travelBars(const domain::StudyData& data, const results::Readings& readings,
                   const quantity::Unit& unit, double width) {
    return bars(
        data,
        [&](auto option, auto condition) { return plan::travelRoom(data, readings, option, condition); },
        unit, "short of travel", width);
}

Picture powerCurve(double cv, int planned, double margin, double width, double height) {
    CurveChart c;
    c.x1 = std::max(0.3, 3 * margin) * 100;
    c.y0 = 0;
    c.y1 = 122;
    c.xTitle = "True difference (%)";
    c.yTitle = "Chance of seeing it (%)";
    c.legend = true;
    std::vector<int> counts{3, 5, 7, 10};
    if (planned >= 2 && std::find(counts.begin(), counts.end(), planned) == counts.end())
        counts.push_back(planned);
    std::size_t k = 0;
    for (const int n : counts) {
        Trace t;
        t.name = std::to_string(n) + " of each";
        t.ink = seriesInk(k);
        t.dash = seriesDash(k++);
        t.width = n == planned ? 3 : 1.6;
        for (int i = 1; i <= 60; ++i) {
            const double d = c.x1 / 100 * i / 60;
            t.points.push_back({100 * d, 100 * stats::powerOf(n, cv, d)});
        }
        c.traces.push_back(std::move(t));
    }
    return curves(c, width, height);
}

} // namespace anvil::chart
