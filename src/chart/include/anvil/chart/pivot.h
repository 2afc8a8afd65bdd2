// A thing that is lifted while part of it still stands, drawn.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/quantity/unit.h>

namespace anvil::chart {

/// What is known, SI: places along the thing from anywhere, m; forces, N.
struct PivotCheck {
    double weight = 0, centre = 0, pivot = 0, lift = 0;
    double shown = 0; ///< what a scale at the lifted place reads
};

/// The thing from the side, all three places at their scale: where it stands, its weight at its centre, the
/// scale that lifts it, with both forces as arrows to one scale. The picture is 178 px high.
Picture pivotPicture(const PivotCheck& check, const quantity::Unit& force, const quantity::Unit& length,
                     double width);

} // namespace anvil::chart
