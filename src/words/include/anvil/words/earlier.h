// Then and now, in words.
#pragma once

#include <anvil/quantity/unit.h>
#include <anvil/results/earlier.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// A row for each result of another study.
Table earlierTable(const domain::StudyData& data, const results::Verdict& verdict,
                   const std::vector<results::ThenAndNow>& all, const quantity::Unit& unit);

} // namespace anvil::words
