// What was published and is another now.
#pragma once

#include <anvil/quantity/unit.h>
#include <anvil/results/corrections.h>

namespace anvil::words {

/// "Published on 2026-05-02 as 412 N: W2-3 is 398 N now, because the ratio was wrong."
std::string sentence(const domain::StudyData& data, const results::Corrected& corrected,
                     const quantity::Unit& unit);

} // namespace anvil::words
