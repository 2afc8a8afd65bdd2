// What a verdict says, in sentences. They are made of its values and need no unit.
#pragma once

#include <anvil/study/verdict.h>
#include <string>
#include <vector>

namespace anvil::words {

/// Who leads a condition in what is wanted, by how much and how sure that is; then what stays below the need,
/// what is a guess and what could not be read.
std::string headline(const study::StudyData& data, const study::Verdict& verdict,
                     const study::Condition& condition);

/// One for each condition with pulls, in board order.
std::vector<std::string> headlines(const study::StudyData& data, const study::Verdict& verdict);

/// A comparison of two sides with size and certainty. `where`: the condition both are in; empty: none.
std::string sentence(const std::string& a, const std::string& b, const std::string& where,
                     const stats::Comparison& comparison, const stats::Summary& left,
                     const stats::Summary& right, const study::Goal& goal);

/// A pair of a verdict likewise.
std::string sentence(const study::StudyData& data, const study::Verdict& verdict,
                     const study::PairResult& pair);

/// What would settle more: pairs that are too close, squares with too few pulls.
std::vector<std::string> next(const study::StudyData& data, const study::Verdict& verdict);

} // namespace anvil::words
