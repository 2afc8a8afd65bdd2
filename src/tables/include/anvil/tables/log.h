// A logger's file: how it is laid out, and the runs in it.
#pragma once

#include <anvil/curve/curve.h>
#include <anvil/quantity/unit.h>
#include <anvil/tables/text.h>
#include <optional>
#include <string>
#include <vector>

namespace anvil::tables {

enum class Role { ignore, time, load, travel, run, unit, standing };

/// Why a column was taken for what it was taken.
enum class Why { nothing, nameAndUnit, unit, name, numbers, onlyOne, person };

/// What a column that tells runs apart says of them.
enum class Tells { run, option, condition };

struct Column {
    std::string header; ///< as in the file, without its unit; "column 2" when the file has none
    Role role = Role::ignore;
    Why why = Why::nothing;
    const quantity::Unit* unit = nullptr; ///< as found in the file; empty when it names none
    bool clock = false;                   ///< time of day or date and time, not a number
    bool words = false;                   ///< no numbers
    Tells tells = Tells::run;             ///< of a column that tells runs apart: by what
    std::string written{};                ///< its heading as it stands in the file, with its unit
};

/// How a file is laid out. Found by `detect`; may be corrected before `readLog`.
struct Layout {
    char delimiter = ','; ///< ' ' stands for any run of blanks
    char decimal = '.';
    bool grouped = false;       ///< numbers carry grouping marks: 1,250.5
    bool decimalUnsure = false; ///< every comma is followed by three digits: 1.250 or 1250?
    std::size_t firstRow = 0;   ///< line index (0-based) of the first row of numbers
    std::string headerLine;     ///< empty when the file has none; met again, it begins another run
    std::vector<Column> columns;
    std::vector<std::string> notes; ///< what was decided about them, in sentences

    std::optional<std::size_t> find(Role role) const;
};

/// What the person already knows; empty members are detected. Columns by header or by number from 1.
struct Hints {
    std::string time, load, travel;
    std::string sheet; ///< of a spreadsheet, by name or by number from 1
    const quantity::Unit* forceUnit = nullptr;
    const quantity::Unit* displacementUnit = nullptr;
    const quantity::Unit* timeUnit = nullptr;
    /// What a column of the load may measure as well, where the rig reads a pressure or volts.
    quantity::Dimension loadKind = quantity::Dimension::force;
    char decimal =
        '\0'; ///< what the comma is where the file leaves it open: ',' decimal mark, '.' grouping mark
};

/// A row or a file that could not be used, in words.
struct Problem {
    std::size_t line = 0; ///< 1-based; 0: the whole file
    std::string reason;
};

/// One run of a file, in SI units.
struct Run {
    std::string label;                 ///< from the run column, else its number in the file
    std::string option{}, condition{}; ///< as columns of the file say
    curve::Curve curve;
    bool overload = false; ///< the file says in it that the cell could not show all of it
};

/// Everything a file held.
struct Log {
    Layout layout;
    std::string encoding; ///< "UTF-8", or the kind of spreadsheet
    std::string sheet;    ///< the sheet that was read, if the file has some
    std::vector<Run> runs;
    std::vector<Problem> problems;  ///< the first thousand
    std::vector<std::string> notes; ///< what was put right, in sentences
    std::string overload; ///< the file's own word that the cell could not show all of it; empty: none
    std::size_t rowsLeftOut = 0;
    bool forceUnitKnown = false,
         displacementUnitKnown = false; ///< false: the file names no unit and none was given
};

/// How a sentence ends that asks which column is what.
inline constexpr std::string_view asksForColumns = "say which column is the load";
inline constexpr std::string_view asksForSheet = "say which sheet";

/// Finds delimiter, decimal mark, header and unit rows, and what each column is. Error: no rows of numbers,
/// no force column.
Expected<Layout> detect(std::string_view text, const Hints& hints = {});

/// Reads a log of any common shape: CSV or TSV in any common encoding, packed or not, spreadsheets, web
/// pages, JSON, labelled lines, clock stamps, several runs by blank lines, repeated headers, a run column,
/// clock resets or pulls one after another. What cannot be read is named by line and reason; the rest is
/// returned. Forces without a known unit are taken as newtons and flagged in `forceUnitKnown`, lengths as
/// millimetres. Threads: how many to parse with.
Expected<Log> readLog(std::string_view bytes, const Hints& hints = {}, unsigned threads = 2);

/// The numbers of a file by column, before they are cut into runs; the hot loop, used by readLog.
struct Columns {
    std::vector<double> time, load, travel; ///< as in the file; clock stamps in seconds
    /// A row before which a new run begins, and what the run column says of it.
    struct Break {
        std::size_t row = 0;
        std::string label{};
        std::string option{}, condition{};
        const quantity::Unit* unit = nullptr; ///< of the load from here on, where a heading names another
    };
    std::vector<Break> breaks; ///< with a run column that column alone decides
    std::vector<Problem> problems;
    std::size_t rowsLeftOut = 0;
    std::size_t blankWays = 0;          ///< rows without a displacement, which is NaN there
    std::size_t overloadAt = 0;         ///< line of the first row that says overload; 0: none does
    std::vector<std::size_t> overloads; ///< rows that say so, or that follow one without a number
    std::size_t otherUnitAt = 0; ///< line from which on another unit stands beside the load; 0: there is none
};
Columns parseColumns(std::string_view text, const Layout& layout, unsigned threads);

} // namespace anvil::tables
