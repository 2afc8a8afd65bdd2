// From pulls to a ranking: what the numbers may and may not say. Values only; words/verdict.h puts them into
// sentences.
#pragma once

#include <anvil/stats/compare.h>
#include <anvil/study/model.h>

namespace anvil::study {

/// One pull's contribution to a group, kept for the trail from a number back to its samples.
struct GroupValue {
    Id pull = 0, specimen = 0;
    stats::Value value;
    bool guess = false;     ///< read beyond the end of the rig's calibration table
    bool toppedOut = false; ///< the rig ended it, not the piece
};

/// A pull of the square that gives no value for the metric, and why.
struct LeftOut {
    Id pull = 0, specimen = 0;
    std::string why;
    bool unreadable = false; ///< its curve is damaged or cannot be read
};

/// How many of a square's exact values lie inside the wanted window.
struct InWindow {
    std::size_t inside = 0, of = 0;
    double share() const { return of ? static_cast<double>(inside) / static_cast<double>(of) : 0; }
};

/// One square of the board, for one metric.
struct Group {
    Id option = 0, condition = 0;
    stats::Summary summary;
    std::vector<GroupValue> values;
    std::vector<LeftOut> leftOut;
    int rank = 0;                   ///< 1 = what is wanted most within the condition; 0: no mean, so no place
    std::string letters;            ///< groups that share one are tied; empty where a window is wanted
    bool enough = false;            ///< its mean is beyond the goal's ceiling: as good as every other such
    std::optional<bool> meetsNeed;  ///< its mean against the goal's need
    std::optional<InWindow> inside; ///< where the goal is a window
};

/// One pair of groups: two options in one condition, or two conditions of one option.
struct PairResult {
    std::size_t a = 0, b = 0; ///< indices of groups
    bool acrossConditions = false;
    stats::Comparison comparison;
    bool open = false; ///< too close to call within a condition, and more pulls would settle it
};

/// The verdict on one metric.
struct Verdict {
    Goal goal;                     ///< what was asked
    std::vector<Group> groups;     ///< by condition, then by rank; squares without any pull are left out
    std::vector<PairResult> pairs; ///< options within conditions first

    /// The values of a condition that were read beyond the end of a calibration table, those set aside not
    /// counted.
    std::size_t guessesIn(Id condition) const;
    /// The groups of a condition, best first.
    std::vector<std::size_t> inCondition(Id condition) const;
    /// Whether any pull has a value.
    bool empty() const;
};

/// Evaluates a study by what is wanted. Places follow the goal: most or least first, or most often inside the
/// window, then nearest to its middle; means beyond the ceiling share the first place and are tied. Pairs are
/// compared as in docs: Welch on the values, Holm within one condition (options) or within one option
/// (conditions); with a control in the condition its pairs are a family of their own, and so are the others.
/// A group holding a bound is "cannot be told yet".
Verdict evaluate(const StudyData& data, const Readings& readings, const Goal& goal);

/// The tie letters of a group that another group of its condition has too.
std::string sharedLetters(const Verdict& verdict, const Group& group);

} // namespace anvil::study
