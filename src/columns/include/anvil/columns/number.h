// Single fields: numbers with either decimal mark, grouped numbers, clock stamps.
#pragma once

#include <optional>
#include <string_view>

namespace anvil::columns {

/// A plain number that fills the field; '+' and blanks around it are allowed. Not-a-number and infinity are
/// returned as such.
std::optional<double> readNumber(std::string_view field, char decimal);

/// A number with grouping marks (1,250.5 or 1.250,5 or 1 250 or 2,34,567).
std::optional<double> readGrouped(std::string_view field, char decimal);

/// The number that fills a field however it is written: plain, grouped, or negative in brackets "(1.5)" or by
/// a sign behind it "1.5-".
std::optional<double> readField(std::string_view field, char decimal);

/// "12:34:56.789", "2:05:33 PM", "01:02.5" (minutes), "01:02" (hours), with a date before it ("2026-03-02",
/// "2.3.2026", before AM or PM "3/2/2026") and a zone behind it (left out) → seconds since midnight, with a
/// date since 1970.
std::optional<double> clockSeconds(std::string_view field);

} // namespace anvil::columns
