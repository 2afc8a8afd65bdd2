// What a study is after: the metric that decides and which values of it are wanted. One value that every
// analysis takes.
#pragma once

#include <anvil/domain/metric.h>
#include <anvil/stats/fit.h>
#include <optional>
#include <string>
#include <utility>

namespace anvil::domain {

using Id = long long; ///< 64 bits; 0: none

/// What is wanted.
struct Goal {
    Metric metric{}; ///< the one that decides
    Sense sense = Sense::more;
    std::optional<std::pair<double, double>> window{}; ///< wanted range of the metric, SI
    std::optional<double> need{};                      ///< SI: the value to be met
    std::optional<double>
        ceiling{};        ///< SI: better than that nobody needs; options beyond it are equally good
    double margin = 0.10; ///< the smallest difference that matters, as a share
    Id control = 0;       ///< the option everything is compared with; 0: none
    std::string part{};   ///< whose strength is asked for; empty: the whole piece
    std::optional<stats::Family> family{}; ///< fitted where some values are bounds; empty: the method's usual
    bool operator==(const Goal&) const = default;
};

/// The goal for another metric of the same study: wanted in the way that is usual for it, without the limits,
/// which are said of the metric that decides. For that metric: the goal itself.
Goal goalFor(const Goal& goal, Metric metric);

/// Changes what decides. Limits of another dimension go, for they say nothing of the new metric; the sense
/// follows the usual one unless a window is wanted.
void decideBy(Goal& goal, Metric metric);

/// Whether a value is within the window; values at its ends are. False without a window.
bool insideWindow(const Goal& goal, double value);

/// Whether a value is so good that a better one is of no use: beyond the ceiling, in the wanted direction.
bool isEnough(const Goal& goal, double value);

/// Whether the need is met by a value; nothing where no need is said, or where a window is wanted.
std::optional<bool> meetsNeed(const Goal& goal, double value);

} // namespace anvil::domain
