// How a table of results is laid out: which cell of a row is what.
#pragma once

#include <anvil/tables/values.h>

namespace anvil::tables {

/// A column of values: of whatever option the row names, or of one option.
struct ValueColumn {
    std::size_t at = 0;
    std::string option;   ///< empty: the row names it
    std::string unitText; ///< as its heading names it
    std::string name{};   ///< of its heading, without the unit
};

struct ValueLayout {
    char delimiter = ',';     ///< ' ' stands for blanks, quotes kept together
    std::size_t firstRow = 0; ///< line index of the first row of results
    bool rowNames = false;    ///< a cell before the first column, without a heading
    std::optional<std::size_t> option, unit, state, upper, block, note, piece;
    std::vector<std::size_t> conditions;
    std::string stateHeading{};
    std::vector<ValueColumn> values;
    std::vector<std::string> notUsed; ///< headings of columns nothing is taken from
};

/// The cells of a row under a layout's delimiter.
std::vector<std::string> cellsOf(std::string_view line, const ValueLayout& layout);

/// Finds the layout. Error: a sentence when no options and values can be found.
Expected<ValueLayout> layOutValues(const std::vector<std::string_view>& lines);

/// "Mean", "Max", "Std dev", "Total": about results, not one of them.
bool isSummary(const std::string& name);
/// Whether a number is what somebody would work out of others, to the digits of a sheet: their mean, sum,
/// median, least, greatest, count, standard deviation (of n or n − 1), its share of the mean or its standard
/// error.
bool isWorkedOut(double value, const std::vector<double>& of);
/// The rows, by their place among `lines`, that are about results: called by a summary's name, and holding
/// what can be worked out of those above, or the only one of that name. What is called "S" or "Mean" and has
/// several values of its own is an option.
std::vector<std::size_t> summaryRows(const std::vector<std::string_view>& lines, const ValueLayout& layout);

} // namespace anvil::tables
