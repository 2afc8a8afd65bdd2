// From pulls to a ranking: what the numbers may and may not say. Pure.
#pragma once

#include <anvil/stats/compare.h>
#include <anvil/study/model.h>

namespace anvil::study {

/// One pull's contribution to a group, kept for the trail from a number back to its samples.
struct GroupValue {
    Id pull = 0, specimen = 0;
    stats::Value value;
    bool guess = false; ///< read beyond the end of the rig's calibration table
};

/// A pull of the square that gives no value for the metric, and why.
struct LeftOut {
    Id pull = 0, specimen = 0;
    std::string why;
    bool unreadable = false; ///< its curve is damaged or cannot be read
};

/// One square of the board, for one metric.
struct Group {
    Id option = 0, condition = 0;
    stats::Summary summary;
    std::vector<GroupValue> values;
    std::vector<LeftOut> leftOut;
    int rank = 0;        ///< 1 = greatest mean within the condition; 0 when there is no mean
    std::string letters; ///< groups that share one are tied
};

/// One pair of groups: two options in one condition, or two conditions of one option.
struct PairResult {
    std::size_t a = 0, b = 0; ///< indices of groups
    bool acrossConditions = false;
    stats::Comparison comparison;
    std::string sentence;
};

/// The verdict on one metric.
struct Verdict {
    Metric metric = Metric::peak;
    double margin = 0.1;
    std::vector<Group> groups;          ///< by condition, then by rank; squares without any pull are left out
    std::vector<PairResult> pairs;      ///< options within conditions first
    std::vector<std::string> headlines; ///< one for each condition
    std::vector<std::string> next;      ///< what would settle more

    /// The values of a condition that were read beyond the end of a calibration table, those set aside not
    /// counted.
    std::size_t guessesIn(Id condition) const;
    /// The groups of a condition, best first.
    std::vector<std::size_t> inCondition(Id condition) const;
    /// Whether any pull has a value.
    bool empty() const;
};

/// Evaluates one metric of a study. Pairs are compared as in docs: Welch on the values, Holm within one
/// condition (options) or within one option (conditions); a group holding a bound is "cannot be told yet".
Verdict evaluate(const StudyData& data, const Readings& readings, Metric metric, double margin);

/// The tie letters of a group that another group of its condition has too.
std::string sharedLetters(const Verdict& verdict, const Group& group);

/// A pair in words, with size and certainty. Names as given; needs no unit.
std::string sentence(const std::string& a, const std::string& b, const std::string& where,
                     const stats::Comparison& c, const stats::Summary& left, const stats::Summary& right,
                     double margin);

} // namespace anvil::study
