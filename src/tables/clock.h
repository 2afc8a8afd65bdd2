// The time of a log in seconds.
#pragma once

#include <anvil/tables/log.h>

namespace anvil::tables {

/// Times in seconds that go on where a counter, the day or the hour was turned; a log that shows its newest
/// row first is turned round. Error: a clock or a unit that cannot be told.
Expected<void> readClock(const Layout& layout, Columns& columns, Log& log);

/// The median of the steps of a clock that are not nothing; 0 where there is none.
double medianStep(const std::vector<double>& time);

} // namespace anvil::tables
