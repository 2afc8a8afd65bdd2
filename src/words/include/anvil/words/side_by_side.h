// Several metrics of a study beside each other, in words.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/units.h>
#include <anvil/results/verdict.h>
#include <anvil/words/table.h>
#include <span>

namespace anvil::words {

/// A row for each group of the first verdict, which is of the metric that decides; columns option, condition
/// (where there are several), and the metrics by their keys: mean and, in brackets, rank. `of` is the place
/// in the first verdict.
Table sideBySideTable(const domain::StudyData& data, std::span<const results::Verdict* const> verdicts,
                      const quantity::Units& units);

/// Which metric decides, and where another one would put another option first, condition by condition.
std::vector<std::string> sideBySideSentences(const domain::StudyData& data,
                                             std::span<const results::Verdict* const> verdicts);

} // namespace anvil::words
