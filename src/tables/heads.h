// The headings above a block of numbers.
#pragma once

#include "sheet.h"
#include <anvil/columns/heading.h>
#include <anvil/tables/log.h>

namespace anvil::tables {

/// The cells of a heading line, laid out like the rows: names of several words joined where blanks part the
/// columns, and a blank cell put before names that leave out the row numbers, or behind them where the rows
/// end in a delimiter. Empty: it is none.
std::vector<std::string> headingCells(std::string_view line, const Layout& layout, std::size_t width,
                                      bool endsBlank);
/// Whether every cell that has something in it is a unit; the first may say "Unit" instead.
bool isUnitsRow(const std::vector<std::string>& cells);

/// The headings of the columns: of up to four lines above the numbers the one that says most by its words and
/// units, with a line of units below it if there is one. Notes both lines in the layout. Empty: there are
/// none.
std::vector<columns::Heading> headingsAbove(const Head& head, Layout& layout, std::size_t width);

/// Whether these cells name a load beside another column that is known, with units or by the names of this
/// layout, and hold no reading: another block begins there. A remark between the rows is none.
bool isBlockHeading(const std::vector<std::string>& cells, const Layout& layout);

} // namespace anvil::tables
