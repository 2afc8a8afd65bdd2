#include <anvil/pages/page.h>

#include <algorithm>
#include <anvil/curve/average.h>
#include <anvil/quantity/print.h>
#include <anvil/results/values.h>
#include <anvil/words/pull.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::pages {
namespace {

using Points = std::vector<curve::Pyramid::Point>;

/// The curves of a square that may be averaged, and those that may not.
struct Square {
    std::vector<std::shared_ptr<const curve::ReadCurve>> kept;
    std::vector<const curve::ReadCurve*> curves;
    std::vector<std::string> out;
};

Square squareOf(const Source& source, domain::Id option, domain::Id condition) {
    Square s;
    for (const auto& piece : source.study->specimens) {
        if (piece.option != option || piece.condition != condition) continue;
        for (const auto& p : source.study->pulls) {
            if (p.specimen != piece.id || !p.curve || !source.curve) continue;
            if (results::standingOf(*source.study, p, source.readings->find(p.id)) !=
                domain::Standing::counts) {
                s.out.push_back(
                    fmt::format("{} ({})", piece.label,
                                words::standsText(
                                    p, results::standingOf(*source.study, p, source.readings->find(p.id)))));
                continue;
            }
            if (auto curve = source.curve(p.id)) {
                s.curves.push_back(curve.get());
                s.kept.push_back(std::move(curve));
            }
        }
    }
    return s;
}

/// Values of an average in display units.
struct Shown {
    const curve::Average& average;
    const quantity::Unit &load, &travel;
    Points points(const std::vector<double>& y) const {
        Points out;
        out.reserve(y.size());
        for (std::size_t i = 0; i < y.size(); ++i)
            out.push_back(
                {average.againstTime ? average.x[i] : travel.fromSi(average.x[i]), load.fromSi(y[i])});
        return out;
    }
};

void addAverage(chart::CurveChart& c, const Shown& shown, const std::string& name, std::size_t n) {
    const auto ink = chart::seriesInk(n);
    c.bands.push_back({shown.points(shown.average.low), shown.points(shown.average.high),
                       n == 0 ? chart::Ink::band : chart::Ink::grid, 0.6});
    c.traces.push_back(
        {"least, greatest", ink, chart::Dash::dotted, 1, 0.8, shown.points(shown.average.least)});
    c.traces.push_back({"", ink, chart::Dash::dotted, 1, 0.8, shown.points(shown.average.greatest)});
    c.traces.push_back({name, ink, chart::seriesDash(n), 2.6, 1, shown.points(shown.average.load)});
}

/// The curve's value at a place, by straight lines; nothing beyond its ends.
std::optional<double> at(const Points& points, double x) {
    const auto next = std::lower_bound(points.begin(), points.end(), x,
                                       [](const curve::Pyramid::Point& p, double v) { return p.x < v; });
    if (next == points.end() || (next == points.begin() && next->x > x)) return std::nullopt;
    if (next == points.begin()) return next->y;
    const auto before = next - 1;
    return before->y + (next->y - before->y) * (x - before->x) / (next->x - before->x);
}

void fit(chart::CurveChart& c) {
    bool first = true;
    for (const auto& t : c.traces)
        for (const auto& q : t.points) {
            c.x0 = first ? q.x : std::min(c.x0, q.x);
            c.x1 = first ? q.x : std::max(c.x1, q.x);
            c.y0 = first ? q.y : std::min(c.y0, q.y);
            c.y1 = first ? q.y : std::max(c.y1, q.y);
            first = false;
        }
    c.y0 = std::min(c.y0, 0.0) - 0.03 * c.y1;
    c.y1 *= 1.08;
}

} // namespace

