#include <anvil/results/groups.h>

namespace anvil::results {

void setSummary(const Goal& goal, Group& g, const stats::Summary& summary) {
    g.summary = summary;
    g.enough = false;
    g.meetsNeed.reset();
    if (!summary.mean) return;
    g.enough = isEnough(goal, *summary.mean);
    g.meetsNeed = meetsNeed(goal, *summary.mean);
    if (summary.basis == stats::MeanBasis::bound) { // it is at least that, and may be any more
        const bool more = goal.sense == Sense::more;
        g.enough = g.enough && more;
        if (g.meetsNeed && *g.meetsNeed != more) g.meetsNeed.reset();
    }
}

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
    out.mean = s.median;
    out.basis = stats::MeanBasis::median;
    if (scale == methods::Scale::counted && tally && tally->tries > 0) {
        out.mean = static_cast<double>(tally->successes) / tally->tries;
        out.basis = stats::MeanBasis::counts;
        out.meanInterval = stats::exactInterval(*tally);
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
        if (got.value->state == stats::State::aside)
            g.leftOut.push_back({pull.id, s->id, "set aside: " + pull.reason, false});
        g.values.push_back({pull.id, s->id, *got.value, got.guess, toppedOut(pull, reading)});
        values.push_back(*got.value);
        if (got.tally && got.value->state != stats::State::aside) {
            auto& all = g.tally ? *g.tally : g.tally.emplace();
            all.successes += got.tally->successes;
            all.tries += got.tally->tries;
        }
    }
    setSummary(goal, g, typical(goal, stats::summarise(values, familyOf(goal)), g.tally));
    if (goal.sense == Sense::inside && goal.window) {
        g.inside = InWindow{};
        for (const auto& v : values)
            if (v.state == stats::State::exact) {
                ++g.inside->of;
                g.inside->inside += insideWindow(goal, v.value);
            }
    }
    return g;
}

} // namespace anvil::results
