// The key beneath the strength ladder.
#pragma once

#include <anvil/chart/charts.h>

namespace anvil::chart {

/// What the marks of the ladder mean, those that are on it, in rows from `top` on; returns where they end.
double addKey(Picture& picture, const study::Verdict& verdict, double top);

} // namespace anvil::chart
