// Two axes with their ticks and titles, for the charts that have no more than that.
#pragma once

#include <anvil/chart/charts.h>

namespace anvil::chart {

/// What stands at the ticks of the lower axis: the numbers, whole ones only, or what they are powers of ten
/// of.
enum class TickText { plain, counts, powers };

void drawAxes(Picture& picture, const Plane& plane, const std::string& xTitle, const std::string& yTitle,
              TickText x = TickText::plain);

} // namespace anvil::chart
