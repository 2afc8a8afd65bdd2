// What the channels beside a pull's own showed.
#pragma once

#include <anvil/curve/reading.h>
#include <anvil/quantity/units.h>
#include <anvil/words/table.h>
#include <span>

namespace anvil::words {

/// Puts a row for each channel behind those of a reading: its name, what it showed at the peak, and between
/// what it went. The values lie at the samples of the cleaned curve; one that is not a number is none.
void addBeside(Table& table, std::span<const curve::Channel> channels, std::size_t peak,
               const quantity::Units& units);

} // namespace anvil::words
