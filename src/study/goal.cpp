#include <anvil/study/goal.h>

#include <iterator>

namespace anvil::study {
namespace {

using quantity::Dimension;

constexpr const char* senseKeys[] = {"more", "less", "inside"};
static_assert(std::size(senseKeys) == static_cast<std::size_t>(Sense::inside) + 1);

constexpr MetricInfo infos[] = {
    {"peak", "Peak force", "peak force", Dimension::force, "is stronger than", "is weaker than"},
    {"first_slip", "First slip", "force at first slip", Dimension::force, "slips later than",
     "slips earlier than"},
    {"stiffness", "Stiffness", "stiffness", Dimension::stiffness, "is stiffer than", "is less stiff than"},
    {"energy", "Energy to peak", "energy to peak", Dimension::energy, "takes up more than",
     "takes up less than"},
    {"residual", "Residual grip", "force still held after the peak", Dimension::force,
     "still holds more than", "still holds less than"},
    {"holding", "Holding load", "load at which it starts to move", Dimension::force, "holds more than",
     "holds less than"},
    {"moment", "Moment", "moment at failure", Dimension::torque, "is stronger than", "is weaker than"},
    {"breakaway", "Breakaway torque", "breakaway torque", Dimension::torque, "breaks away later than",
     "breaks away earlier than"},
    {"running", "Running torque", "running torque", Dimension::torque, "runs harder than",
     "runs more easily than"},
    {"sag", "Sag", "sag", Dimension::length, "sags more than", "sags less than", Sense::less},
    {"creep", "Creep", "creep", Dimension::length, "creeps more than", "creeps less than", Sense::less},
    {"impact", "Energy swallowed", "energy swallowed", Dimension::energy, "swallows more than",
     "swallows less than"},
    {"shock", "Peak deceleration", "peak deceleration", Dimension::acceleration, "gives a harder blow than",
     "gives a softer blow than", Sense::less, "g₀"},
    {"successes", "Success rate", "share of tries that worked", Dimension::ratio, "works more often than",
     "works less often than", Sense::more, "%"},
    {"rating", "Rating by eye", "rating", Dimension::ratio, "is rated higher than", "is rated lower than"},
};
static_assert(std::size(infos) == static_cast<std::size_t>(Metric::rating) + 1);
static_assert(std::size(infos) == std::size(allMetrics));

} // namespace

const char* key(Sense sense) { return senseKeys[static_cast<std::size_t>(sense)]; }

std::optional<Sense> senseFromKey(const std::string& key) {
    for (std::size_t i = 0; i < std::size(senseKeys); ++i)
        if (key == senseKeys[i]) return static_cast<Sense>(i);
    return std::nullopt;
}

const MetricInfo& info(Metric metric) { return infos[static_cast<std::size_t>(metric)]; }

std::optional<Metric> metricFromKey(const std::string& key) {
    for (const auto m : allMetrics)
        if (key == info(m).key) return m;
    return std::nullopt;
}

Goal goalFor(const Goal& goal, Metric metric) {
    if (metric == goal.metric) return goal;
    Goal other;
    other.metric = metric;
    other.sense = info(metric).sense;
    other.margin = goal.margin;
    other.control = goal.control;
    other.part = goal.part;
    return other;
}

void decideBy(Goal& goal, Metric metric) {
    if (info(metric).dimension != info(goal.metric).dimension) {
        goal.window.reset();
        goal.need.reset();
        goal.ceiling.reset();
    }
    if (metric != goal.metric && goal.sense != Sense::inside) goal.sense = info(metric).sense;
    goal.metric = metric;
}

bool insideWindow(const Goal& goal, double value) {
    return goal.window && value >= goal.window->first && value <= goal.window->second;
}

bool isEnough(const Goal& goal, double value) {
    if (!goal.ceiling || goal.sense == Sense::inside) return false;
    return goal.sense == Sense::more ? value >= *goal.ceiling : value <= *goal.ceiling;
}

std::optional<bool> meetsNeed(const Goal& goal, double value) {
    if (!goal.need || goal.sense == Sense::inside) return std::nullopt;
    return goal.sense == Sense::more ? value >= *goal.need : value <= *goal.need;
}

} // namespace anvil::study
