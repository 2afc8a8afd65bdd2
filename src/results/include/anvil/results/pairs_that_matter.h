// Of very many options nobody reads every pair.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::results {

/// Options of whose pairs all are given without being asked for.
inline constexpr std::size_t mostOptionsInFull = 60;

/// Whether a pair is one of those that are read of very many: with the first of its condition, with the
/// control, with the next in rank, or of one option in two conditions.
bool matters(const Verdict& verdict, const PairResult& pair);

/// Of each pair of the verdict whether it is given: all of them where they are asked for or the options are
/// not very many, else those that matter.
std::vector<bool> pairsGiven(const Verdict& verdict, std::size_t options, bool all);

} // namespace anvil::results
