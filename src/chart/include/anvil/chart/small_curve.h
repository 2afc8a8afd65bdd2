// A curve too small for axes: what it looked like.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/curve/reading.h>

namespace anvil::chart {

/// The cleaned load of a curve against time with a mark at its peak, in a box of that size; nothing but the
/// box where there are fewer than two samples.
Picture smallCurve(const curve::ReadCurve& curve, double width, double height);

} // namespace anvil::chart
