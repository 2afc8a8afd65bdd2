// Who expected what, and how right they were.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::plan {

/// How one forecaster did over the squares that have been pulled.
struct ForecastScore {
    std::string by;
    int squares = 0;    ///< forecasts that can be scored
    int inside = 0;     ///< measured means within forecast ± stated spread
    double ratio = 1;   ///< measured over expected, geometric mean
    double worst = 1;   ///< the ratio furthest from one, as a factor ≥ 1
    int parts = 0;      ///< forecasts of what goes first that can be scored
    int partsRight = 0; ///< where most pulls of the square broke that way
};

/// A square whose mean is only a bound (every pull is "at least") gives no score of the value; pulls that
/// name no part of the load path give none of the part.
/// Scores every forecaster, best first: by the mean of |ln(measured / expected)|, equal ones by name. Squares
/// with no mean but a bound and expectations of zero or less are left out.
std::vector<ForecastScore> scoreForecasts(const domain::StudyData& data, const results::Verdict& verdict);

/// A study with its verdict on what decides.
struct StudyVerdict {
    const domain::StudyData* data = nullptr;
    const results::Verdict* verdict = nullptr;
};
/// The same over several studies: a tester's history.
std::vector<ForecastScore> scoreForecasts(const std::vector<StudyVerdict>& studies);

/// "Ines: 5 of 8 inside the stated band, measured 1.20 times the expected, 3 of 4 parts right."
std::string sentence(const ForecastScore& score);

} // namespace anvil::plan
