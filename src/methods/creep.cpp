// Creep: how a held load moves on over days.
#include "common_metrics.h"
#include "tell.h"

#include <algorithm>
#include <cmath>

namespace anvil::methods {
namespace {

constexpr Input inputs[] = {
    {"gauge_length", "Gauge length", "if a strain is wanted", Dimension::length, Of::specimen},
    {"gauge", "Gauge", "such as 12.4 mm, at its time", Dimension::length, Of::pull, Form::series, true, false,
     true},
    {"unloaded_at", "Unloaded at", "from then on the gauge tells the recovery", Dimension::time, Of::pull,
     Form::one, false, false, true},
    {.key = "limit", .title = "Limit", .hint = "how far it may move", .stays = true},
};
constexpr Metric metrics[] = {
    {.key = "creep",
     .title = "Creep",
     .noun = "creep",
     .dimension = Dimension::length,
     .sense = Sense::less,
     .more = "creeps more than",
     .less = "creeps less than"},
    {"rate_per_decade", "Creep per decade", "creep for every tenfold time", Dimension::length, Sense::less},
    {"recovery", "Recovery", "share of the creep that came back", Dimension::ratio, Sense::more, "%"},
    {"permanent_set", "Permanent set", "creep that stayed", Dimension::length, Sense::less},
    {"time_to_limit", "Time to the limit", "time to the limit", Dimension::time, Sense::more, "d"},
};

struct Series {
    std::vector<SeriesPoint> loaded, after;
};

/// Slope of the movement against log₁₀ of the time since loading, least squares; empty with fewer than two
/// different times.
std::optional<double> ratePerDecade(const std::vector<SeriesPoint>& loaded) {
    double n = 0, mx = 0, my = 0, xx = 0, xy = 0;
    for (const auto& g : loaded)
        if (g.at > loaded.front().at) {
            const double x = std::log10(g.at - loaded.front().at),
                         y = std::abs(g.value - loaded.front().value);
            ++n;
            xx += x * x;
            xy += x * y;
            mx += x;
            my += y;
        }
    if (n < 2 || !(n * xx > mx * mx * (1 + 1e-12))) return std::nullopt;
    return (n * xy - mx * my) / (n * xx - mx * mx);
}

/// When the movement first reaches the limit: between two readings, for nobody looked in the meantime; above
/// the last time where it does not.
stats::Value timeTo(double limit, const std::vector<SeriesPoint>& loaded) {
    const auto moved = [&](const SeriesPoint& g) { return std::abs(g.value - loaded.front().value); };
    for (std::size_t i = 1; i < loaded.size(); ++i)
        if (moved(loaded[i]) >= limit)
            return {loaded[i - 1].at - loaded.front().at, stats::Bound::between,
                    loaded[i].at - loaded.front().at};
    const double last = loaded.back().at - loaded.front().at;
    return {last, stats::Bound::above, last};
}

/// Movement since the first reading under load; what sprang back before it is in no number.
/// The rate per decade of time fits what slows down as log t does (primary creep); a movement that goes on
/// evenly or quickens is told by its readings only. Source: Dowling, Mechanical Behavior of Materials, ch.
/// 15; least squares: Draper & Smith, Applied Regression Analysis, ch. 1.
Expected<Numbers> formulas(const Method& method, const Evidence& e) {
    Tell tell(method, e);
    Series s;
    const auto unloaded = e.value("unloaded_at");
    if (const auto at = e.series.find("gauge"); at != e.series.end())
        for (const auto& g : at->second)
            (unloaded && g.at >= *unloaded ? s.after : s.loaded).push_back(g);
    for (const auto* part : {&s.loaded, &s.after})
        for (std::size_t i = 1; i < part->size(); ++i)
            if (!((*part)[i].at > (*part)[i - 1].at))
                return fail("Every reading must be later than the one before.");
    if (s.loaded.size() < 2) {
        for (const auto& m : method.metrics)
            tell.without(m.key, "creep needs at least two readings under load");
        return tell.done();
    }
    const double first = s.loaded.front().value, creep = std::abs(s.loaded.back().value - first);
    tell.said("creep", creep);
    const double hours = (s.loaded.back().at - s.loaded.front().at) / 3600;
    tell.note(hours < 48 ? fmt::format("Over {:.1f} hours.", hours)
                         : fmt::format("Over {:.1f} days.", hours / 24));
    if (const auto rate = ratePerDecade(s.loaded)) tell.exact("rate_per_decade", *rate);
    tell.without("rate_per_decade", "it needs readings at two times after the first");
    if (!s.after.empty()) {
        // Which way it crept is known; whoever goes back past the first reading under load also shows what
        // sprang back at once, of which nobody knows how much it was.
        const double way = s.loaded.back().value >= first ? 1 : -1,
                     left = way * (s.after.back().value - first);
        if (left < 0) {
            for (const char* key : {"recovery", "permanent_set"})
                tell.without(
                    key, "the gauge went back past its first reading under load: it needs one from before "
                         "loading");
        } else {
            if (creep > 0) tell.exact("recovery", (creep - left) / creep);
            tell.exact("permanent_set", left);
        }
    }
    tell.without("recovery", s.after.empty() ? "it has not been unloaded" : "it did not creep");
    tell.without("permanent_set", "it has not been unloaded");
    if (const auto limit = e.value("limit")) tell.number("time_to_limit", timeTo(*limit, s.loaded));
    tell.without("time_to_limit", "no limit was set");
    return tell.done();
}

void sketch(Easel& e) {
    e.line({30, 20}, {150, 20}, Tone::ground, 4);
    e.box(82, 22, 16, 60);
    e.box(72, 86, 36, 28, Tone::second);
    e.measure({120, 22}, {120, 82}, "L0", "gauge_length");
    e.line({170, 130}, {290, 130});
    e.line({170, 130}, {170, 30});
    std::vector<At> rise;
    for (int i = 0; i <= 24; ++i)
        rise.push_back({170 + 5.0 * i, 130 - 26 * std::log(1 + 0.9 * i)});
    e.curve(rise, Tone::piece, 2);
    if (e.said("limit")) e.line({170, 52}, {290, 52}, Tone::failed, 1.2, Stroke::dashed);
    e.label({286, 46}, "limit", "limit", Beside::left);
}

/// A weight that has hung for a while: where it was, where it is, and the hours between.
void card(Easel& e) {
    e.line({12, 14}, {92, 14}, Tone::ground, 4);
    e.line({52, 14}, {52, 50}, Tone::piece, 3);
    e.line({24, 52}, {80, 52}, Tone::ground, 1.4, Stroke::dashed);
    e.box(40, 62, 24, 20, Tone::second);
    e.line({52, 50}, {52, 62}, Tone::piece, 3, Stroke::dotted);
    e.dot({116, 48}, Dot::ring, 38, Tone::load);
    e.line({116, 48}, {116, 35}, Tone::load, 2.4);
    e.line({116, 48}, {126, 53}, Tone::load, 2.4);
}

} // namespace

extern const Method creep;
const Method creep{"creep",
                   "Creep",
                   "How a held load moves on over days.",
                   "Gauge readings at noted times.",
                   Action::hang,
                   {sketch, card},
                   inputs,
                   metrics,
                   formulas,
                   {},
                   {},
                   "hang weight days slow sag stretch plastic rope clip glue hours long load",
                   stats::Family::normal};

} // namespace anvil::methods
