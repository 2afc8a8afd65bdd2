// The units a reader has chosen to see. Values are kept in SI; these are for looking at.
#pragma once

#include <anvil/quantity/unit.h>
#include <string>

namespace anvil::quantity {

struct Units {
    const Unit* force = nullptr;
    const Unit* length = nullptr;

    /// The unit in which values of a dimension are shown: stiffness is force per length, stress is MPa,
    /// energy is J, whatever was chosen.
    const Unit& of(Dimension dimension) const;
};

/// Newtons, kilonewtons, kgf or lbf, and millimetres or inches, by symbol; anything else is N and mm.
Units unitsFrom(const std::string& force, const std::string& length);

} // namespace anvil::quantity
