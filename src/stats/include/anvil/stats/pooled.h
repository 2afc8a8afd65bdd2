// Groups that share one spread, on logarithms: with few values each it sees far more than each group's own.
#pragma once

#include <optional>
#include <span>

namespace anvil::stats {

/// The spread of ln(value) that groups share: Σ(n − 1)s² / Σ(n − 1).
struct PooledSpread {
    double variance = 0;
    double df = 0;
};

/// Over the groups whose values are all above zero. Empty where none of them has two values.
std::optional<PooledSpread> pooledSpread(std::span<const std::span<const double>> groups);

/// Two-sided p that two groups of such values have the same mean of logarithms, with the shared spread:
/// Student's t with its degrees of freedom. Its error grows to about 7 % where spreads differ five-fold.
/// Empty: a value at or below zero, an empty side, or no spread.
std::optional<double> pooledP(std::span<const double> a, std::span<const double> b,
                              const PooledSpread& spread);

} // namespace anvil::stats
