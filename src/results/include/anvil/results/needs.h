// Is it met? Every group against what is needed.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::results {

enum class NeedVerdict { met, notMet, cannotTell };
/// The word used by scripts: "met", "not_met", "cannot_tell".
const char* word(NeedVerdict verdict);

/// One group against the need. Chances are empty where the values cannot say.
struct NeedResult {
    std::size_t group = 0; ///< index of the verdict's
    NeedVerdict verdict = NeedVerdict::cannotTell;
    std::optional<double> meanMeets; ///< chance that the mean does
    std::optional<double> nextMeets; ///< chance that the next piece does: prediction
    std::optional<bool> floorMeets;  ///< whether the floor that 90 % exceed with 95 % confidence does; where
                                     ///< more is wanted
    bool allHeld = false; ///< nothing broke: every value is "at least" the need, and the chance of the next
                          ///< is Laplace's (n + 1)/(n + 2)
};

/// Every group with a value, in the verdict's order. Met: the mean does with a chance of 97.5 % or more (or
/// nothing broke below the need in three pulls or more); not met: 2.5 % or less. Complete groups by Student's
/// t (the next piece: s·√(1 + 1/n)), those with bounds by the density of the fitted log-normal. Nothing where
/// no need is set, or a window is wanted.
std::vector<NeedResult> needsOf(const Verdict& verdict);

} // namespace anvil::results
