// Columns in SI units into runs.
#pragma once

#include <anvil/tables/log.h>

namespace anvil::tables {

/// Blank lines behind every row, or nearly, are how the file is written, not where runs begin.
void dropRegularBreaks(Columns& columns);
/// Rows of several runs in turns are put together run by run.
void sortByLabel(const Layout& layout, Columns& columns);
/// Travels between the rows that have one lie on a straight line between these.
void fillBlankTravel(const Layout& layout, Columns& columns, Log& log);
/// Where a file is cut, or its clock jumps back, while the load goes on, what comes after is no other run:
/// nobody knows how much is missing. Error: a sentence that says where.
Expected<void> refuseCutsUnderLoad(const Layout& layout, const Columns& columns);

/// The runs of a block: by the column that tells them apart, else by breaks, steps back of the clock and,
/// where nothing else cuts it, pull by pull. `only`: the file has no other block.
std::vector<Run> runsOf(const Layout& layout, Columns&& columns, bool only, Log& log);

} // namespace anvil::tables
