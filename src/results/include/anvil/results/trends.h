// Does it rise or fall along what the conditions vary?
#pragma once

#include <anvil/results/verdict.h>
#include <anvil/stats/trend.h>

namespace anvil::results {

enum class TrendVerdict { rising, falling, flat, cannotTell };
/// The word used by scripts: "rising", "falling", "flat", "cannot_tell".
const char* word(TrendVerdict verdict);

/// The trend of one option over the conditions with a number.
struct TrendResult {
    Id option = 0;
    std::size_t points = 0;
    double from = 0, to = 0; ///< the ends of the axis, as its numbers are kept
    stats::Trend line;
    std::optional<std::pair<double, double>> slopeInterval; ///< 95 %, t with n − 2 degrees of freedom
    std::optional<double> medianSlope;                      ///< Theil and Sen
    double mean = 0;                                        ///< of all points
    TrendVerdict verdict = TrendVerdict::cannotTell;
};

/// One unit of the study's axis in the numbers it is kept in; 1 where it has no unit that is known.
double axisStep(const StudyData& data);
/// The unit of the axis: as it was said, else that in which the conditions are named ("24 h", "48 h"); empty:
/// none.
std::string axisUnit(const StudyData& data);

/// One for each option with exact values at three different places of the axis or more. Flat: over the whole
/// axis the interval of the change lies within the goal's margin of the mean; rising or falling: the interval
/// of the slope lies on one side of zero.
std::vector<TrendResult> trendsOf(const StudyData& data, const Verdict& verdict);

} // namespace anvil::results
