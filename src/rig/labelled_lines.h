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

/// The next number from byte `at` on; times of day and dates are passed over. Nothing at the end of the line.
std::optional<LabelledNumber> nextNumber(std::string_view line, std::size_t at, char decimal);

/// The layout that most of these lines have, if they say what they measure; with it how many have it.
std::pair<Layout, std::size_t> guessLabelled(std::span<const std::string> lines);

} // namespace anvil::rig
