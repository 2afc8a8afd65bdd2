// One group of results: counts, mean, spread, floors. Values that are only bounds are never averaged
// silently.
#pragma once

#include <anvil/quantity/bound.h>
#include <cstddef>
#include <optional>
#include <span>
#include <utility>

namespace anvil::stats {

using quantity::Bound;

/// One result in the group's unit.
struct Value {
    double value = 0;
    Bound bound = Bound::exact;
    double upper = 0;   ///< second bound of `between`
    bool aside = false; ///< set aside with a reason: listed, never counted

    /// Read as it is, and counted.
    bool exact() const { return !aside && bound == Bound::exact; }
    /// The word used by scripts: that of its bound, or "aside".
    const char* word() const { return aside ? "aside" : quantity::word(bound); }
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

/// What the typical value of a group is: the one number that everything said of its average uses.
enum class TypicalBasis {
    sample,       ///< the mean of the values
    fittedMedian, ///< the median of the fitted family: some value of its condition is a bound
    bound,        ///< of its bounds: the group can only lie beyond it, see Summary::bound
    median,       ///< of steps of a scale
    counts        ///< of successes
};
/// The word used by scripts: "sample", "fitted_median", "bound", "median", "counts".
const char* word(TypicalBasis basis);

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
    std::optional<double> typical; ///< what ladder, table, ratio, rank, need, value and headline speak of
    std::optional<std::pair<double, double>> typicalInterval; ///< 95 %, with the doubt of the readings
    TypicalBasis typicalBasis = TypicalBasis::sample;
    Bound bound = Bound::exact; ///< above: the typical value is "at least"; below: "at most"
    double doubt = 0;           ///< stated ± of the readings, root mean square: does not shrink with n
    double resolution = 0;      ///< half the last digit of the readings; 0: not known

    /// Whether any value is only a bound.
    bool censored() const { return above + below + between > 0; }
    /// Whether the spread is at the level of rounding or below what the readings resolve.
    bool rounded() const { return sd && *sd < (resolution > 0 ? resolution : 1e-300); }
};

/// Summarises a group. With any bound among the values sd, interval, median, drop-high-low and mean − 3 s are
/// empty; the mean then counts "at least" values at their bound and `between` values at the lower one, and is
/// empty where an "at most" value leaves it open.
/// The typical value is the mean; of values some of which are bounds the mean with each at its bound, where
/// that makes it "at least" or "at most", else none.
Summary summarise(std::span<const Value> values);

/// Tells a summary how well its values were read: `doubt` ± each, steps of 2·`resolution`, both in the
/// values' unit. The typical interval widens: half-width √((t·s/√n)² + doubt²) with s at least resolution/√3.
void tellDoubt(Summary& summary, double doubt, double resolution);

/// Upper quantile of Student's t: the t with P(T ≤ t) = p. df > 0, 0 < p < 1. Relative error about 1e-12
/// (Boost.Math). NaN where the arguments are none.
double studentQuantile(double df, double p);

/// P(T > t), one-sided. df > 0; NaN where the arguments are none.
double studentUpperTail(double df, double t);

} // namespace anvil::stats
