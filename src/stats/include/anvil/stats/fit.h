// Distributions fitted to exact and censored values by maximum likelihood.
#pragma once

#include <anvil/stats/summary.h>
#include <optional>
#include <span>
#include <string_view>

namespace anvil::stats {

enum class Family { normal, lognormal, weibull };
/// The word used by scripts: "normal", "lognormal", "weibull".
const char* key(Family family);
/// Empty: no family has this key.
std::optional<Family> familyFromKey(std::string_view key);
/// Where a share `below` of a family's pieces lies in units of its scale from its location: of y, which is
/// the value itself for a normal and its logarithm for the others. 0 < below < 1.
double standardQuantile(Family family, double below);

/// Location and scale of y: the values themselves (normal) or their logarithms. For a log-normal they are μ
/// and σ of ln(value), for a Weibull ln(scale) and 1/shape.
struct Fit {
    Family family = Family::normal;
    double location = 0, scale = 0;
    double logLikelihood = 0; ///< on the scale of the values themselves
    /// Akaike (1974): 2·2 − 2·ln L; the least is the family that fits best.
    double aic() const { return 4 - 2 * logLikelihood; }
    double shape() const { return 1 / scale; } ///< of a Weibull
    double weibullScale() const;               ///< of a Weibull, in the values' unit
    double mean() const;                       ///< of the fitted family, in the values' unit
    double sd() const;
    /// The value that a share `exceeded` of all such pieces exceeds, 0 < exceeded < 1.
    double quantile(double exceeded) const;
};

/// Fits a family to exact, above, below and between values; those set aside are left out. The likelihood is
/// concave in 1/scale and location/scale (Burridge 1981), so Newton's steps, halved where they overshoot,
/// reach its one maximum; relative error below 1e-9. Empty: fewer than two values that differ (two exact
/// ones, or intervals without a common point that are closed at some end towards each other), a value at or
/// below zero under a family that needs positive ones, or a maximum at the edge.
std::optional<Fit> fit(Family family, std::span<const Value> values);

} // namespace anvil::stats
