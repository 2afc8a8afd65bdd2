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

/// What the tester said wins; where nobody said anything it follows from what is known.
domain::Proposal standsAs(const StudyData& data, const Pull& pull, const curve::Reading* reading) {
    // It counts nowhere before somebody has said what it is: here, so that no page can forget it.
    if (pull.recording == Recording::running) return {Standing::notRead, "It is being recorded."};
    if (pull.recording == Recording::interrupted)
        return {Standing::notRead, "Its recording was interrupted: it waits for a decision."};
    if (pull.standing != Standing::counts || pull.outcome.standingSaid) return {pull.standing, pull.reason};
    if (toppedOut(pull, reading)) return {Standing::atLeast, "The rig topped out.", true};
    auto follows = domain::standingFollows(data, pull.outcome);
    if (follows.standing == Standing::counts) follows.reason = pull.reason;
    return follows;
}

} // namespace

Standing standingOf(const StudyData& data, const Pull& pull, const curve::Reading* reading) {
    return standsAs(data, pull, reading).standing;
}

std::string reasonOf(const StudyData& data, const Pull& pull, const curve::Reading* reading) {
    return standsAs(data, pull, reading).reason;
}

namespace {

/// A number as it was typed, by how its pull stands.
MetricValue typedValue(const StudyData& data, const Pull& pull) {
    using stats::State;
    State state = State::exact;
    switch (standingOf(data, pull, nullptr)) {
    case Standing::atLeast:
        state = State::above;
        break;
    case Standing::atMost:
        state = State::below;
        break;
    case Standing::between:
        state = State::between;
        break;
    case Standing::aside:
        state = State::aside;
        break;
    case Standing::counts:
        if (pull.outcome.limit == Limit::toppedOut) state = State::above;
        break;
    case Standing::voided:
    case Standing::notRead:
        break;
    }
    double value = pull.typed->value, upper = pull.typed->upper;
    bool guess = false;
    if (const auto& path = pull.outcome.path;
        path && pull.typed->metric->dimension == quantity::Dimension::force) {
        const auto felt = path->felt(value);
        guess = !felt.inside;
        value = felt.value;
        upper = upper != 0 ? path->felt(upper).value : 0;
    }
    return {stats::Value{value, state, upper}, {}, guess, {}};
}

} // namespace

MetricValue valueFrom(const StudyData& data, const Pull& pull, const curve::Reading* reading,
                      const Metric& metric,
                      const std::function<const Expected<methods::Measured>&()>& follows) {
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
    std::optional<Expected<methods::Measured>> all;
    return valueFrom(data, pull, reading, metric, [&]() -> const Expected<methods::Measured>& {
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
