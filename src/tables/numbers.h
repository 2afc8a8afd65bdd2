// Single fields: numbers with either decimal mark, grouped numbers, clock stamps.
#pragma once

#include <optional>
#include <string_view>

namespace anvil::tables {

/// A plain number that fills the field; '+' and blanks around it are allowed. Not-a-number and infinity are
/// returned as such.
std::optional<double> readNumber(std::string_view field, char decimal);

/// A number with grouping marks (1,250.5 or 1.250,5 or 1 250).
std::optional<double> readGrouped(std::string_view field, char decimal);

/// "12:34:56.789", "2026-03-02 10:11:12", "2026-03-02T10:11:12,5", "01:02" → seconds since midnight, with a
/// date since 1970.
std::optional<double> clockSeconds(std::string_view field);

} // namespace anvil::tables
