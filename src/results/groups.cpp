#include <anvil/results/groups.h>

#include <algorithm>
#include <anvil/quantity/entry.h>
#include <cmath>

namespace anvil::results {

void setSummary(const Goal& goal, Group& g, const stats::Summary& summary) {
    g.summary = summary;
    g.enough = false;
    g.meetsNeed.reset();
    if (!summary.typical) return;
    const double at = *summary.typical;
    g.enough = isEnough(goal, at);
    g.meetsNeed = meetsNeed(goal, at);
    if (summary.bound == stats::Bound::exact) return;
    // It lies anywhere beyond: what holds at the bound is sure where going on changes nothing.
    const bool better = (summary.bound == stats::Bound::above) == (goal.sense == Sense::more);
    g.enough = g.enough && better;
    if (g.meetsNeed && *g.meetsNeed != better) g.meetsNeed.reset();
}

bool rankedFairly(const Goal& goal, const Group& group) {
    const auto bound = group.summary.bound;
    return bound == stats::Bound::exact || goal.sense == Sense::inside ||
           (bound == stats::Bound::above) == (goal.sense == Sense::more);
}

void speakAlike(const Goal& goal, std::span<Group> groups) {
    if (goal.metric->scale != methods::Scale::measured) return;
    if (std::none_of(groups.begin(), groups.end(), [](const Group& g) { return g.summary.censored(); }))
        return;
    for (auto& g : groups) {
        auto summary = g.summary;
        stats::takeFittedMedian(summary, valuesOf(g), familyOf(goal));
        setSummary(goal, g, summary);
    }
}

namespace {

/// Whether a value that is between or beyond its bounds lies inside the window: yes, no, or nobody knows.
std::optional<bool> lies(const Goal& goal, const stats::Value& v) {
    const auto [low, high] = *goal.window;
    switch (v.bound) {
    case stats::Bound::above:
        return v.value > high ? std::optional(false) : std::nullopt;
    case stats::Bound::below:
        return v.value < low ? std::optional(false) : std::nullopt;
    case stats::Bound::between:
        if (v.value > high || v.upper < low) return false;
        return insideWindow(goal, v.value) && insideWindow(goal, v.upper) ? std::optional(true)
                                                                          : std::nullopt;
    case stats::Bound::exact:
        break;
    }
    return insideWindow(goal, v.value);
}

/// The ± and the last digit of what was typed for the metric itself; a number that follows from others has
/// its own.
void readDoubt(GroupValue& value, const Pull& pull, const Goal& goal) {
    std::string text;
    if (pull.typed && pull.typed->metric->key == goal.metric->key) text = pull.typed->asTyped;
    for (const auto& field : pull.outcome.entered.fields)
        if (field.key == goal.metric->key) text = field.text;
    if (text.empty()) {
        // A curve that was logged in front of a lever is as sure as the lever is.
        if (const auto& path = pull.outcome.path;
            path && pull.curve && goal.metric->dimension == quantity::Dimension::force)
            value.doubt = path->doubt * std::abs(value.value.value - path->offset) / path->factor;
        return;
    }
    const auto& path = pull.outcome.path;
    const bool load = goal.metric->dimension == quantity::Dimension::force;
    const auto entry = quantity::parseEntry(text, path && load ? path->shows : goal.metric->dimension);
    if (!entry || !entry->unit) return;
    value.doubt = entry->plusMinusSi;
    if (entry->decimals >= 0) value.resolution = 0.5 * std::pow(10.0, -entry->decimals) * entry->unit->factor;
    if (path && load) {
        value.doubt = std::hypot(path->feltDoubt(entry->si, value.doubt), path->pathDoubt(entry->si));
        value.resolution = path->feltDoubt(entry->si, value.resolution);
    }
}

double rootMeanSquare(const std::vector<GroupValue>& values, double GroupValue::*of) {
    double squares = 0;
    std::size_t n = 0;
    for (const auto& v : values)
        if (!v.value.aside) squares += v.*of * (v.*of), ++n;
    return n ? std::sqrt(squares / static_cast<double>(n)) : 0;
}

} // namespace

std::vector<stats::Value> valuesOf(const Group& group) {
    std::vector<stats::Value> out;
    out.reserve(group.values.size());
    for (const auto& v : group.values)
        out.push_back(v.value);
    return out;
}

stats::Summary typical(const Goal& goal, stats::Summary s, const std::optional<stats::Tally>& tally) {
    const auto scale = goal.metric->scale;
    if (scale == methods::Scale::measured || !s.mean || s.censored()) return s;
    stats::Summary out;
    for (const auto field : {&stats::Summary::n, &stats::Summary::above, &stats::Summary::below,
                             &stats::Summary::between, &stats::Summary::aside})
        out.*field = s.*field;
    out.median = s.median;
    out.min = s.min;
    out.max = s.max;
    out.mean = out.typical = s.median;
    out.basis = stats::MeanBasis::median;
    out.typicalBasis = stats::TypicalBasis::median;
    if (scale == methods::Scale::counted && tally && tally->tries > 0) {
        out.mean = out.typical = static_cast<double>(tally->successes) / tally->tries;
        out.basis = stats::MeanBasis::counts;
        out.typicalBasis = stats::TypicalBasis::counts;
        out.meanInterval = out.typicalInterval = stats::exactInterval(*tally);
    }
    return out;
}

Group groupOf(const Results& results, const Goal& goal, Id option, Id condition) {
    const auto& readings = results.readings();
    Group g;
    g.option = option;
    g.condition = condition;
    std::vector<stats::Value> values;
    for (const auto& attempt : results.attempts(option, condition)) {
        const auto& pull = *attempt.pull;
        const auto* s = attempt.piece;
        const auto* reading = readings.find(pull.id);
        const auto got = results.value(attempt, option, goal.metric);
        const auto bad = readings.unreadable.find(pull.id);
        if (!got.value) {
            const bool damaged = bad != readings.unreadable.end();
            g.leftOut.push_back({pull.id, s->id, damaged ? bad->second : got.whyNot, damaged});
            continue;
        }
        if (got.value->aside) g.leftOut.push_back({pull.id, s->id, "set aside: " + pull.reason, false});
        g.values.push_back({pull.id, s->id, *got.value, got.guess, toppedOut(pull, reading)});
        readDoubt(g.values.back(), pull, goal);
        values.push_back(*got.value);
        if (got.tally && !got.value->aside) {
            auto& all = g.tally ? *g.tally : g.tally.emplace();
            all.successes += got.tally->successes;
            all.tries += got.tally->tries;
        }
    }
    auto summary = typical(goal, stats::summarise(values, familyOf(goal)), g.tally);
    stats::tellDoubt(summary, rootMeanSquare(g.values, &GroupValue::doubt),
                     rootMeanSquare(g.values, &GroupValue::resolution));
    setSummary(goal, g, summary);
    if (goal.sense == Sense::inside && goal.window) {
        g.inside = InWindow{};
        for (const auto& v : values) {
            if (v.aside) continue;
            ++g.inside->of;
            const auto in = lies(goal, v);
            g.inside->inside += in == std::optional(true);
            g.inside->unknown += !in;
        }
    }
    return g;
}

} // namespace anvil::results
