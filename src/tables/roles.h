// What each column of a layout is: by what its heading says, how its numbers run, and what the person said.
#pragma once

#include "sheet.h"
#include <anvil/columns/heading.h>
#include <anvil/tables/log.h>

namespace anvil::tables {

/// By headings. Error: more than one column could be the load, or its unit is not known.
Expected<void> assignByHeadings(const Head& head, Layout& layout,
                                const std::vector<columns::Heading>& headings, const Hints& hints);
/// Without headings: one column is the load; of two a steadily rising one is the time; more are asked about,
/// but for a time first and one of the others that only rises, which is the travel.
Expected<void> assignByBehaviour(const Head& head, Layout& layout, const Hints& hints);
/// Units beside the numbers, what says of each row whether it is one, and what the person said. Error: there
/// is no such column, or none can be the load.
Expected<void> assignTheRest(const Head& head, Layout& layout, const std::vector<columns::Heading>& headings,
                             const Hints& hints);
/// Rows of several sensors in turns are no curve. Error: a sentence that says what to do.
Expected<void> refuseSensorsInTurns(const Head& head, const Layout& layout);
/// Every further column of numbers is a channel that is kept.
void keepChannels(const Head& head, Layout& layout);

/// Whether every step is one: a row number.
bool countsRows(const std::vector<double>& values);
/// The numbers of one column in the head of the file.
std::vector<double> sampleOf(const Head& head, const Layout& layout, std::size_t column);

} // namespace anvil::tables
