// Sheets of the plan for paper and spreadsheet.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/pages/block.h>
#include <string>

namespace anvil::pages {

/// The order of pulls to take to the rig: a row for each piece with room to write on.
Page runList(const domain::StudyData& data);

/// What the plan eats, for the shop and the saw.
Page stock(const domain::StudyData& data);
/// The same for a spreadsheet: CSV with a heading.
std::string stockCsv(const domain::StudyData& data);

} // namespace anvil::pages
