// Texts that hold columns of numbers in other forms than rows and delimiters: each becomes rows of cells, the
// names of the columns in the first.
#pragma once

#include "sheet.h"
#include <optional>

namespace anvil::tables {

using Rows = std::vector<CellRow>;

/// JSON: an object a line, a list of objects or of rows, or columns by name. Nothing where it is no JSON.
std::optional<Rows> fromJson(std::string_view text);
/// Rows in brackets, on lines of their own or not: "(0.0, 0.6)", "[0.0, 0.6],"; a bracket of names heads
/// them.
std::optional<Rows> fromTuples(std::string_view text);
/// Rows as typesetting programs take them: "0.0 & 0.6 \\".
std::optional<Rows> fromTypeset(std::string_view text);
/// A row a reading: "time, channel, value" becomes a column for each channel, where all have the same times.
std::optional<Rows> fromLong(std::string_view text);
/// Columns written as rows: a name, then its numbers.
std::optional<Rows> fromTransposed(std::string_view text);
/// Several runs side by side, each with a time of its own: "t1, F1, t2, F2", "Oak time, Oak load, Elm time,
/// Elm load". They come one below the other, with what their names share as their label.
std::optional<Rows> fromPairs(std::string_view text);
/// A heading parted by another mark than its rows.
std::optional<Rows> fromOtherHeading(std::string_view text);
/// Lines that say what they measure: "Load: 71.61 kg", "F=12.3 x=0.4", "14:05:33.050 -> 0.07". Lines of
/// another kind are rows of one cell. Nothing where the text is not of this kind: nine in ten of its first
/// lines must be alike.
std::optional<Rows> fromLabelled(std::string_view text);

/// The delimiter of a line of cells, the one that makes most of them; '\0' for a single cell.
char delimiterOf(std::string_view line);

} // namespace anvil::tables
