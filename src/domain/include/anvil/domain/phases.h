// Phases of a pull as a tester types them: set, turned, pulled straight, reset; each with readings, direction
// and outcome of its own.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/error.h>
#include <functional>
#include <string>
#include <vector>

namespace anvil::domain {

/// Phases, one a line: "set: down, 400 N, 120 mm, held", "turned: 12 N·m, 90°, 30 s". Quantities (force,
/// length, torque, angle, time, speed; with doubt as anywhere) may stand anywhere and as often as they were
/// read; of the words the first is the direction, the rest the outcome. Error: a line without a name before
/// its colon.
Expected<std::vector<Phase>> phasesFrom(const std::string& text);

/// The same the other way round, in these units.
std::string phasesText(const std::vector<Phase>& phases,
                       const std::function<const quantity::Unit&(quantity::Dimension)>& unitOf);

} // namespace anvil::domain
