// Phases of a pull as a tester types them: set, turned, pulled straight, reset; each with readings, direction
// and outcome of its own.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/error.h>
#include <functional>
#include <span>
#include <string>
#include <vector>

namespace anvil::domain {

/// A phase as it is typed.
struct PhaseText {
    std::string name, direction;
    std::vector<std::string> readings; ///< quantities with their units, in order
    std::string outcome;
};

/// Phases as they are typed: readings are forces, lengths, torques, angles, times and speeds, with doubt as
/// anywhere, and as often as they were read. Error: one without a name, or a reading that is no such
/// quantity.
Expected<std::vector<Phase>> phasesOf(std::span<const PhaseText> typed);

/// Phases a line each, in these units: "set: down, 400 N, 120 mm, held".
std::string phasesText(const std::vector<Phase>& phases,
                       const std::function<const quantity::Unit&(quantity::Dimension)>& unitOf);

} // namespace anvil::domain
