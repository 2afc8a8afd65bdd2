// Floors, in words: what a group can be trusted to hold, each with its own promise.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/unit.h>
#include <anvil/results/one_group.h>
#include <anvil/results/verdict.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// A row for each group with a value, `of` its place in `verdict.groups`. Columns: option, condition (where
/// there are several), n, lowest, mean_minus_3sd, the floors by their keys, family: what fits best by
/// Akaike's measure. `groups` are the analyses of the verdict's groups, in their order.
Table floorTable(const domain::StudyData& data, const results::Verdict& verdict,
                 std::span<const results::OneGroup> groups, const quantity::Unit& unit);

/// What each kind of floor promises, a sentence each.
std::vector<std::string> floorPromises();

/// A value that stands apart: with which mean and which without. It is a suggestion to look.
std::string standingApart(const domain::StudyData& data, const results::Verdict& verdict,
                          const results::Apart& apart, const quantity::Unit& unit);

} // namespace anvil::words
