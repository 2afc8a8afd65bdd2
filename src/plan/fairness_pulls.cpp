#include "judge.h"

#include <algorithm>
#include <anvil/plan/timetable.h>
#include <anvil/quantity/print.h>
#include <anvil/stats/trend.h>
#include <fmt/format.h>

namespace anvil::plan {

using namespace domain;
using namespace results;
namespace {

std::string dayOf(const Pull& pull) { return pull.performedAt.substr(0, 10); }

} // namespace

void Judge::reuse() {
    std::map<Id, int> pulls;
    for (const auto& p : m_data.pulls)
        if (p.standing != Standing::voided) ++pulls[p.specimen];
    std::vector<std::string> labels;
    for (const auto& s : m_data.specimens)
        if (pulls[s.id] > m_plan.joints || s.history.find("re-used") != std::string::npos)
            labels.push_back(s.label);
    if (!labels.empty())
        add("re-use",
            fmt::format("{} {} pulled more than once: what it carried before may have weakened it.",
                        joined(labels), labels.size() == 1 ? "was" : "were"),
            "");
}

void Judge::speeds() {
    double slow = 0, fast = 0;
    std::string slowest, fastest;
    forSquares([&](const Option& o, const Condition& c, int) {
        std::vector<double> rates;
        for (const auto& p : m_data.pulls) {
            const auto* s = m_data.specimen(p.specimen);
            const auto r = m_readings.byPull.find(p.id);
            if (s && s->option == o.id && s->condition == c.id && r != m_readings.byPull.end() &&
                r->second.travelRate)
                rates.push_back(*r->second.travelRate);
        }
        if (rates.empty()) return;
        std::nth_element(rates.begin(), rates.begin() + static_cast<std::ptrdiff_t>(rates.size() / 2),
                         rates.end());
        const double rate = rates[rates.size() / 2];
        const auto name = o.name + " in " + c.name;
        if (slowest.empty() || rate < slow) slow = rate, slowest = name;
        if (fastest.empty() || rate > fast) fast = rate, fastest = name;
    });
    if (!slowest.empty() && slow > 0 && fast > 1.5 * slow)
        add("speed",
            fmt::format("{} was pulled {} times as fast as {}: the shape of the curve, and often its "
                        "peak, changes with speed.",
                        fastest, quantity::significant(fast / slow, 2), slowest),
            "");
}

void Judge::tangled() {
    if (m_data.conditions.size() < 2) return;
    std::map<Id, std::set<std::string>> days, batches, operators;
    for (const auto& s : m_data.specimens)
        if (!s.batch.empty()) batches[s.condition].insert(s.batch);
    for (const auto& p : m_data.pulls) {
        const auto* s = m_data.specimen(p.specimen);
        if (!s) continue;
        if (dayOf(p).size() == 10) days[s->condition].insert(dayOf(p));
        if (!p.operatorName.empty()) operators[s->condition].insert(p.operatorName);
    }
    if (apart(days))
        add("day",
            "Every condition was pulled on days of its own, so what the condition did cannot be told "
            "from what the day did.",
            "");
    if (apart(batches))
        add("tangled batch",
            "Every condition has pieces of a batch of its own, so what the condition did cannot be told "
            "from the batch.",
            "");
    if (apart(operators))
        add("operator",
            "Every condition was pulled by somebody else, so what the condition did cannot be told from "
            "who pulled.",
            "");
}

void Judge::drift() {
    std::vector<std::string> few, drifting;
    for (const auto& o : m_data.options) {
        std::vector<double> order, values;
        for (const auto& p : m_data.pulls) {
            const auto* s = m_data.specimen(p.specimen);
            if (!s || s->option != o.id) continue;
            const auto r = m_readings.byPull.find(p.id);
            const auto v = valueOf(m_data, p, r == m_readings.byPull.end() ? nullptr : &r->second,
                                   m_data.study.goal.metric);
            if (!v.value || !v.value->exact()) continue;
            order.push_back(static_cast<double>(order.size()));
            values.push_back(v.value->value);
        }
        if (order.empty()) continue;
        const auto trend = stats::linearTrend(order, values);
        if (!trend || order.size() < 4) {
            few.push_back(o.name);
            continue;
        }
        if (trend->p && *trend->p < 0.05 && trend->intercept > 0)
            drifting.push_back(fmt::format("{} ({}{} a deployment)", o.name, trend->slope > 0 ? "+" : "−",
                                           quantity::percent(std::abs(trend->slope) / trend->intercept)));
    }
    if (!few.empty())
        add("drift check",
            fmt::format("{} {} fewer than four deployments: too few to see whether it wears.", joined(few),
                        few.size() == 1 ? "has" : "have"),
            "");
    if (!drifting.empty())
        add("drift",
            fmt::format("{} {} from deployment to deployment: {}, so late ones do not compare with early "
                        "ones.",
                        joined(drifting), drifting.size() == 1 ? "changes" : "change",
                        drifting.size() == 1 ? "it wears" : "they wear"),
            "");
}

void Judge::joints() {
    if (m_plan.joints < 2) return;
    std::map<Id, int> counted;
    for (const auto& p : m_data.pulls)
        if (standingOf(m_data, p, m_readings.find(p.id)) == Standing::counts) ++counted[p.specimen];
    std::vector<std::string> labels;
    for (const auto& s : m_data.specimens)
        if (counted[s.id] > 1) labels.push_back(s.label);
    if (!labels.empty())
        add("joints",
            fmt::format("{}: {} results of one piece count as if they were independent. The joint that "
                        "failed counts, the others held at least that.",
                        joined(labels), m_plan.joints == 2 ? "both" : "several"),
            "Count the one that failed");
}

void Judge::preparation() {
    const auto start = instantOf(m_plan.recipeStarted);
    if (!start) return;
    for (const auto& sentence : expired(m_plan.recipe, m_plan.recipeStarted.substr(0, 10)))
        add("product", sentence, "");
    const auto steps = preparationOf(m_plan, *start, {instantOf});
    if (!steps || steps->empty()) return;
    std::vector<std::string> early, late;
    for (const auto& s : *steps) {
        if (s.state == StepState::doneEarly) early.push_back(s.name);
        if (s.state == StepState::doneLate) late.push_back(s.name);
    }
    if (!early.empty())
        add("early",
            fmt::format("{} {} done before the wait was over.", joined(early),
                        early.size() == 1 ? "was" : "were"),
            "");
    if (!late.empty())
        add("late",
            fmt::format("{} {} done after the latest time.", joined(late), late.size() == 1 ? "was" : "were"),
            "");
    const bool all = std::all_of(steps->begin(), steps->end(), [](const Step& s) { return s.done != 0; });
    std::vector<std::string> cut;
    for (const auto& p : m_data.pulls)
        if (const auto at = instantOf(p.performedAt);
            at && (!all || *at < finished(*steps, *start)) && *at >= *start)
            if (const auto* s = m_data.specimen(p.specimen)) cut.push_back(s->label);
    if (!cut.empty())
        add("cure",
            fmt::format("{} {} pulled before the preparation was over.", joined(cut),
                        cut.size() == 1 ? "was" : "were"),
            "");
}

} // namespace anvil::plan
