// The small drawing on the card of a method.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/methods/method.h>

namespace anvil::chart {

/// What is done to a piece, one of its own for every method; 150 by 90.
Picture methodCard(const methods::Method& method);

} // namespace anvil::chart
