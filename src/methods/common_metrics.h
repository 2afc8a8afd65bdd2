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

inline constexpr Metric loadAtTravelRow{.key = "force_at_displacement",
                                        .title = "Force at a displacement",
                                        .noun = "force at the chosen displacement",
                                        .more = "carries more than",
                                        .less = "carries less than",
                                        .asked = true};
inline constexpr Metric travelAtLoadRow{.key = "displacement_at_force",
                                        .title = "Displacement at a force",
                                        .noun = "displacement at the chosen force",
                                        .dimension = Dimension::length,
                                        .sense = Sense::less,
                                        .more = "gives way further than",
                                        .less = "gives way less than",
                                        .asked = true};
inline constexpr Metric relaxationRow{.key = "relaxation",
                                      .title = "Relaxation",
                                      .noun = "share of a held load that is lost",
                                      .dimension = Dimension::ratio,
                                      .sense = Sense::less,
                                      .unit = "%",
                                      .more = "relaxes more than",
                                      .less = "relaxes less than",
                                      .asked = true};
inline constexpr Metric permanentRow{.key = "permanent_set",
                                     .title = "Permanent set",
                                     .noun = "deformation that stayed",
                                     .dimension = Dimension::length,
                                     .sense = Sense::less,
                                     .more = "stays bent further than",
                                     .less = "stays bent less than",
                                     .asked = true};
/// What it is like afterwards, on the words of the study's scale.
inline constexpr Metric afterwardsRow{.key = "afterwards",
                                      .title = "State afterwards",
                                      .noun = "state afterwards",
                                      .dimension = Dimension::ratio,
                                      .more = "comes off better than",
                                      .less = "comes off worse than",
                                      .scale = Scale::graded,
                                      .asked = true};

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
