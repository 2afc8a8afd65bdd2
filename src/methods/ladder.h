// What a ladder of steps says: the strength lies between the last step held and the first that failed.
#pragma once

#include "tell.h"

namespace anvil::methods {

struct LadderEnds {
    stats::Value value;             ///< of the size of a step
    std::vector<std::string> notes; ///< a step of more than 10 %
};

/// The ends of a ladder by the size of its steps. Error: no step, a size that is not above zero, or one that
/// was held beyond one that failed.
Expected<LadderEnds> endsOf(const std::vector<Step>& steps, double (*size)(const Step&));

} // namespace anvil::methods
