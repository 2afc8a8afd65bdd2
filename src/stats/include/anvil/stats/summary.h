// One group of results: counts, mean, spread, floors. Values that are only bounds are never averaged
// silently.
#pragma once

#include <cstddef>
#include <optional>
#include <span>
#include <utility>

namespace anvil::stats {

/// How much a recorded value says.
enum class State {
    exact,
    above,   ///< at least: right-censored
    below,   ///< at most: left-censored
    between, ///< value … upper: interval-censored
    aside    ///< set aside with a reason; listed, never counted
};

/// One result in the group's unit.
struct Value {
    double value = 0;
    State state = State::exact;
    double upper = 0; ///< second bound of `between`
};

/// What the mean stands on.
enum class MeanBasis {
    sample,    ///< every value is exact
    bound,     ///< some are "at least": bounds counted at their limit, so the mean is "at least"
    normal,    ///< some are bounds: that of the family fitted to all of them
    lognormal, ///< likewise
    weibull,   ///< likewise
    median,    ///< of steps of a scale, which have no mean
    counts     ///< of successes: all of them over all tries
};
/// The word used by scripts: "sample", "bound", "normal", "lognormal", "weibull",
/// "median", "counts".
const char* word(MeanBasis basis);
/// Whether it is that of a fitted family.
inline bool isFitted(MeanBasis basis) {
    return basis == MeanBasis::normal || basis == MeanBasis::lognormal || basis == MeanBasis::weibull;
}

/// Summary of a group. Optional members are empty where the data cannot say; all in the values' unit.
struct Summary {
    std::size_t n = 0; ///< all but those set aside
    std::size_t above = 0, below = 0, between = 0, aside = 0;
    std::optional<double> mean;
    MeanBasis basis = MeanBasis::sample;
    std::optional<double> sd; ///< n − 1 in the denominator; up to 1e-12 of the mean is rounding, and 0
    std::optional<double> cv; ///< sd / mean, mean > 0
    std::optional<double> median, min, max;
    std::optional<std::pair<double, double>> meanInterval; ///< 95 %, Student's t (Gosset 1908)
    std::optional<double> dropHighLowMean;                 ///< without one greatest and one least; n ≥ 4
    std::optional<double> lowest;                          ///< least recorded
    std::optional<double> meanMinus3Sd;                    ///< needs three exact values; none if not positive

    /// Whether any value is only a bound.
    bool censored() const { return above + below + between > 0; }
};

/// Summarises a group. With any bound among the values sd, interval, median, drop-high-low and mean − 3 s are
/// empty; the mean then counts "at least" values at their bound and `between` values at the lower one, and is
/// empty where an "at most" value leaves it open.
Summary summarise(std::span<const Value> values);

/// Upper quantile of Student's t: the t with P(T ≤ t) = p. df > 0, 0 < p < 1. Relative error about 1e-12
/// (Boost.Math). NaN where the arguments are none.
double studentQuantile(double df, double p);

/// P(T > t), one-sided. df > 0; NaN where the arguments are none.
double studentUpperTail(double df, double t);

} // namespace anvil::stats
