// Tables of single results: one row a specimen, as typed in or pasted from a spreadsheet.
#pragma once

#include <anvil/quantity/entry.h>
#include <anvil/stats/summary.h>
#include <anvil/tables/log.h>

namespace anvil::tables {

/// One result. `value` is in `unit`, or bare when the table names none.
struct ValueRow {
    std::size_t line = 0;
    std::string option, condition, block, note, asTyped;
    std::string piece{}; ///< its label, where a column says it
    stats::Value value;
    const quantity::Unit* unit = nullptr;
};

struct ValueTable {
    std::vector<ValueRow> rows;
    std::vector<Problem> problems;
    std::size_t lost =
        0; ///< of the problems those that may hide a result: no summary, nothing set aside or blank
    std::size_t firstLost = 0;        ///< the first of them, as an index into `problems`
    std::vector<std::string> notUsed; ///< headings of columns nothing was taken from
    bool hasConditions = false;

    /// More than one result in fifty would be lost: somebody has to say that this is all right.
    bool losesMuch() const { return 50 * lost > rows.size() + lost; }
    /// How many would be lost and why, in a sentence without its end.
    std::string lossText() const;
};

/// Reads a table with columns option and value, and optionally conditions, unit, state (or standing), upper,
/// block, note, found by their headings; or one row an option with its results side by side; or one column an
/// option; without headings: option, value or option, condition, value. A value
/// may carry its own unit and doubt ("> 9 kN"). States: exact, above, below, between, aside (also "at least",
/// "at most", "set aside", "counts"). Of a spreadsheet or web page the sheet is read that holds results, or
/// `sheet` (name or number). Error: a sentence when no column of options and values can be found, or several
/// sheets hold some.
Expected<ValueTable> readValues(std::string_view bytes, const std::string& sheet = {});

/// All rows in the unit of the first one. Error: mixed dimensions, or some rows with and some without a unit.
Expected<const quantity::Unit*> unify(std::vector<ValueRow>& rows);

} // namespace anvil::tables
