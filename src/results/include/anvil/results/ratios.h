// The ladder on another scale: what a mean is a share or a multiple of.
#pragma once

#include <anvil/results/verdict.h>
#include <string_view>

namespace anvil::results {

/// What means are divided by.
enum class RatioBase {
    control,   ///< the mean of the option that all are compared with, in the same condition
    untreated, ///< the mean of the same option in the first condition
    rating,    ///< the maker's promise
    expected,  ///< what was expected: the mean of the square's forecasts
    cost,      ///< what the option costs
    weight     ///< what the option weighs
};
/// "control", "untreated", "rating", "expected", "cost", "weight".
std::string_view key(RatioBase base);
std::optional<RatioBase> ratioBaseFromKey(std::string_view key);

/// One rung. The mean is the one the verdict shows.
struct RatioRung {
    std::size_t group = 0;                             ///< index of the verdict's
    double ratio = 0;                                  ///< SI over SI; over the currency for cost
    std::optional<std::pair<double, double>> interval; ///< 95 %; of a rating, a price and the like they are
                                                       ///< the mean's, for these are known
    bool atLeast = false, atMost = false;
    bool itself = false; ///< it is what the others are divided by
};

/// Every group that has the mean and what it is divided by, greatest first within its condition, in the order
/// of the verdict's conditions. Control and untreated take ratio and interval of the compared pair (a group
/// that was not compared has no rung). Nothing for fewer than two rungs besides the base itself; for a rating
/// only where the metric is a force.
std::vector<RatioRung> ratiosOf(const StudyData& data, const Verdict& verdict, RatioBase base);
/// Those that have anything to show.
std::vector<RatioBase> ratioBases(const StudyData& data, const Verdict& verdict);

/// Two baselines that tell two stories of one condition: who keeps most of its rating is not who keeps most
/// of what it held untreated.
struct Baselines {
    Id condition = 0;
    std::size_t byRating = 0, byUntreated = 0; ///< the groups that come first
    double ofRating = 0, ofUntreated = 0;      ///< their shares
    /// Groups that hold their rating still, but less than they did untreated (the whole interval below one).
    std::vector<std::size_t> stillRated;
};

/// One for each condition but the first in which they disagree, or some still hold their rating and have
/// lost.
std::vector<Baselines> baselinesOf(const StudyData& data, const Verdict& verdict);

} // namespace anvil::results
