// Rows that several methods share.
#pragma once

#include <anvil/methods/method.h>

namespace anvil::methods {

using quantity::Dimension;

inline constexpr Metric peakRow{"peak", "Peak force", "peak force", Dimension::force};
inline constexpr Metric firstSlipRow{"first_slip", "First slip", "force at first slip", Dimension::force};
inline constexpr Metric stiffnessRow{"stiffness", "Stiffness", "stiffness", Dimension::stiffness};
inline constexpr Metric energyRow{"energy", "Energy to peak", "energy to peak", Dimension::energy};
inline constexpr Metric residualRow{"residual", "Residual grip", "force still held after the peak",
                                    Dimension::force};

/// The greatest load: read off a display, or from a curve.
inline constexpr Input peakInput{
    "peak", "Peak", "such as 4.2 kN, >9 kN", Dimension::force, Of::pull, Form::one, false, true};

} // namespace anvil::methods
