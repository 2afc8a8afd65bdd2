// What is said of a pull once it has been recorded.
#pragma once

#include <anvil/domain/outcomes.h>
#include <string>
#include <vector>

namespace anvil::station {

/// What the tester said of a pull that has just been recorded, or was interrupted, as one command.
struct Judgement {
    std::string part, mode; ///< what broke and how; empty: nothing
    domain::Limit limit = domain::Limit::broke;
    domain::Proposal standing;
    std::vector<domain::Mark> marks;
    int end = 0; ///< which end failed; 0: not noted
    std::string afterwards{};
    bool whileUnloading = false;
};

} // namespace anvil::station
