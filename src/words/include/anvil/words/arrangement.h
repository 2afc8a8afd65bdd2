// Arrangements against what they were said to hold, in words.
#pragma once

#include <anvil/quantity/unit.h>
#include <anvil/results/arrangement.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// Columns option, condition, plain, factor, measured, and for both baselines what was predicted and the
/// share of it that was held, with its interval.
Table arrangementTable(const domain::StudyData& data, const std::vector<results::Arranged>& all,
                       const quantity::Unit& unit);

/// What each keeps of what it was said to hold; first those that the two baselines turn round.
std::vector<std::string> arrangementSentences(const domain::StudyData& data,
                                              const std::vector<results::Arranged>& all);

} // namespace anvil::words
