#include <anvil/study/model.h>

#include <algorithm>
#include <iterator>

namespace anvil::study {
namespace {

template <class T> const T* byId(const std::vector<T>& all, Id id) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const T& x) { return x.id == id; });
    return found == all.end() ? nullptr : &*found;
}

constexpr const char* standingKeys[] = {"counts", "at_least", "at_most", "between",
                                        "aside",  "void",     "not_read"};

} // namespace

const MetricInfo& info(Metric metric) {
    using quantity::Dimension;
    static constexpr MetricInfo infos[] = {
        {"peak", "Peak force", "peak force", Dimension::force},
        {"first_slip", "First slip", "force at first slip", Dimension::force},
        {"stiffness", "Stiffness", "stiffness", Dimension::stiffness},
        {"energy", "Energy to peak", "energy to peak", Dimension::energy},
        {"residual", "Residual grip", "force still held after the peak", Dimension::force},
    };
    return infos[static_cast<int>(metric)];
}

std::optional<Metric> metricFromKey(const std::string& key) {
    for (const auto m : allMetrics)
        if (key == info(m).key) return m;
    return std::nullopt;
}

const char* word(Standing standing) {
    static constexpr const char* words[] = {"counts",    "at least", "at most", "between",
                                            "set aside", "void",     "not read"};
    return words[static_cast<int>(standing)];
}

const char* key(Standing standing) { return standingKeys[static_cast<int>(standing)]; }

std::optional<Standing> standingFromKey(const std::string& key) {
    for (std::size_t i = 0; i < std::size(standingKeys); ++i)
        if (key == standingKeys[i]) return static_cast<Standing>(i);
    return std::nullopt;
}

const char* word(Intent intent) {
    static constexpr const char* words[] = {"controlled", "exploratory", "as used"};
    return words[static_cast<int>(intent)];
}

const Option* StudyData::option(Id id) const { return byId(options, id); }
const Condition* StudyData::condition(Id id) const { return byId(conditions, id); }
const Specimen* StudyData::specimen(Id id) const { return byId(specimens, id); }
const Pull* StudyData::pull(Id id) const { return byId(pulls, id); }

MetricValue valueOf(const Pull& pull, const curve::Reading* reading, Metric metric) {
    using stats::State;
    const auto none = [](std::string why) { return MetricValue{std::nullopt, std::move(why)}; };
    if (pull.standing == Standing::voided) return none("void");
    if (pull.standing == Standing::notRead) return none("the number was not read");
    State state = State::exact;
    switch (pull.standing) {
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
    default:
        break;
    }
    if (pull.typed) {
        if (pull.typed->metric != metric)
            return none(std::string("only its ") + info(pull.typed->metric).noun + " was recorded");
        return {stats::Value{pull.typed->value, state, pull.typed->upper}, {}};
    }
    if (!reading) return none("its curve cannot be read");
    const bool aside = state == State::aside;
    if (reading->offScale && state == State::exact) state = State::above;
    const auto early = aside ? State::aside : State::exact; // seen before whatever stopped the pull
    const auto value = [](double v, State s) { return MetricValue{stats::Value{v, s, v}, {}}; };
    switch (metric) {
    case Metric::peak:
        return value(reading->peak.force, state);
    case Metric::energy:
        if (!reading->energyToPeak) return none("no displacement channel, so no energy");
        return value(*reading->energyToPeak, state);
    case Metric::firstSlip:
        if (!reading->firstSlip) return none("it never slipped before its peak");
        return value(reading->firstSlip->force, early);
    case Metric::stiffness:
        if (!reading->stiffness) return none("no displacement channel, so no stiffness");
        return value(reading->stiffness->value, early);
    case Metric::residual:
        if (reading->offScale || pull.standing == Standing::atLeast)
            return none("the true peak was not seen, so what it held afterwards cannot be told");
        if (!reading->residual) return none("the log ends too soon after the peak");
        return value(reading->residual->force, early);
    }
    return none("unknown metric");
}

std::vector<std::string> needsLook(const Pull& pull, const Readings& readings) {
    std::vector<std::string> why;
    if (pull.looked || pull.standing == Standing::voided) return why;
    if (const auto bad = readings.unreadable.find(pull.id); bad != readings.unreadable.end())
        why.push_back(bad->second);
    if (const auto r = readings.byPull.find(pull.id); r != readings.byPull.end()) {
        if (r->second.offScale && pull.standing == Standing::counts)
            why.emplace_back("The rig topped out: the peak is only \"at least\".");
        for (const auto& w : r->second.warnings)
            why.push_back(w);
    }
    return why;
}

} // namespace anvil::study
