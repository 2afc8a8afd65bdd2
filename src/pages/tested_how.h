// How a study was tested, in sentences.
#pragma once

#include <anvil/pages/page.h>

namespace anvil::pages {

/// How it was tested, so that others can repeat it: method, speed, what the steps of a scale mean, and the
/// rigs with their load path and calibration.
std::vector<std::string> testedHow(const Source& source, const quantity::Units& units);

} // namespace anvil::pages
