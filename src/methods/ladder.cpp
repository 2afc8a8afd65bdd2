#include "ladder.h"

#include <algorithm>

namespace anvil::methods {

Expected<LadderEnds> endsOf(const std::vector<Step>& steps, double (*size)(const Step&)) {
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
    using stats::State;
    if (held && failed) {
        LadderEnds ends{{*held, State::between, *failed}, {}};
        if (*failed - *held > 0.1 * *held)
            ends.notes.push_back(
                fmt::format("The last step was {:.0f} % of what was held: smaller steps would tell more.",
                            100 * (*failed - *held) / *held));
        return ends;
    }
    return held ? LadderEnds{{*held, State::above, *held}, {}}
                : LadderEnds{{*failed, State::below, *failed}, {}};
}

} // namespace anvil::methods
