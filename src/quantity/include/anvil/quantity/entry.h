// What a person typed: a number, its doubt and its unit.
#pragma once

#include <anvil/quantity/bound.h>
#include <anvil/quantity/unit.h>
#include <optional>
#include <string>
#include <string_view>

namespace anvil::quantity {

/// How sure the person was of the number, beside what it says of the true value.
enum class Precision {
    stated,   ///< 12 N
    about,    ///< ~12 N
    plusMinus ///< 12 ± 1 N
};

/// A parsed entry. Values are SI; `unit` is the one typed (or the default), `decimals` the digits typed after
/// the decimal mark (−1 for fractions), so that it prints back as it was typed.
struct Entry {
    double si = 0;
    Bound bound = Bound::exact; ///< >9 kN: above; <2 N: below; 4…5 kN: between
    Precision precision = Precision::stated;
    double upperSi = 0;     ///< second bound of `between`
    double plusMinusSi = 0; ///< half-width of `plusMinus`
    const Unit* unit = nullptr;
    int decimals = -1;
    /// A number and nothing else.
    bool plain() const { return bound == Bound::exact && precision == Precision::stated; }
    bool operator==(const Entry&) const = default;
};

/// Reads a quantity as people type it: `3 1/4 in`, `3-1/4"`, `5' 3 1/2"`, `1.5kN`, `48,3 kg`, `1 250 N`, `12
/// ft-lb`, and with doubt `>9 kN`, `<2 N`, `4…5 kN`, `4-5 kN`, `~12 N`, `12 ± 1 N`. A comma followed by
/// exactly three digits is refused where both readings are possible ("1,250"). `wanted` fixes the dimension;
/// `fallback` is the unit of a number typed without one. Error: a sentence naming the text and what would do.
Expected<Entry> parseEntry(std::string_view text, std::optional<Dimension> wanted = {},
                           const Unit* fallback = nullptr);

/// Reads a bare number in the same spellings (decimal comma, grouping, fractions), without a unit.
Expected<double> parseNumber(std::string_view text);

/// The entry as text, in the unit and with the digits it was typed in: "48.3 kgf", ">9 kN", "12 ± 1 N".
std::string print(const Entry& entry);
/// The entry in another unit of its dimension, with its doubt and as many digits as a result has; in its own
/// unit as it was typed.
std::string printIn(const Entry& entry, const Unit& unit);

} // namespace anvil::quantity
