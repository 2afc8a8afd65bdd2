// What a curve is seen against.
#pragma once

#include <anvil/chart/charts.h>
#include <anvil/quantity/units.h>

namespace anvil::pages {

/// The lines and bands of a study, on the axis of a curve's load in these units; none where they are of
/// another dimension than that load.
std::vector<chart::CurveChart::Line> linesOver(const domain::StudyData& data, const curve::Reading& reading,
                                               const quantity::Units& units);

} // namespace anvil::pages
