// Rows that the file itself calls no readings.
#pragma once

#include <anvil/tables/log.h>

namespace anvil::tables {

/// Keeps the rows marked in `keep`; breaks and overloads move with them.
void keepRows(Columns& columns, const std::vector<char>& keep);

/// Takes out the rows that the column of standings marks (the commonest word is the good one) and those that
/// show the end of a device's range (9999, 32767 …) again and again, far above all others; both are said.
/// Source: calculations, reading one force curve, 20.
void leaveOutMarked(const Layout& layout, Columns& columns, Log& log);

/// A last row that holds the sum of those above it is no reading, and never the peak.
void leaveOutSums(const Layout& layout, Columns& columns, Log& log);

} // namespace anvil::tables
