// Numbers as machines write them: no locale, no grouping, no unit.
#pragma once

#include <optional>
#include <string_view>

namespace anvil::quantity {

/// A number as a program prints it ("-12.5", "1e-3"), whatever the locale says. None unless the whole text is
/// one that a double can hold.
std::optional<double> machineNumber(std::string_view text);

/// Whole digits with an optional minus ("12", "-3"). None unless the whole text is one that an int can hold.
std::optional<int> wholeNumber(std::string_view text);

/// Has every number of this program's run written and read with a point, whatever language the desktop
/// speaks: libraries ask the C locale, which the interface's application object sets from the environment. To
/// be called after that object is made.
void usePoints();

} // namespace anvil::quantity
