#include <anvil/pages/page.h>

#include <algorithm>
#include <anvil/results/values.h>
#include <anvil/words/pull.h>

namespace anvil::pages {
namespace {

/// A pull's curve in the units it is drawn in.
struct Drawn {
    chart::Trace trace;
    double x0 = 0, x1 = 0, y1 = 0;
};

/// Where each sample lies along what was asked for, in display units.
std::vector<double> placesAlong(const curve::ReadCurve& curve, const quantity::Units& units, Along along) {
    if (along == Along::time) return chart::sinceLoad(curve);
    auto x = chart::abscissa(curve);
    const auto& r = curve.reading;
    if (along == Along::landmarks) {
        const double peak = x[r.peak.index], end = r.breakPoint && r.breakPoint->index > r.peak.index
                                                       ? x[r.breakPoint->index]
                                                       : 2 * peak;
        for (auto& v : x)
            v = v <= peak || !(end > peak) ? v / peak : 1 + (v - peak) / (end - peak);
    } else if (!curve.cleaned.travel.empty()) {
        for (auto& v : x)
            v = units.of(r.travelKind).fromSi(v);
    }
    return x;
}

Drawn drawn(const Source& source, const domain::Specimen& s, const domain::Pull& p,
            const curve::ReadCurve& curve, const quantity::Units& units, std::size_t columns, std::size_t n,
            Along along) {
    const auto& force = units.of(curve.reading.loadKind);
    const auto x = placesAlong(curve, units, along);
    auto y = curve.cleaned.load;
    for (auto& v : y)
        v = force.fromSi(v);
    const bool out = p.standing == domain::Standing::voided || p.standing == domain::Standing::aside;
    const auto standing = results::standingOf(*source.study, p, source.readings->find(p.id));
    Drawn d;
    d.trace.name =
        s.label + (standing == domain::Standing::counts ? "" : " (" + words::standsText(p, standing) + ")");
    d.trace.ink = out ? chart::Ink::faint : chart::seriesInk(n);
    d.trace.dash = out ? chart::Dash::dotted : chart::seriesDash(n);
    d.trace.pull = p.id;
    if (p.settings.calibratedTo)
        d.trace.calibratedTo = force.fromSi(*p.settings.calibratedTo - curve.reading.baseline);
    const auto [low, high] = std::minmax_element(x.begin(), x.end());
    d.trace.points = curve::Pyramid(y).draw(x, y, *low, *high + 1e-12, columns);
    d.x0 = *low;
    d.x1 = *high;
    d.y1 = *std::max_element(y.begin(), y.end());
    return d;
}

} // namespace

chart::CurveChart overlayOf(const Source& source, domain::Id option, domain::Id condition,
                            const quantity::Units& units, std::size_t columns, Along along) {
    chart::CurveChart c;
    std::size_t n = 0;
    bool time = false;
    auto load = quantity::Dimension::force, travel = quantity::Dimension::length;
    for (const auto& s : source.study->specimens) {
        if (s.option != option || s.condition != condition) continue;
        for (const auto& p : source.study->pulls) {
            if (p.specimen != s.id || !p.curve || !source.curve) continue;
            const auto curve = source.curve(p.id);
            if (!curve) continue;
            load = curve->reading.loadKind;
            travel = curve->reading.travelKind;
            time = time || along == Along::time || curve->cleaned.travel.empty();
            if (along == Along::landmarks && !(chart::abscissa(*curve)[curve->reading.peak.index] > 0))
                continue; // its peak lies at its toe
            auto one = drawn(source, s, p, *curve, units, columns, n, along);
            c.x0 = n ? std::min(c.x0, one.x0) : one.x0;
            c.x1 = n ? std::max(c.x1, one.x1) : one.x1;
            c.y1 = std::max(n ? c.y1 : 0, one.y1);
            c.traces.push_back(std::move(one.trace));
            ++n;
        }
    }
    if (n == 0) c.x1 = c.y1 = 0;
    c.y0 = -0.03 * c.y1;
    c.y1 *= 1.08;
    c.xTitle = along == Along::landmarks ? "Place between landmarks: toe 0, peak 1, break 2"
               : time                    ? "Time since the load began (s)"
                                         : chart::travelTitle(units.of(travel));
    c.yTitle = chart::loadTitle(units.of(load));
    return c;
}

} // namespace anvil::pages
