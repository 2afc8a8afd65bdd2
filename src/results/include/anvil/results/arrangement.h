// An arrangement against what it was said to hold: a factor times a baseline, and there are two baselines.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::results {

/// Measured over predicted, with its 95 % interval where there is one.
struct AgainstPromise {
    double predicted = 0; ///< SI
    double share = 0;     ///< measured / predicted
    std::optional<std::pair<double, double>> interval;
};

/// One arrangement in one condition.
struct Arranged {
    domain::Arrangement said;
    Id condition = 0;
    double mean = 0;                          ///< measured, SI
    std::optional<AgainstPromise> byRating;   ///< factor × the maker's rating of the plain option
    std::optional<AgainstPromise> byMeasured; ///< factor × the measured mean of the plain option
    /// The two baselines say opposite things: one that it keeps what was promised, the other that it does
    /// not.
    bool turnsRound = false;
};

/// Of a verdict on a force, in board order; arrangements whose mean is not exact are left out. The interval
/// by rating is that of the mean, a rating being a promise without spread; that by measurement is the pair's
/// ratio (delta method on logs), over the factor.
std::vector<Arranged> arrangedOf(const StudyData& data, const Verdict& verdict);

} // namespace anvil::results
