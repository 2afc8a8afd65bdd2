// The key beneath the strength ladder.
#pragma once

#include <anvil/chart/charts.h>
#include <anvil/results/verdict.h>

namespace anvil::chart {

/// What the marks of the ladder mean, those that are on it, in rows from `top` on; returns where they end.
double addKey(Picture& picture, const domain::StudyData& data, const results::Verdict& verdict, double top);

} // namespace anvil::chart
