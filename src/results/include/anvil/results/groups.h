// One square of the board for one metric: its values, what is left out, and how it stands to the goal.
#pragma once

#include <anvil/results/results.h>
#include <anvil/stats/fitted_summary.h>

namespace anvil::results {

/// One pull's contribution to a group, kept for the trail from a number back to its samples.
struct GroupValue {
    Id pull = 0, specimen = 0;
    stats::Value value;
    bool guess = false;     ///< read beyond the end of the rig's calibration table
    bool toppedOut = false; ///< the rig ended it, not the piece
    double doubt = 0;       ///< the ± that was stated with it, SI
    double resolution = 0;  ///< half its last digit, SI; 0: not known
};

/// A pull of the square that gives no value for the metric, and why.
struct LeftOut {
    Id pull = 0, specimen = 0;
    std::string why;
    bool unreadable = false; ///< its curve is damaged or cannot be read
};

/// How many of a square's values lie inside the wanted window. A bound that lies wholly outside is outside,
/// one wholly inside is inside, of any other nobody knows.
struct InWindow {
    std::size_t inside = 0, of = 0, unknown = 0;
    /// The share that is inside for sure.
    double share() const { return of ? static_cast<double>(inside) / static_cast<double>(of) : 0; }
    /// The share if all that nobody knows of were inside.
    double most() const { return of ? static_cast<double>(inside + unknown) / static_cast<double>(of) : 0; }
};

/// One square of the board, for one metric.
struct Group {
    Id option = 0, condition = 0;
    stats::Summary summary;
    std::vector<GroupValue> values;
    std::vector<LeftOut> leftOut;
    int rank = 0;        ///< 1 = what is wanted most within the condition; 0: no place can be told
    std::string letters; ///< groups that share one are tied; empty where a window is wanted
    bool enough = false; ///< its typical value is beyond the goal's ceiling: as good as every other such
    std::optional<bool> meetsNeed;       ///< its typical value against the goal's need
    std::optional<InWindow> inside;      ///< where the goal is a window
    std::optional<stats::Tally> tally{}; ///< of a count: all successes of all tries
};

/// What is fitted where some values are only bounds: what somebody chose, else what is usual.
inline stats::Family familyOf(const Goal& goal) { return goal.family.value_or(stats::Family::lognormal); }

/// Its values without their pulls, in their order; those set aside are among them.
std::vector<stats::Value> valuesOf(const Group& group);

/// Has every group of a condition speak of one thing: where some value of it is a bound, of medians of the
/// fitted family. Groups of one condition and metric.
void speakAlike(const Goal& goal, std::span<Group> groups);

/// Whether a group of bounds may be ranked by them: only where that makes it look no better than it is.
bool rankedFairly(const Goal& goal, const Group& group);

/// Gives a group its summary and how its typical value stands to the goal. What is only a bound says that it
/// is enough, or meets the need or not, only where it does so wherever beyond the bound it lies.
void setSummary(const Goal& goal, Group& group, const stats::Summary& summary);

/// What stands for values that have no mean: of steps of a scale their median without spread and interval, of
/// counts all successes over all tries with the exact interval. Others are as they were.
stats::Summary typical(const Goal& goal, stats::Summary summary, const std::optional<stats::Tally>& tally);

/// Everything the pulls of a square say of its option, and how that stands to what is wanted. Its place and
/// its letters are given by `placeGroups`.
Group groupOf(const Results& results, const Goal& goal, Id option, Id condition);

} // namespace anvil::results
