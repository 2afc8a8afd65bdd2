// The ladder on another scale, and baselines that disagree.
#pragma once

#include <anvil/quantity/unit.h>
#include <anvil/results/ratios.h>

namespace anvil::words {

/// "share of the rating", "N per EUR": what a rung is then.
std::string scaleTitle(const domain::StudyData& data, const results::Verdict& verdict,
                       results::RatioBase base, const quantity::Unit& unit);
/// What it is called where it is chosen: "Against the rating".
std::string scaleName(const domain::StudyData& data, const results::Verdict& verdict,
                      results::RatioBase base);

/// The factor that turns a rung's ratio into what is shown: 100 for shares in per cent, else from the units.
double scaleFactor(results::RatioBase base, const quantity::Unit& unit);

/// "82 % (75 to 90 %)", "1250 N per EUR (1100 to 1400)".
std::string rungText(const results::RatioRung& rung, results::RatioBase base, const domain::StudyData& data,
                     const quantity::Unit& unit);

/// Two baselines tell two stories.
std::vector<std::string> sentences(const domain::StudyData& data, const results::Verdict& verdict,
                                   const std::vector<results::Baselines>& baselines);

} // namespace anvil::words
