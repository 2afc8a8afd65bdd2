// What was expected beside what came.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::results {

/// One forecast of a square that has been pulled.
struct ForecastResult {
    std::size_t group = 0; ///< index of the verdict's
    const Forecast* forecast = nullptr;
    std::optional<double> ratio; ///< mean over expectation; empty: no mean, or an expectation of zero or less
    bool atLeast = false;        ///< every value is a bound, so the ratio is
    std::optional<bool> inside;  ///< the mean lies within expectation ± stated spread; empty likewise, or
                                 ///< where bounds leave it open
    std::string broke;           ///< the part that went most often; empty: not said
};

/// In the verdict's order. Refers to the study.
std::vector<ForecastResult> forecastsOf(const StudyData& data, const Verdict& verdict);

} // namespace anvil::results
