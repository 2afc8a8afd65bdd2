// What a treatment does to all options at once.
#pragma once

#include <anvil/stats/pooled.h>
#include <utility>

namespace anvil::stats {

/// One option, untreated and treated, on logarithms; a side may be missing.
struct TreatedPair {
    std::optional<LogGroup> control, treated;
};

/// The pooled effect.
struct Treatment {
    double ratio = 1;                                       ///< treated over untreated, of typical values
    std::optional<std::pair<double, double>> ratioInterval; ///< 95 %
    std::optional<double> p;                                ///< two-sided, ratio = 1
    std::optional<double> interactionP; ///< that the effect is the same for every option; needs replicates
    std::size_t options = 0;            ///< that have both
    double df = 0;                      ///< of the additive fit
};

/// Least squares of ln y = option + treatment (Scheffé 1959, ch. 4): with two levels the effect is the mean
/// of the options' differences weighted by n₀n₁/(n₀ + n₁), its error from what the additive fit leaves over,
/// with N − options − 1 degrees of freedom; the interaction by F against the spread within squares. Options
/// with only one side are left out. Empty: no option has both.
std::optional<Treatment> treatmentOf(std::span<const TreatedPair> options);

} // namespace anvil::stats
