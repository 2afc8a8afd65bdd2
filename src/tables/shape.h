// How the rows of a sheet are written: what parts their cells, and which mark stands before the decimals.
#pragma once

#include "sheet.h"
#include <anvil/tables/log.h>

namespace anvil::tables {

struct Shape {
    char delimiter = ',';
    std::size_t columns = 0, rows = 0, firstRow = 0; ///< columns: most numbers in a row; rows that hold some
    std::size_t score() const { return rows * std::min<std::size_t>(columns, 3) * 4 + columns; }
};
/// The delimiter under which most rows are of numbers; no rows where none is.
Shape shapeOf(const Head& head);

/// Whether a cell is a number or a clock under a delimiter, by either decimal mark where the comma is free.
bool isNumeric(std::string_view cell, char delimiter);

/// Decides for each column what its commas are; the head of the file first, then the rest of it, then what
/// other columns show. Where nothing tells and nobody said, the column is unsure.
void decideDecimals(const Head& head, const Hints& hints, Layout& layout);

/// 0,5,12,3 under two names: decimal commas between commas. Error: a sentence.
Expected<void> refuseSplitDecimals(const Head& head, const Layout& layout, std::size_t width);

} // namespace anvil::tables
