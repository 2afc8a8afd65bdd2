#include <anvil/domain/goal.h>

namespace anvil::domain {

Goal goalFor(const Goal& goal, Metric metric) {
    if (metric == goal.metric) return goal;
    Goal other;
    other.metric = metric;
    other.sense = metric->sense;
    other.margin = goal.margin;
    other.control = goal.control;
    other.part = goal.part;
    other.family = goal.family;
    return other;
}

void decideBy(Goal& goal, Metric metric) {
    if (metric->dimension != goal.metric->dimension) {
        goal.window.reset();
        goal.need.reset();
        goal.ceiling.reset();
    }
    if (metric != goal.metric && goal.sense != Sense::inside) goal.sense = metric->sense;
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

} // namespace anvil::domain
