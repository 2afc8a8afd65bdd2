// What a heading or a label says: its name, its unit, and what it measures. Files, devices and packages ask
// here and nowhere else.
#pragma once

#include <anvil/quantity/unit.h>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::columns {

/// What a column holds.
enum class Kind {
    unknown, ///< nothing that a word or a unit tells
    time,
    load,    ///< force, torque or acceleration: `dimension` says which
    travel,  ///< length or angle
    run,     ///< which run or piece a row is of
    another, ///< another quantity: degrees, volts, per cent, rates, counts
};

/// How much speaks for a column being the load: the unit decides before the words.
enum class LoadClaim { never, unlikely, unitOnly, wordOnly, wordAndUnit };

struct Heading {
    std::string name;                               ///< without its unit
    std::string written{};                          ///< as it stands in the file
    std::string unitText;                           ///< as it stands there, without its factor
    const quantity::Unit* unit = nullptr;           ///< if it is known
    double factor = 1;                              ///< of the unit: 10 of "[10 N]", "(N x 10)"
    bool unknownUnit = false;                       ///< it names one, and nobody knows it
    Kind kind = Kind::unknown;                      ///< of a load only with a claim above `unlikely`
    std::optional<quantity::Dimension> dimension{}; ///< from unit and words together; none: nobody can tell
    LoadClaim load = LoadClaim::never;
    bool against = false; ///< its unit or words say that it is no load, time or travel
};

/// Reads a heading, with the cell of a row of units below it (or empty).
Heading readHeading(std::string_view text, std::string_view unitBelow = {});
/// "Force (kN)", "load [kgf]", "F/N", "Weg in mm", "force_lbf", "Load, N" → name and unit.
std::pair<std::string, std::string> nameAndUnit(std::string_view heading);
/// A name with its unit in round brackets at its end, as this program writes it: "leg 1 (kN)".
std::pair<std::string, std::string> bracketed(std::string_view heading);
/// The words of a name, lower case: "LoadCell-2" → load, cell, 2.
std::vector<std::string> wordsIn(std::string_view name);
/// Whether a name says nothing of what is measured: value, reading, field1, data …
bool saysNothing(std::string_view name);
/// Whether a text is a known unit, or one of something that is no load, length or time (mV/V, °C, N/s, %).
bool looksLikeUnit(std::string_view text);
/// The unit that a name gives its unit's letters: "g" of a deceleration is g₀. Null: they are what they say.
const quantity::Unit* unitByName(std::string_view name, std::string_view unit);

/// What a column that tells runs apart says of them.
enum class Tells { run, option, condition };
/// Whether a heading speaks of what was pulled: product, option, material, condition …
bool tellsWhat(std::string_view heading);
/// Which of these it speaks of.
Tells whatItTells(std::string_view heading);

/// A column of this program's own files, by its exact name.
struct OwnColumn {
    std::string_view name;
    Kind kind;
    quantity::Dimension dimension;
};
/// The first of each kind and dimension is the name that is written.
std::span<const OwnColumn> ownColumns();
const OwnColumn* ownColumn(std::string_view name);
std::string_view ownName(Kind kind, quantity::Dimension dimension);

} // namespace anvil::columns
