// From strength to use: what each may be worked at, and how many are needed.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::results {

/// A working limit of one group.
struct WorkingLimit {
    std::size_t group = 0;       ///< index of the verdict's
    std::optional<double> floor; ///< N that 90 % exceed with 95 % confidence
    std::optional<double> limit; ///< floor ÷ design factor, rounded down to the step
    std::optional<int> needed;   ///< for the load, the most loaded one at its limit
    const char* why = "";        ///< where there is none, as a sentence
};

/// A usual design factor, and what it is for.
struct FactorReason {
    double factor = 0;
    const char* why = "";
};
/// Those that are offered, the least first; another can be typed.
std::span<const FactorReason> factorReasons();

/// Whether there is any group to give one to: the metric is a force, more of it is wanted, and some has
/// values.
bool hasWorkingLimits(const Verdict& verdict);

/// Every group with values, in the verdict's order; nothing where the metric is no force or more is not what
/// is wanted. None below three exact values, without a floor above zero, with a factor below one, or where
/// the step is greater than floor ÷ factor. needed = ⌈load · uneven / limit⌉; none without a load. The floor
/// is that of normal law for complete groups, of the fitted log-normal where some values are bounds.
std::vector<WorkingLimit> workingLimits(const Verdict& verdict, const Use& use);

} // namespace anvil::results
