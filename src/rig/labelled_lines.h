// Lines that say what they measure: their numbers, one after another, whatever stands between.
#pragma once

#include <anvil/rig/lines.h>

namespace anvil::rig {

/// The numbers of a line of this layout, in the units its columns print; one in another unit of the same kind
/// ("950 g" among "1.02 kg") is converted. Nothing where a number is missing or the line speaks of something
/// else: other words before a number, a unit of another kind behind it, or another load of a scale that shows
/// gross and net in turns.
std::optional<std::vector<double>> labelledNumbers(std::string_view line, const Layout& layout);

/// The layout that most of these lines have, if they say what they measure; with it how many have it.
std::pair<Layout, std::size_t> guessLabelled(std::span<const std::string> lines);

} // namespace anvil::rig
