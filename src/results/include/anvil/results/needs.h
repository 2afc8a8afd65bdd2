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
    std::optional<double> meanMeets; ///< chance that the typical value does
    std::optional<double> nextMeets; ///< chance that the next piece does: prediction
    std::optional<bool> floorMeets;  ///< whether the floor that 90 % exceed with 95 % confidence does; where
                                     ///< more is wanted
    bool allHeld = false; ///< every value is a bound on the good side of the need: k of k say 1 − ½^k of the
                          ///< median, and of the next piece Laplace's (k + 1)/(k + 2)
};

/// Every group with a value, in the verdict's order. Met: the typical value does with a chance of 97.5 % or
/// more; not met: 2.5 % or less. Complete groups by Student's t (the next piece: s·√(1 + 1/n)); those with
/// bounds by the density of the fitted law, met or not met only where normal, log-normal and Weibull all say
/// so; counts by the exact binomial test. Nothing where no need is set, or a window is wanted.
std::vector<NeedResult> needsOf(const Verdict& verdict);

} // namespace anvil::results
