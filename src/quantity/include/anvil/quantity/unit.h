// Units of measurement and their exact factors to SI.
#pragma once

#include <anvil/quantity/error.h>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace anvil::quantity {

/// What kind of thing a number measures. Torque and energy are kept apart although both are N·m.
enum class Dimension {
    force,
    length,
    area,
    mass,
    time,
    torque,
    stress,
    energy,
    acceleration,
    speed,
    stiffness,
    angle,
    temperature,
    ratio,
    money,
    energyPerArea,
    bendingStiffness,
    voltage
};

/// The dimension in words: "force", "length" …
std::string_view name(Dimension dimension);
/// The other way round; nothing where no dimension is called so.
std::optional<Dimension> dimensionNamed(std::string_view name);

/// A unit: SI value = number × factor + offset (the offset is used by temperatures only).
/// `aliases` holds further spellings separated by spaces.
struct Unit {
    std::string_view symbol;
    Dimension dimension;
    double factor;
    double offset = 0;
    std::string_view aliases = {};

    /// A value in this unit, in SI; and the other way round.
    double toSi(double value) const { return value * factor + offset; }
    double fromSi(double si) const { return (si - offset) / factor; }
};

/// Every unit known, grouped by dimension; the first of a dimension is its SI unit.
/// Factors are exact by definition (international yard and pound 1959; standard gravity 9.80665 m/s²,
/// CGPM 1901; nautical mile 1852 m), computed from those definitions.
std::span<const Unit> allUnits();

/// The SI unit of a dimension.
const Unit& siUnit(Dimension dimension);

/// The unit with exactly this symbol; for symbols written in the program.
const Unit& unit(std::string_view symbol);

/// Finds a unit as typed. With a wanted dimension, only that dimension is searched, so that "kg" in a
/// force field is kgf and "kn" is kN; without one, spelling and case decide ("kN" force, "kn" knots).
/// Error: names the text and the units that would do.
Expected<const Unit*> findUnit(std::string_view text, std::optional<Dimension> wanted = {});

/// value × from → to. Error when the dimensions differ.
Expected<double> convert(double value, const Unit& from, const Unit& to);

} // namespace anvil::quantity
