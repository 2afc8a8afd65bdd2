// Metrics of a part of a pull, such as the force at which it was reset: as many as testers name phases.
#pragma once

#include <anvil/methods/method.h>
#include <optional>

namespace anvil::methods {

/// The row of a reading of a phase, such as the force of "reset"; the same one for the same name, whatever
/// its case and spaces. Its key is "phase.force.reset". It lives as long as the program.
const Metric& phaseMetric(std::string_view phase, quantity::Dimension dimension);

/// The row a key means; null where it is of no phase.
const Metric* phaseMetricOf(std::string_view key);

/// The value of a reading of a phase, with its doubt; `pull`: what its pull is that of a force or torque, all
/// else was seen before the end.
stats::Value phaseValue(const quantity::Entry& reading, stats::Bound pull);

} // namespace anvil::methods
