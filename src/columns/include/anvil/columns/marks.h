// What stands where a reading should be, in files and at the rig: one list for both.
#pragma once

#include <string_view>

namespace anvil::columns {

/// What a cell, or a word of a line, says of the reading beside it or instead of it.
enum class Mark {
    none,
    missing, ///< there is none: NA, n/a, null, a dash
    invalid, ///< it is no reading: error, timeout, bad, false
    overload ///< the sensor or the display cannot show as much: OL, 0L, HI, ----, #####, inf, 9.9E+37
};
/// The mark that fills a cell, in any case; a number is one only where no device shows it (9.9e37).
Mark markOf(std::string_view cell);

/// Whether a column is called as one that says of each row whether it counts: status, valid, quality, flag.
bool tellsStanding(std::string_view heading);
/// Of such a column: whether it is called after what is wrong (error, alarm, fault), so that 0 is good.
bool tellsWrong(std::string_view heading);

} // namespace anvil::columns
