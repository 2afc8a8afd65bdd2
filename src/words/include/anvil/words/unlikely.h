// What is asked about a number that is far off its fellows.
#pragma once

#include <anvil/results/unlikely.h>
#include <string>

namespace anvil::words {

/// "44 kN is 10.1 times the others of this square (4.36 kN). Was 44 lbf meant?"
std::string sentence(const results::Unlikely& odd, const quantity::Entry& typed);

} // namespace anvil::words
