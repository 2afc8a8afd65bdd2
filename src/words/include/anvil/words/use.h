// From strength to use, in words.
#pragma once

#include <anvil/quantity/unit.h>
#include <anvil/results/forecasts.h>
#include <anvil/results/use.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// A row a group: floor, working limit, how many are needed, or why there is none.
Table limitTable(const domain::StudyData& data, const results::Verdict& verdict,
                 const std::vector<results::WorkingLimit>& limits, const quantity::Unit& unit);
/// How the limits are made, from what was chosen.
std::string ruleOfLimits(const domain::Use& use, const quantity::Unit& unit);
/// What a working limit made in a shed is not.
std::vector<std::string> limitCautions();

/// What was expected beside what came.
Table forecastTable(const domain::StudyData& data, const results::Verdict& verdict,
                    const std::vector<results::ForecastResult>& forecasts, const quantity::Unit& unit);

} // namespace anvil::words
