// Lines that say what they measure, in files and from devices: "Load: 71.61 kg", "ST,GS,+0012.34kg",
// "F=12.3 x=0.4", "14:05:33.050 -> 0.07".
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::columns {

/// A number in a line, and its bytes there.
struct LineNumber {
    double value = 0; ///< NaN where its marks cannot be those of one ("1.2.3", "0x1A2")
    std::size_t from = 0, to = 0;
};

/// The next number from byte `at` on; times of day and dates are passed over, and numbers within words ("M8",
/// "HX711"). Thousands may be set apart by the other mark where it cannot be the decimal one; a sign may
/// stand behind ("12.3-"). Nothing at the end of the line.
std::optional<LineNumber> nextNumber(std::string_view line, std::size_t at, char decimal);

/// Which load a scale says it shows.
enum class Weighing { untold, gross, net, tare };
/// "GS", "G", "gross" …; untold for another word.
Weighing weighingOf(std::string_view word);

/// A number of a line with the words before it and the unit behind it.
struct LineItem {
    std::string label;                    ///< without status words, and without what says when or who
    std::string unit;                     ///< symbol of a known one
    double value = 0;                     ///< as printed; of a clock: seconds, see clockSeconds
    bool clock = false;                   ///< a time of day or a date with one
    bool glued = false;                   ///< a comma and a digit follow at once
    Weighing weighing = Weighing::untold; ///< as a word before it says
    std::string says{};                   ///< that word
    std::size_t from = 0, to = 0;         ///< the number's bytes
    /// Of the same thing: the unit may follow the size of the number.
    bool sameKind(const LineItem& other) const;
};

/// Whether a label speaks of a number made of others, or set: peak, max, mean, limit …
bool tellsDerived(std::string_view label);

/// The numbers of a line, at most 32; none where one of them is none ("1.2.3"). `clocks`: stamps are items of
/// their own, else they are passed over.
std::vector<LineItem> itemsOf(std::string_view line, char decimal, bool clocks = false);

/// Where a scale shows gross and net loads, on one line or in turns, which it is becomes part of the label.
void sayWeighing(std::vector<LineItem>& items);

/// A part of a line and what it is taken as.
struct LinePart {
    enum class Kind { label, number, unit, status, clock, other };
    Kind kind = Kind::other;
    std::size_t from = 0, to = 0; ///< bytes
    int column = -1;              ///< of a number: which one
};
/// What is seen in a line that says what it measures, from left to right.
std::vector<LinePart> partsOf(std::string_view line, char decimal = '.');

/// Whether a line says overload: a word that `markOf` knows as one, a row of dashes where a number should be,
/// or a number that no device shows. Words that say other things as well (high, over, or) count only where no
/// number stands beside them.
bool saysOverload(std::string_view line);

} // namespace anvil::columns
