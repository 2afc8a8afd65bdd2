// A curve of a package: one run, columns with their units in the head.
#pragma once

#include <anvil/curve/curve.h>
#include <anvil/quantity/error.h>
#include <string>
#include <string_view>

namespace anvil::exchange {

/// Heads are "time (s)", "force (N)" (or load, torque, acceleration), "displacement (mm)" (or travel, angle)
/// and names of further channels with their units; blanks say that a channel had no value. Error: a sentence
/// with the line; a unit that is missing, no load.
Expected<curve::Curve> readCurveFile(std::string_view bytes);

/// A curve as such text, each number with as many digits as tell it from any other.
std::string curveFile(const curve::Curve& curve);

} // namespace anvil::exchange
