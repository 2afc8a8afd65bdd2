// From pulls to a ranking: what the numbers may and may not say. Values only; words/verdict.h puts them into
// sentences.
#pragma once

#include <anvil/results/places.h>

namespace anvil::results {

/// The spread that pieces of one kind usually have, a share: by this tester's own earlier studies of the
/// method, pooled over at least six degrees of freedom, else 12 %.
struct UsualSpread {
    double cv = 0.12;
    std::size_t df = 0; ///< 0: nobody's own
};

/// The verdict on one metric.
struct Verdict {
    Goal goal;                     ///< what was asked
    std::vector<Group> groups;     ///< by condition, then by rank; squares without any pull are left out
    std::vector<PairResult> pairs; ///< options within conditions first
    UsualSpread usual{};           ///< for squares that were pulled once

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

/// The law by which every 90/95 floor of a verdict is told: one for all its groups. The chosen one, or the
/// usual of the method; else the normal law, where some value is a bound the log-normal.
stats::Family floorLaw(const Verdict& verdict);

/// What one pull on a side says of a pair.
struct SinglePulls {
    double ratio = 1;
    double chance = 1;       ///< that two pieces of one kind differ as much: P(|ln r| ≥) with s = √2·CV
    double difference = 0;   ///< as much as was seen, or as matters where that is more; a share
    std::optional<int> each; ///< pulls of each that would settle that difference four times in five
};
/// Empty where both sides have two pulls or more, or there is no ratio of exact values.
std::optional<SinglePulls> singlePulls(const Verdict& verdict, const PairResult& pair);

/// The spread that all groups of verdicts share: pooled CV and its degrees of freedom, over complete groups
/// of two or more; df 0 where there are none.
UsualSpread pooledSpread(std::span<const Verdict> verdicts);

/// The tie letters of a group that another group of its condition has too.
std::string sharedLetters(const Verdict& verdict, const Group& group);

} // namespace anvil::results
