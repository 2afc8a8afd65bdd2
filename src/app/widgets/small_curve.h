// A curve as small as a line of a table.
#pragma once

#include <QPixmap>
#include <anvil/curve/curve.h>

namespace anvil::app {

/// The load over the samples, drawn sharp on fine screens; not empty.
QPixmap smallCurve(const curve::Curve& curve);

} // namespace anvil::app
