#include <anvil/results/values.h>

#include <anvil/domain/outcomes.h>

#include <anvil/methods/phase_metric.h>
#include <anvil/results/evidence.h>
#include <fmt/format.h>

namespace anvil::results {

const curve::Reading* Readings::find(Id pull) const {
    const auto found = byPull.find(pull);
    return found == byPull.end() ? nullptr : &found->second;
}

bool toppedOut(const Pull& pull, const curve::Reading* reading) {
    return pull.outcome.limit == Limit::toppedOut || (reading && reading->offScale);
}

namespace {

domain::Proposal said(Standing standing, const std::string& why) {
    if (why.empty()) return {standing};
    return {standing, domain::Because::said, why};
}

} // namespace

domain::Proposal standsAs(const StudyData& data, const Pull& pull, const curve::Reading* reading) {
    // It counts nowhere before somebody has said what it is: here, so that no page can forget it.
    if (pull.recording == Recording::running) return {Standing::notRead, domain::Because::running};
    if (pull.recording == Recording::interrupted) return {Standing::notRead, domain::Because::interrupted};
    if (pull.standing != Standing::counts || pull.outcome.standingSaid)
        return said(pull.standing, pull.reason);
    if (toppedOut(pull, reading)) return {Standing::atLeast, domain::Because::toppedOut, {}, {}, {}, true};
    const auto follows = domain::standingFollows(data, pull.outcome);
    return follows.standing == Standing::counts ? said(follows.standing, pull.reason) : follows;
}

Standing standingOf(const StudyData& data, const Pull& pull, const curve::Reading* reading) {
    return standsAs(data, pull, reading).standing;
}

namespace {

/// A number as it was typed, by how its pull stands.
MetricValue typedValue(const StudyData& data, const Pull& pull) {
    auto [taken, bound] = standingOf(data, pull, nullptr);
    if (taken == domain::Taken::counts && bound == stats::Bound::exact &&
        pull.outcome.limit == Limit::toppedOut)
        bound = stats::Bound::above;
    double value = pull.typed->value, upper = pull.typed->upper;
    bool guess = false;
    if (const auto& path = pull.outcome.path;
        path && pull.typed->metric->dimension == quantity::Dimension::force) {
        const auto felt = path->felt(value);
        guess = !felt.inside;
        value = felt.value;
        upper = upper != 0 ? path->felt(upper).value : 0;
    }
    return {stats::Value{value, bound, upper, taken == domain::Taken::aside}, {}, guess, {}};
}

} // namespace

MetricValue valueFrom(const StudyData& data, const Pull& pull, const curve::Reading* reading,
                      const Metric& metric,
                      const std::function<const Expected<methods::Numbers>&()>& follows) {
    const auto none = [](std::string why) { return MetricValue{std::nullopt, std::move(why), false, {}}; };
    if (pull.recording == Recording::running) return none("being recorded");
    if (pull.recording == Recording::interrupted) return none("its recording was interrupted");
    const auto standing = standingOf(data, pull, reading);
    if (standing == Standing::voided) return none("void");
    if (standing == Standing::notRead) return none("the number was not read");
    if (pull.typed && pull.typed->metric == metric) return typedValue(data, pull);
    if (!pull.typed && !reading && pull.outcome.entered == Entered{} && pull.outcome.phases.empty())
        return none("its curve cannot be read");
    const auto& all = follows();
    if (!all) return none(all.error().message);
    const auto* number = all->find(metric->key);
    if (number && number->value) return {number->value, {}, number->guess, number->tally};
    const auto& method = methodOf(data, data.specimenAt(pull.specimen));
    if (pull.typed && !methods::inputFor(method, *pull.typed->metric))
        return none(fmt::format("only its {} was recorded", pull.typed->metric->noun));
    if (!number && methods::phaseMetricOf(metric->key)) return none("none of its phases was read so");
    if (!number) return none(fmt::format("the method \"{}\" tells no {}", method.title, metric->noun));
    return none(number->whyNot);
}

MetricValue valueOf(const StudyData& data, const Pull& pull, const curve::Reading* reading, Metric metric) {
    std::optional<Expected<methods::Numbers>> all;
    return valueFrom(data, pull, reading, metric, [&]() -> const Expected<methods::Numbers>& {
        return all.emplace(measured(data, pull, reading));
    });
}

std::vector<std::string> needsLook(const Pull& pull, const Readings& readings) {
    std::vector<std::string> why;
    if (pull.standing == Standing::voided) return why;
    if (const auto bad = readings.unreadable.find(pull.id); bad != readings.unreadable.end())
        why.push_back(bad->second); // looking does not mend it
    if (pull.looked) return why;
    if (pull.recording == Recording::interrupted)
        why.emplace_back("Its recording was interrupted: say what it may be used for.");
    if (const auto r = readings.byPull.find(pull.id); r != readings.byPull.end()) {
        for (const auto& w : r->second.warnings)
            why.push_back(w);
    }
    return why;
}

} // namespace anvil::results
