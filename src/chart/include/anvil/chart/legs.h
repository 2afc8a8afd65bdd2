// Legs that share a load, drawn as a plan.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/results/legs.h>

namespace anvil::chart {

/// Squares beside each other, each with its legs seen from above: arrows as long as their shares, with the
/// predicted shares as marks; legs without directions stand in a row. `names`: of the squares.
Picture legPlans(const std::vector<results::SquareLegs>& squares, const std::vector<std::string>& names,
                 double width);

} // namespace anvil::chart
