// What the heading of a column says: its name, its unit, and what it can be.
#pragma once

#include <anvil/tables/log.h>

namespace anvil::tables {

/// How much speaks for a column being the load: the unit decides before the words.
enum class LoadClaim { never, unlikely, unitOnly, wordOnly, wordAndUnit };

struct Heading {
    std::string name;                     ///< without its unit
    std::string written{};                ///< as it stands in the file
    std::string unitText;                 ///< as it stands there
    const quantity::Unit* unit = nullptr; ///< if it is known
    bool unknownUnit = false;             ///< it names one, and nobody knows it
    Role role = Role::ignore;             ///< by unit and words; of a load only with a claim above `unlikely`
    LoadClaim load = LoadClaim::never;
    bool against = false; ///< its unit or words say that it is no load, time or way
};

/// Reads a heading, with the cell of a row of units below it (or empty).
Heading readHeading(std::string_view text, std::string_view unitBelow = {});
/// The unit that a name gives its unit's letters: "g" of a deceleration is g₀. Null: they are what they say.
const quantity::Unit* unitByName(std::string_view name, std::string_view unit);
/// "Force (kN)", "load [kgf]", "F/N", "Weg in mm", "force_lbf", "Load, N" → name and unit.
std::pair<std::string, std::string> nameAndUnit(std::string_view heading);
/// The words of a name, lower case: "LoadCell-2" → load, cell, 2.
std::vector<std::string> wordsIn(std::string_view name);
/// Whether a heading speaks of what was pulled: product, option, material, condition …
bool tellsWhat(std::string_view heading);
/// Which of these it speaks of.
Tells whatItTells(std::string_view heading);
/// Whether a name says nothing of what is measured: value, reading, field1, data …
bool saysNothing(std::string_view name);
/// Whether a text is a known unit, or one of something that is no load, length or time (mV/V, °C, N/s, %).
bool looksLikeUnit(std::string_view text);

} // namespace anvil::tables