AverageView averageView(const Source& source, domain::Id option, domain::Id condition, domain::Id against,
                        const quantity::Units& units) {
    AverageView view;
    const auto square = squareOf(source, option, condition);
    const auto average = square.curves.size() > 1 ? curve::averaged(square.curves) : std::nullopt;
    if (!average) {
        view.said.emplace_back("An average needs two curves that count in this square.");
        return view;
    }
    const auto& first = square.curves.front()->reading;
    const auto &load = units.of(first.loadKind), &travel = units.of(first.travelKind);
    const Shown shown{*average, load, travel};
    const auto& name = source.study->optionAt(option).name;
    auto& c = view.chart;
    c.legend = true;
    c.xTitle = average->againstTime ? "Time since the load began (s)" : chart::travelTitle(travel);
    c.yTitle = chart::loadTitle(load);
    addAverage(c, shown, name, 0);
    view.said.push_back(fmt::format("{} curves, registered on {}: the averaged peak, {}, is the mean of the "
                                    "peaks. The band is one standard deviation each way.",
                                    average->curves,
                                    average->toTheBreak ? "toe, peak and break" : "toe and peak",
                                    quantity::withUnit(average->load[average->peak], load)));
    if (const auto plain = curve::plainMean(square.curves)) {
        Points points;
        for (std::size_t i = 0; i < plain->x.size(); ++i)
            points.push_back({average->againstTime ? plain->x[i] : travel.fromSi(plain->x[i]),
                              load.fromSi(plain->load[i])});
        c.traces.push_back({"plain mean", chart::Ink::faint, chart::Dash::dashed, 1.4, 1, std::move(points)});
        if (plain->bias > 0)
            view.said.push_back(
                fmt::format("The plain mean at equal travel blurs the peaks: it reads {} too low here.",
                            quantity::withUnit(plain->bias, load)));
    }
    if (!square.out.empty()) view.said.push_back(fmt::format("Left out: {}.", fmt::join(square.out, ", ")));
    if (against && against != option) {
        const auto others = squareOf(source, against, condition);
        const auto second = others.curves.size() > 1 ? curve::averaged(others.curves) : std::nullopt;
        const auto& who = source.study->optionAt(against).name;
        if (!second || second->againstTime != average->againstTime) {
            view.said.push_back(fmt::format("{} has no average to set against it.", who));
        } else {
            const Shown theirs{*second, load, travel};
            addAverage(c, theirs, who, 1);
            const auto mine = shown.points(average->load), other = theirs.points(second->load);
            Points difference;
            double greatest = 0, where = 0;
            for (const auto& q : mine)
                if (const auto y = at(other, q.x)) {
                    difference.push_back({q.x, q.y - *y});
                    if (std::abs(q.y - *y) > std::abs(greatest)) {
                        greatest = q.y - *y;
                        where = q.x;
                    }
                }
            c.traces.push_back(
                {"difference", chart::Ink::accent, chart::Dash::dashDot, 1.8, 1, std::move(difference)});
            view.said.push_back(fmt::format(
                "{} less {}: at most {} {}, at {} {}.", name, who, quantity::significant(greatest),
                load.symbol, quantity::significant(where), average->againstTime ? "s" : travel.symbol));
        }
    }
    fit(c);
    return view;
}

std::vector<std::pair<std::string, chart::CurveChart>>
chartsByOption(const Source& source, domain::Id condition, const quantity::Units& units) {
    std::vector<std::pair<std::string, chart::CurveChart>> out;
    out.reserve(source.study->options.size());
    for (const auto& o : source.study->options)
        out.emplace_back(o.name, overlayOf(source, o.id, condition, units, 200));
    return out;
}

chart::RateStrip rateOf(const Source& source, const domain::Pull& pull, const curve::ReadCurve& curve,
                        const quantity::Units& units) {
    chart::RateStrip strip;
    const auto& c = curve.cleaned;
    const bool byTravel = !c.travel.empty() && curve.reading.travelRate;
    const auto& unit = byTravel ? units.of(curve.reading.travelKind) : units.of(curve.reading.loadKind);
    strip.unit = std::string(unit.symbol) + "/s";
    const auto rateOfReading = [&](const curve::Reading& r) { return byTravel ? r.travelRate : r.loadRate; };
    if (const auto own = rateOfReading(curve.reading)) strip.own = unit.fromSi(*own);
    const auto& values = byTravel ? c.travel : c.load;
    auto x = chart::abscissa(curve);
    if (!c.travel.empty())
        for (auto& v : x)
            v = units.of(curve.reading.travelKind).fromSi(v);
    // Over a hundredth of the run, so that noise does not drown it.
    const auto step = std::max<std::size_t>(1, values.size() / 100);
    for (std::size_t i = step; i < values.size(); i += std::max<std::size_t>(1, step / 2)) {
        const double took = c.time[i] - c.time[i - step];
        if (took > 0)
            strip.rate.push_back({x[i - step / 2], unit.fromSi((values[i] - values[i - step]) / took)});
    }
    const auto& piece = source.study->specimenAt(pull.specimen);
    for (const auto& p : source.study->pulls) {
        const auto& s = source.study->specimenAt(p.specimen);
        const auto* reading = source.readings->find(p.id);
        if (p.id == pull.id || s.option != piece.option || s.condition != piece.condition || !reading)
            continue;
        const auto rate = rateOfReading(*reading);
        if (!rate || !strip.own || !(*strip.own > 0)) continue;
        const double there = unit.fromSi(*rate);
        if (there > 1.25 * *strip.own || there < *strip.own / 1.25)
            strip.others.emplace_back(
                fmt::format("{}: {} {}", s.label, quantity::significant(there, 2), strip.unit), there);
    }
    return strip;
}

} // namespace anvil::pages
