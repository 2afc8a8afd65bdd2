// What a ladder of steps says: the strength lies between the last step held and the first that failed.
#pragma once

#include "tell.h"

namespace anvil::methods {

struct LadderEnds {
    stats::Value value; ///< of the size of a step
    BoundBy boundBy = BoundBy::nothing;
    std::vector<std::string> notes; ///< a step of more than 10 %
};

/// The ends of a ladder by the size of its steps. Where its pull is "at least" (another part let go) what was
/// held is all it says, where it is "at most" what failed is. Error: no step, a size that is not above zero,
/// or one that was held beyond one that failed.
/// `own` is what stands there already, such as the moment of the arm itself: the last step is a share of all
/// of it.
Expected<LadderEnds> endsOf(const std::vector<Step>& steps, double (*size)(const Step&), stats::Bound pull,
                            double own = 0);

} // namespace anvil::methods
