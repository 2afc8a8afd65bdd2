// From pulls to a ranking: what the numbers may and may not say. Values only; words/verdict.h puts them into
// sentences.
#pragma once

#include <anvil/results/places.h>

namespace anvil::results {

/// The verdict on one metric.
struct Verdict {
    Goal goal;                     ///< what was asked
    std::vector<Group> groups;     ///< by condition, then by rank; squares without any pull are left out
    std::vector<PairResult> pairs; ///< options within conditions first

    /// The values of a condition that were read beyond the end of a calibration table, those set aside not
    /// counted.
    std::size_t guessesIn(Id condition) const;
    /// A square's group; null where nothing was pulled in it.
    const Group* group(Id option, Id condition) const;
    /// The groups of a condition, best first.
    std::vector<std::size_t> inCondition(Id condition) const;
    /// Whether both groups of a pair hold anything that can be compared.
    bool hasBoth(const PairResult& pair) const;
    /// Whether any pull has a value.
    bool empty() const;
};

/// Everything about one metric: the groups of every condition best first with their places, then the pairs of
/// options within each condition and of conditions of each option, both in board order.
Verdict evaluate(const Results& results, const Goal& goal);
/// The same of a table that is made for it and thrown away.
Verdict evaluate(const StudyData& data, const Readings& readings, const Goal& goal);

/// The law by which every 90/95 floor of a verdict is told: one for all its groups. The chosen one, or the usual of
/// the method; else the normal law, where some value is a bound the log-normal.
stats::Family floorLaw(const Verdict& verdict);

/// The tie letters of a group that another group of its condition has too.
std::string sharedLetters(const Verdict& verdict, const Group& group);

} // namespace anvil::results
