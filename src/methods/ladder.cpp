#include "ladder.h"

#include <algorithm>

namespace anvil::methods {

Expected<LadderEnds> endsOf(const std::vector<Step>& steps, double (*size)(const Step&), stats::Bound pull,
                            double own) {
    if (steps.empty()) return fail("No step has been taken yet.");
    std::optional<double> held, failed;
    for (const auto& s : steps) {
        const double at = size(s);
        if (!(at > 0)) return fail("Every step needs a load above zero.");
        auto& bound = s.held ? held : failed;
        bound = !bound ? at : s.held ? std::max(*bound, at) : std::min(*bound, at);
    }
    if (held && failed && *held >= *failed)
        return fail("It held more than it failed at: one of the steps is noted wrongly.");
    using stats::Bound;
    LadderEnds ends;
    if (held && failed && *failed - *held > 0.1 * (*held + own))
        ends.notes.push_back(
            fmt::format("The last step was {:.0f} % of what was held: smaller steps would tell more.",
                        100 * (*failed - *held) / (*held + own)));
    if (held && failed && pull != Bound::above && pull != Bound::below) {
        ends.value = {*held, Bound::between, *failed};
        ends.boundBy = BoundBy::heldAndFailed;
    } else if (held && pull != Bound::below) {
        ends.value = {*held, Bound::above, *held};
        ends.boundBy = BoundBy::everyStepHeld;
    } else {
        const double at = failed.value_or(held.value_or(0));
        ends.value = {at, Bound::below, at};
        ends.boundBy = BoundBy::firstStepFailed;
    }
    return ends;
}

} // namespace anvil::methods
