// Tables of a package as text.
#pragma once

#include <anvil/quantity/error.h>
#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::exchange {

/// A row of cells, and where it stands.
struct CsvRow {
    std::vector<std::string> cells;
    std::size_t line = 0; ///< from 1, of its first line
};

/// A table as it is written: its head and its rows. Cells are trimmed; one that begins with ' before = + - @
/// was made harmless and is without it.
struct CsvTable {
    std::vector<std::string> head;
    std::vector<CsvRow> rows;
};

/// Reads comma-separated text, or where its head has no comma one parted by semicolons; cells in quotes may
/// hold anything, lines that are empty say nothing. Error: "line 3 has 5 cells and the head has 4", a quote
/// that is not closed, no text.
Expected<CsvTable> readCsv(std::string_view bytes);
/// The same, row by row, for long ones: `head` and `row` see each once and say what is wrong with it.
Expected<void> walkCsv(std::string_view bytes,
                       const std::function<Expected<void>(const std::vector<std::string>&)>& head,
                       const std::function<Expected<void>(const CsvRow&)>& row);

/// Adds a row to a text.
void addCsvRow(std::string& text, const std::vector<std::string>& cells);

} // namespace anvil::exchange
