// The small drawing on the card of a method.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/methods/method.h>

namespace anvil::chart {

/// One of its own for every method: that of its action, or where several methods share one, another; 150 by
/// 90.
Picture methodCard(const methods::Method& method);

} // namespace anvil::chart
