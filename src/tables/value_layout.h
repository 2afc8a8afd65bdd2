// How a table of results is laid out: which cell of a row is what.
#pragma once

#include <anvil/tables/values.h>

namespace anvil::tables {

/// A column of values: of whatever option the row names, or of one option.
struct ValueColumn {
    std::size_t at = 0;
    std::string option;   ///< empty: the row names it
    std::string unitText; ///< as its heading names it
};

struct ValueLayout {
    char delimiter = ',';     ///< ' ' stands for blanks, quotes kept together
    std::size_t firstRow = 0; ///< line index of the first row of results
    bool rowNames = false;    ///< a cell before the first column, without a heading
    std::optional<std::size_t> option, unit, state, upper, block, note;
    std::vector<std::size_t> conditions;
    std::vector<ValueColumn> values;
    std::vector<std::string> notUsed; ///< headings of columns nothing is taken from
};

/// The cells of a row under a layout's delimiter.
std::vector<std::string> cellsOf(std::string_view line, const ValueLayout& layout);

/// Finds the layout. Error: a sentence when no options and values can be found.
Expected<ValueLayout> layOutValues(const std::vector<std::string_view>& lines);

/// "Mean", "Max", "Std dev", "Total": about results, not one of them.
bool isSummary(const std::string& name);

} // namespace anvil::tables
