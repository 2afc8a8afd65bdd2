// Whether a need is met, in words.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/unit.h>
#include <anvil/results/needs.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// "met", "not met", "cannot tell".
const char* text(results::NeedVerdict verdict);

/// A row for each result, `of` its group's place in the verdict. Columns: option, condition (where there are
/// several), n, mean, verdict, mean_meets, next_meets, floor_meets.
Table needTable(const domain::StudyData& data, const results::Verdict& verdict,
                std::span<const results::NeedResult> needs, const quantity::Unit& unit);

/// Each as a sentence: "Pressed sleeve in Plain: met. The next piece holds 3000 N with a chance of 98 %."
std::string sentence(const domain::StudyData& data, const results::Verdict& verdict,
                     const results::NeedResult& need, const quantity::Unit& unit);

} // namespace anvil::words
