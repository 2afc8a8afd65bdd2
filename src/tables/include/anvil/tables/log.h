// A logger's file: how it is laid out, and the runs in it.
#pragma once

#include <anvil/columns/heading.h>
#include <anvil/curve/curve.h>
#include <anvil/quantity/unit.h>
#include <anvil/tables/text.h>
#include <optional>
#include <string>
#include <vector>

namespace anvil::tables {

/// What is taken from a column: one of the three that make a curve, a channel kept beside them (`other`),
/// what tells runs apart, the unit beside each load, what says of each row whether it is one, or nothing.
enum class Role { ignore, time, load, travel, other, run, unit, standing };

/// Why a column was taken for what it was taken.
enum class Why { nothing, nameAndUnit, unit, name, numbers, onlyOne, person };

using columns::Tells;

struct Column {
    std::string header; ///< as in the file, without its unit; "column 2" when the file has none
    Role role = Role::ignore;
    Why why = Why::nothing;
    const quantity::Unit* unit = nullptr;           ///< as found in the file; empty when it names none
    bool clock = false;                             ///< time of day or date and time, not a number
    bool words = false;                             ///< no numbers
    Tells tells = Tells::run;                       ///< of a column that tells runs apart: by what
    std::string written{};                          ///< its heading as it stands in the file, with its unit
    double factor = 1;                              ///< of its unit: 10 under "[10 N]"
    std::optional<quantity::Dimension> dimension{}; ///< by unit or words; none: nobody can tell
    char decimal = '.';                             ///< a file may write one column so and another so
    bool grouped = false;                           ///< numbers carry grouping marks: 1,250.5
    bool decimalUnsure = false;                     ///< every comma is followed by three digits
    bool fractions = false;                         ///< some of its numbers have decimals
};

/// How a file is laid out. Found by `detect`; may be corrected before `readLog`.
struct Layout {
    char delimiter = ',';       ///< ' ' stands for any run of blanks
    char decimal = '.';         ///< of the load
    bool decimalUnsure = false; ///< every comma is followed by three digits: 1.250 or 1250?
    std::size_t firstRow = 0;   ///< line index (0-based) of the first row of numbers
    std::string headerLine;     ///< empty when the file has none; met again, it begins another run
    std::string unitsLine{};    ///< the row of units below it, or empty
    std::string firstStamp{};   ///< of its clock, as it stands there
    std::vector<Column> columns;
    std::vector<std::string> notes; ///< what was decided about them, in sentences

    std::optional<std::size_t> find(Role role) const;
    const Column* column(Role role) const;
};

/// What the person already knows; empty members are detected. Columns by header or by number from 1.
struct Hints {
    std::string time, load, travel;
    std::string sheet; ///< of a spreadsheet, by name or by number from 1
    const quantity::Unit* forceUnit = nullptr;
    const quantity::Unit* displacementUnit = nullptr;
    const quantity::Unit* timeUnit = nullptr;
    /// What the load is where several columns could be it: a torque in a twist, an acceleration in a drop, a
    /// pressure or volts where the rig reads these.
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
    curve::Curve curve;                ///< with every further channel of the file
    bool overload = false;             ///< the file says in it that the cell could not show all of it
};

/// Everything a file held.
struct Log {
    Layout layout;        ///< of its first block, where headings change in mid-file
    std::string encoding; ///< "UTF-8", or the kind of spreadsheet
    std::string sheet;    ///< the sheet that was read, if the file has some
    std::vector<Run> runs;
    std::vector<Problem> problems;  ///< the first thousand
    std::vector<std::string> notes; ///< what was put right, in sentences
    std::string overload;        ///< the file's own word that the cell could not show all of it; empty: none
    std::size_t rowsLeftOut = 0; ///< rows that nobody could read
    std::size_t rowsMarked = 0;  ///< rows that the file itself calls no readings; they are out of the curves
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

/// The numbers of a file by column, before they are cut into runs.
struct Columns {
    /// A vector a column of the layout, as in the file, clock stamps in seconds; empty for one that is not
    /// kept. What is blank in a column that is neither time nor load is NaN.
    std::vector<std::vector<double>> values;
    std::size_t rows = 0;
    /// A row before which a new run begins, and what the run column says of it.
    struct Break {
        std::size_t row = 0;
        std::string label{};
        std::string option{}, condition{};
    };
    std::vector<Break> breaks; ///< with a run column that column alone decides
    std::vector<Problem> problems;
    std::size_t rowsLeftOut = 0, rowsMarked = 0; ///< as in a log
    std::size_t overloadAt = 0;                  ///< line of the first row that says overload; 0: none does
    std::vector<std::size_t> overloads;          ///< rows that say so, or that follow one without a number
    std::size_t otherUnitAt = 0; ///< line from which on another unit stands beside the load; 0: there is none
    /// What the column of standings says of each row, as a place in `standingWords`; empty without one.
    std::vector<unsigned char> standings;
    std::vector<std::string> standingWords;
    /// Where a heading stands that names other columns: its byte in the text, or its row of a parted sheet.
    std::optional<std::size_t> nextBlock{};
    std::size_t lines = 0; ///< that were gone through

    const std::vector<double>& of(const Layout& layout, Role role) const;
};
Columns parseColumns(std::string_view text, const Layout& layout, unsigned threads);

} // namespace anvil::tables
