#include <anvil/results/trends.h>

#include <anvil/quantity/entry.h>
#include <anvil/quantity/unit.h>
#include <anvil/stats/censored_line.h>
#include <cmath>
#include <iterator>
#include <set>

namespace anvil::results {
namespace {

TrendVerdict judged(const TrendResult& t, double margin) {
    if (!t.slopeInterval) return TrendVerdict::cannotTell;
    const auto [low, high] = *t.slopeInterval;
    const double most = margin * std::abs(t.mean) / (t.to - t.from);
    if (low >= -most && high <= most) return TrendVerdict::flat;
    if (low > 0) return TrendVerdict::rising;
    return high < 0 ? TrendVerdict::falling : TrendVerdict::cannotTell;
}

} // namespace

const char* word(TrendVerdict verdict) {
    static constexpr const char* words[] = {"rising", "falling", "flat", "cannot_tell"};
    static_assert(std::size(words) == static_cast<std::size_t>(TrendVerdict::cannotTell) + 1);
    return words[static_cast<std::size_t>(verdict)];
}

namespace {

/// The unit that all names of conditions with a value are in, such as "24 h" and "48 h"; null: none, or
/// several.
const quantity::Unit* unitOfNames(const StudyData& data) {
    const quantity::Unit* unit = nullptr;
    for (const auto& c : data.conditions) {
        if (!c.value) continue;
        const auto entry = quantity::parseEntry(c.name);
        if (!entry || !entry->unit || (unit && unit != entry->unit)) return nullptr;
        unit = entry->unit;
    }
    return unit;
}

} // namespace

std::string axisUnit(const StudyData& data) {
    if (!data.study.plan.axisUnit.empty()) return data.study.plan.axisUnit;
    const auto* unit = unitOfNames(data);
    return unit ? std::string(unit->symbol) : std::string();
}

double axisStep(const StudyData& data) {
    const auto unit = quantity::findUnit(data.study.plan.axisUnit);
    if (unit) return (*unit)->toSi(1) - (*unit)->toSi(0);
    if (!data.study.plan.axisUnit.empty()) return 1;
    const auto* named = unitOfNames(data);
    if (!named) return 1;
    // Values are kept as the names say them, or in SI units.
    for (const auto& c : data.conditions)
        if (const auto entry = c.value ? quantity::parseEntry(c.name) : fail(""); entry && entry->si != 0)
            return std::abs(*c.value - entry->si) <= 1e-9 * std::abs(entry->si) ? named->factor : 1;
    return 1;
}

namespace {

/// The values of an option along the axis, bounds among them.
struct Points {
    std::vector<stats::ModelRow> rows; // 1 and the place
    std::vector<double> x, y;          // of the exact ones
    std::set<double> places;
    bool bounds = false;
};

Points pointsOf(const StudyData& data, const Verdict& verdict, Id option) {
    Points out;
    for (const auto& c : data.conditions) {
        const auto* g = verdict.group(option, c.id);
        if (!c.value || !g) continue;
        for (const auto& v : g->values) {
            if (v.value.aside) continue;
            out.rows.push_back({{1, *c.value}, v.value});
            out.places.insert(*c.value);
            if (v.value.exact()) {
                out.x.push_back(*c.value);
                out.y.push_back(v.value.value);
            } else {
                out.bounds = true;
            }
        }
    }
    return out;
}

/// From exact values by least squares; with bounds the line is fitted to all of them, never to the exact ones
/// alone.
std::optional<TrendResult> lineThrough(const Points& points) {
    TrendResult t;
    t.points = points.rows.size();
    t.from = *points.places.begin();
    t.to = *points.places.rbegin();
    double middle = 0;
    for (const auto& r : points.rows)
        middle += r.x[1] / static_cast<double>(points.rows.size());
    if (points.bounds) {
        const auto fit = stats::fitModel(points.rows);
        if (!fit) return std::nullopt;
        t.line.slope = fit->coefficients[1];
        t.line.slopeError = fit->errors[1];
        t.line.intercept = fit->coefficients[0];
        t.slopeInterval = fit->interval(1);
        t.mean = fit->coefficients[0] + fit->coefficients[1] * middle;
        return t;
    }
    const auto line = stats::linearTrend(points.x, points.y);
    if (!line) return std::nullopt;
    t.line = *line;
    for (const double y : points.y)
        t.mean += y / static_cast<double>(points.y.size());
    t.medianSlope = stats::medianSlope(points.x, points.y);
    const double half =
        stats::studentQuantile(static_cast<double>(points.x.size()) - 2, 0.975) * line->slopeError;
    if (std::isfinite(half)) t.slopeInterval = {line->slope - half, line->slope + half};
    return t;
}

} // namespace

std::vector<TrendResult> trendsOf(const StudyData& data, const Verdict& verdict) {
    std::vector<TrendResult> out;
    for (const auto& o : data.options) {
        const auto points = pointsOf(data, verdict, o.id);
        if (points.places.size() < 3) continue;
        auto t = lineThrough(points);
        if (!t) {
            if (!points.bounds) continue;
            t.emplace(); // bounds that leave it open: said, not left out
            t->points = points.rows.size();
            t->from = *points.places.begin();
            t->to = *points.places.rbegin();
        }
        t->option = o.id;
        t->verdict = judged(*t, verdict.goal.margin);
        out.push_back(*t);
    }
    return out;
}

} // namespace anvil::results
