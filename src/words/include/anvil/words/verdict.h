// What a verdict says, in sentences. They are made of its values and need no unit.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/results/sureness.h>
#include <anvil/stats/compare.h>
#include <string>
#include <vector>

namespace anvil::words {

/// Who leads a condition in what is wanted, by how much and how sure that is; then what stays below the need,
/// what is a guess and what could not be read. With `sure` it says the chance that the leader is the best.
std::string headline(const domain::StudyData& data, const results::Verdict& verdict,
                     const domain::Condition& condition, const results::Sureness* sure = nullptr);

/// One for each condition with pulls, in board order.
std::vector<std::string> headlines(const domain::StudyData& data, const results::Verdict& verdict,
                                   const results::Sureness* sure = nullptr);

/// A comparison of two sides with size and certainty. `where`: the condition both are in; empty: none.
std::string sentence(const std::string& a, const std::string& b, const std::string& where,
                     const stats::Comparison& comparison, const stats::Summary& left,
                     const stats::Summary& right, const domain::Goal& goal);

/// A pair of a verdict likewise.
std::string sentence(const domain::StudyData& data, const results::Verdict& verdict,
                     const results::PairResult& pair);

/// What would settle more: pairs that are too close, squares with too few pulls.
std::vector<std::string> next(const domain::StudyData& data, const results::Verdict& verdict);

} // namespace anvil::words
