// Groups that share one spread, on logarithms: with few values each it sees far more than each group's own.
#pragma once

#include <cstddef>
#include <optional>
#include <span>

namespace anvil::stats {

/// A group on logarithms: the mean of ln(value), and the sum of squares about it.
struct LogGroup {
    double mean = 0, squares = 0;
    std::size_t n = 0;
};

/// Empty: no value, or one at or below zero.
std::optional<LogGroup> logGroup(std::span<const double> values);

/// The spread of ln(value) that groups share: Σ(n − 1)s² / Σ(n − 1).
struct PooledSpread {
    double variance = 0;
    double df = 0;
};

/// Over the groups there are. Empty where none of them has two values.
std::optional<PooledSpread> pooledSpread(std::span<const std::optional<LogGroup>> groups);

/// Two-sided p that two groups have the same mean of logarithms, with the shared spread: Student's t with its
/// degrees of freedom (Snedecor & Cochran, Statistical Methods, 8th ed., ch. 6; of several groups the mean
/// square within, ch. 12). Holds where the logarithms are normal and spread alike: the error of 5 % grows to
/// about 7 % where spreads differ five-fold. Empty: no spread.
std::optional<double> pooledP(const LogGroup& a, const LogGroup& b, const PooledSpread& spread);

} // namespace anvil::stats
