// What broke, and what it is worth, in words.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/unit.h>
#include <anvil/results/parts.h>
#include <anvil/results/worth.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// A row for each part of each square; `of` is the group. Columns: option, condition (where there are
/// several), part, failed, strength (typical: half of them hold more), first.
Table partTable(const domain::StudyData& data, const results::Verdict& verdict,
                std::span<const results::SquareParts> squares, const quantity::Unit& unit);

/// Squares in which not one part alone decides, a sentence each.
std::vector<std::string> sentences(const domain::StudyData& data, const results::Verdict& verdict,
                                   std::span<const results::SquareParts> squares);

/// A row for each; `of` is the group. Columns: option, condition (where there are several), cost, mean,
/// floor, per_cost with its interval, per_weight with its (where any weight is known), unbeaten.
Table worthTable(const domain::StudyData& data, const results::Verdict& verdict,
                 std::span<const results::Worth> worth, const quantity::Unit& unit);

/// "Dry: nothing here is both cheaper and stronger than Pin or Bolt." One a condition.
std::vector<std::string> sentences(const domain::StudyData& data, const results::Verdict& verdict,
                                   std::span<const results::Worth> worth);

} // namespace anvil::words
