// The ranked table: what every group gives, best first.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/unit.h>
#include <anvil/results/verdict.h>
#include <anvil/words/table.h>
#include <optional>

namespace anvil::words {

/// A row for each group of a verdict, `of` is its place in `verdict.groups`. Columns: rank, option, condition
/// (where there are several and none was chosen), n, mean, interval, sd, cv, lowest, mean_minus_3sd,
/// drop_high_low, ties and, where any is known, cost. `condition`: only the groups of that one.
Table rankedTable(const domain::StudyData& data, const results::Verdict& verdict, const quantity::Unit& unit,
                  std::optional<domain::Id> condition = {});

/// How the numbers of a column were made, as a sentence.
std::string ruleOf(std::string_view column, const stats::Summary& summary);

} // namespace anvil::words
