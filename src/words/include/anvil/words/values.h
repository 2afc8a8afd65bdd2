// Single numbers and those of a group in words. The one place where "at least" is worded.
#pragma once

#include <anvil/quantity/unit.h>
#include <anvil/results/groups.h>
#include <anvil/stats/summary.h>
#include <string>
#include <vector>

namespace anvil::words {

/// A single value with its state: "at least 4.02 kN"; a guess, read beyond a calibration table, "~4.02 kN".
std::string valueText(const stats::Value& value, const quantity::Unit& unit, bool guess = false);
/// A group's mean: "at least 4.02 kN", "2.345 kN", or "–".
std::string meanText(const stats::Summary& summary, const quantity::Unit& unit);
/// "2.21 to 2.48 kN", or why there is none: "needs two pulls", "some are only bounds".
std::string intervalText(const stats::Summary& summary, const quantity::Unit& unit);
/// "5" or "3 + 2 at least".
std::string countText(const stats::Summary& summary);

/// "normal", "log-normal", "Weibull".
const char* familyName(stats::Family family);
/// "Double crimp in Plain"; without the condition where there is one only.
std::string groupName(const domain::StudyData& data, const results::Group& group);
/// "Ash, Birch and Cedar".
std::string listed(const std::vector<std::string>& names);

} // namespace anvil::words
