// Rows that several methods share.
#pragma once

#include <anvil/methods/method.h>

namespace anvil::methods {

using quantity::Dimension;

inline constexpr Metric peakRow{.key = "peak",
                                .title = "Peak force",
                                .noun = "peak force",
                                .atEnd = true,
                                .more = "is stronger than",
                                .less = "is weaker than"};
inline constexpr Metric firstSlipRow{.key = "first_slip",
                                     .title = "First slip",
                                     .noun = "force at first slip",
                                     .more = "slips later than",
                                     .less = "slips earlier than"};
inline constexpr Metric stiffnessRow{.key = "stiffness",
                                     .title = "Stiffness",
                                     .noun = "stiffness",
                                     .dimension = Dimension::stiffness,
                                     .more = "is stiffer than",
                                     .less = "is less stiff than"};
inline constexpr Metric energyRow{.key = "energy",
                                  .title = "Energy to peak",
                                  .noun = "energy to peak",
                                  .dimension = Dimension::energy,
                                  .atEnd = true,
                                  .more = "takes up more than",
                                  .less = "takes up less than"};
inline constexpr Metric residualRow{.key = "residual",
                                    .title = "Residual grip",
                                    .noun = "force still held after the peak",
                                    .more = "still holds more than",
                                    .less = "still holds less than"};

inline constexpr Metric momentRow{.key = "moment",
                                  .title = "Moment",
                                  .noun = "moment at failure",
                                  .dimension = Dimension::torque,
                                  .atEnd = true,
                                  .more = "is stronger than",
                                  .less = "is weaker than"};

/// The greatest load: read off a display, or from a curve.
inline constexpr Input peakInput{
    "peak", "Peak", "such as 4.2 kN, >9 kN", Dimension::force, Of::pull, Form::one, false, true};

} // namespace anvil::methods
