// Lines that say what they measure: their numbers, one after another, whatever stands between.
#pragma once

#include <anvil/rig/lines.h>
#include <functional>

namespace anvil::rig {

/// A number of such a line.
struct LabelledNumber {
    double value = 0;
    std::size_t from = 0, to = 0; ///< its bytes in the line
};

/// The next number from byte `at` on; times of day and dates are passed over. Not a number (NaN) where its
/// marks cannot be those of one ("1.2.3"). Nothing at the end of the line.
std::optional<LabelledNumber> nextNumber(std::string_view line, std::size_t at, char decimal);

/// The numbers of a line of this layout, in the units its columns print; one in another unit of the same kind
/// ("950 g" among "1.02 kg") is converted. Nothing where a number is missing or the line speaks of something
/// else: other words before a number, or a unit of another kind behind it.
std::optional<std::vector<double>> labelledNumbers(std::string_view line, const Layout& layout);

/// The layout that most of these lines have, if they say what they measure; with it how many have it.
std::pair<Layout, std::size_t> guessLabelled(std::span<const std::string> lines);

} // namespace anvil::rig
