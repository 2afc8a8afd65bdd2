// Why a pull stands as it does, in a sentence.
#pragma once

#include <anvil/domain/outcomes.h>
#include <anvil/results/values.h>
#include <string>

namespace anvil::words {

/// "Not the fitting but the wire failed."; what the tester said of it as it was said; empty where nothing is
/// to be said.
std::string whyStands(const domain::Proposal& stands);

/// The same of a pull as it is known; empty where it counts and nobody said anything.
std::string reasonOf(const domain::StudyData& data, const domain::Pull& pull, const curve::Reading* reading);

} // namespace anvil::words
