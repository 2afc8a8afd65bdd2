// How much more, and how likely: sizes and chances in words.
#pragma once

#include <anvil/stats/compare.h>
#include <string>

namespace anvil::words {

/// "97 %", "over 99 %", "under 1 %".
std::string chanceText(double chance);

/// The ratio of a pair with its 95 % interval: "38 % more (95 % interval 21 % more to 57 % more)", from twice
/// on "2.04 times (95 % interval 1.8 to 2.3)"; `turned`: of b to a. `than`: who it is compared with, empty:
/// unsaid. Empty without a ratio.
std::string sizeText(const stats::Comparison& comparison, bool turned = false, const std::string& than = {});

} // namespace anvil::words
