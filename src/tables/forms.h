// Texts that hold columns of numbers in other forms than rows and delimiters; each becomes plain CSV text.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace anvil::tables {

/// JSON: an object a line, a list of objects or of rows, or columns by name. Nothing where it is no JSON.
std::optional<std::string> fromJson(std::string_view text);
/// Rows in brackets: "(0.0, 0.6)", "[0.0, 0.6],".
std::optional<std::string> fromTuples(std::string_view text);
/// A row a reading: "time, channel, value" becomes a column for each channel, where all have the same times.
std::optional<std::string> fromLong(std::string_view text);
/// Columns written as rows: a name, then its numbers.
std::optional<std::string> fromTransposed(std::string_view text);
/// Several runs side by side, each with a time of its own: "t1, F1, t2, F2". They come one below the other.
std::optional<std::string> fromPairs(std::string_view text);
/// A heading parted by another mark than its rows.
std::optional<std::string> fromOtherHeading(std::string_view text);

} // namespace anvil::tables
