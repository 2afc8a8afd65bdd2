// The one place where numbers become text: significant digits, trailing zeros, thousands.
#pragma once

#include <anvil/quantity/unit.h>
#include <string>

namespace anvil::quantity {

/// Significant digits of results shown to a tester.
inline constexpr int resultDigits = 4;

/// `value` with so many significant digits, in plain notation (never 1e5), trailing zeros kept; from five
/// digits before the decimal point on, groups of three are parted by a no-break space. Not finite: "–".
std::string significant(double value, int digits = resultDigits);

/// `value` with a fixed number of decimals and the same grouping.
std::string fixed(double value, int decimals);

/// The shortest text that gives `value` back to 12 significant digits, ungrouped: 48.3, not 48.30000001.
std::string shortest(double value);

/// Rounded to 15 significant digits: removes the dust of a unit conversion from a number for a machine.
double tidy(double value);

/// An SI value in `unit`, with its symbol: "12.35 kN".
std::string withUnit(double si, const Unit& unit, int digits = resultDigits);

/// A value that somebody typed, in as few digits as it needs, with its symbol: "50 N", never "50.00 N".
std::string asEntered(double si, const Unit& unit);

/// A value that was typed in this or another unit, for looking at: as entered where that takes no more than
/// four significant digits, else with four, so that 100 kgf are "980.7 N" and never "980.665 N".
std::string briefly(double si, const Unit& unit);

/// `value` with the decimals that a display of this step needs: 21.46 at 0.5 gives "21.5". For figures that
/// change while one looks; a step of zero or less: as `significant`.
std::string atStep(double value, double step);

/// A share as a percentage: 0.0412 → "4.1 %", 0.31 → "31 %".
std::string percent(double share);

} // namespace anvil::quantity
