// What stands between a display and the piece, in words.
#pragma once

#include <anvil/quantity/units.h>
#include <anvil/results/values.h>
#include <string>

namespace anvil::words {

/// Where the loads of a study are read, on the display of `rig` or at the piece, or the question which.
/// `readAt`: "display", "piece", or empty where nobody has said.
std::string displaySentence(const results::ReadThrough& path, const std::string& rig,
                            const std::string& readAt);

/// What was read, what stood between, and what the piece felt: "48 lb × 20 = 960 lb at the piece".
std::string readOffText(const results::Pull& pull, const results::ReadThrough& path,
                        const quantity::Units& units);

} // namespace anvil::words
