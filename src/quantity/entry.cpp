#include <anvil/quantity/entry.h>

#include "number.h"

#include <anvil/quantity/print.h>
#include <cctype>
#include <cmath>
#include <fmt/format.h>

namespace anvil::quantity {
namespace {

/// Longer than anything a measurement takes.
constexpr std::size_t mostEntryBytes = 500;
/// In SI units; what is larger, or nearer to nothing, is a slip of the hand.
constexpr double mostEntry = 1e100, leastEntry = 1e-100;

bool digit(char c) { return c >= '0' && c <= '9'; }

struct NumberInUnit {
    double value = 0; ///< in `unit`, or bare
    const Unit* unit = nullptr;
    int decimals = 0;
};

/// The inches after some feet: a number, alone or with a length's unit.
Expected<NumberInUnit> inchesAfter(std::string_view s, std::string_view whole) {
    const auto n = numberAt(s);
    if (!n) return tl::unexpected(n.error());
    const auto rest = trimmed(s.substr(n->end));
    if (rest.empty()) return NumberInUnit{n->value, nullptr, n->decimals};
    const auto u = findUnit(rest, Dimension::length);
    if (!u) return fail(fmt::format("\"{}\" cannot be read: {}", whole, u.error().message));
    return NumberInUnit{n->value, *u, n->decimals};
}

/// Feet and the inches behind them, in whatever stands after the number of feet: "' 3 1/2\"", "'-3\"",
/// "ft3in", "ft 3". Nothing where it is no feet.
std::optional<NumberInUnit> feetAndInches(double feet, std::string_view rest, std::string_view whole) {
    std::size_t at = 0;
    while (at < rest.size() && !digit(rest[at]))
        ++at;
    if (at == 0 || at == rest.size()) return {};
    auto head = rest.substr(0, at);
    const bool apart = !std::isalpha(static_cast<unsigned char>(head.back()));
    while (!head.empty() && (head.back() == ' ' || head.back() == '-'))
        head.remove_suffix(1);
    const auto first = findUnit(head, Dimension::length);
    if (!first || (*first)->symbol != "ft") return {};
    const auto second = inchesAfter(rest.substr(at), whole);
    if (!second || (!apart && !second->unit)) return {}; // "12 ft2" is no 12 ft and 2 in
    const Unit& inches = second->unit ? *second->unit : unit("in");
    return NumberInUnit{feet * (*first)->factor / inches.factor + (feet < 0 ? -second->value : second->value),
                        &inches, -1};
}

/// Units that somebody may have meant.
std::string_view examples(Dimension dimension) {
    switch (dimension) {
    case Dimension::force:
        return "N, kN, kgf or lbf";
    case Dimension::length:
        return "mm or in";
    case Dimension::area:
        return "mm² or in²";
    case Dimension::mass:
        return "g, kg or lb";
    case Dimension::time:
        return "s, min, h or d";
    case Dimension::torque:
        return "N·m, ft-lb or in-lb";
    case Dimension::stress:
        return "MPa, bar or psi";
    case Dimension::energy:
        return "J or ft-lb";
    case Dimension::acceleration:
        return "g₀ or m/s²";
    case Dimension::speed:
        return "mm/s or mm/min";
    case Dimension::stiffness:
        return "N/mm or lbf/in";
    case Dimension::angle:
        return "° or rad";
    case Dimension::temperature:
        return "°C or °F";
    case Dimension::energyPerArea:
        return "kJ/m²";
    case Dimension::bendingStiffness:
        return "N·m²";
    case Dimension::voltage:
        return "V or mV";
    case Dimension::ratio:
    case Dimension::money:
        break;
    }
    return "%";
}

/// One number with an optional unit, or feet and inches.
Expected<NumberInUnit> measured(std::string_view s, std::optional<Dimension> wanted, std::string_view whole) {
    s = trimmed(s);
    auto n = numberAt(s);
    if (!n) {
        if (n.error().wants == Wants::number)
            return fail(
                fmt::format("\"{}\" does not start with a number: type something like {}.", whole,
                            wanted == Dimension::length ? "12.5 mm or 3 1/4 in" : "1.5 kN or 48.3 kgf"));
        return tl::unexpected(n.error());
    }
    const auto rest = trimmed(s.substr(n->end));
    if (rest.empty()) return NumberInUnit{n->value, nullptr, n->decimals};
    if (!wanted || wanted == Dimension::length)
        if (const auto length = feetAndInches(n->value, rest, whole)) return *length;
    auto u = findUnit(rest, wanted);
    if (!u) return tl::unexpected(u.error());
    if (n->primes && ((*u)->symbol == "in" || (*u)->symbol == "ft"))
        return fail(
            fmt::format("\"{}\" can be read as feet and inches too: write it without the mark.", whole));
    return NumberInUnit{n->value, *u, n->decimals};
}

/// Where the two ends of a range meet, and how many characters stand between them.
struct Seam {
    std::size_t at = std::string_view::npos, length = 0;
};

/// "4…5 kN", "4-5 kN", "4 kN - 5 kN", "4 to 5 kN"; not "3-1/4", "5'-3\"", "12 ft-lb" or "1e-5".
Seam rangeSeam(std::string_view s) {
    constexpr std::string_view ellipsis = "…", to = " to ";
    if (const auto at = s.find(ellipsis); at != std::string_view::npos) return {at, ellipsis.size()};
    if (const auto at = s.find(to); at != std::string_view::npos) return {at, to.size()};
    for (std::size_t i = 1; i + 1 < s.size(); ++i) {
        if (s[i] != '-') continue;
        std::size_t before = i, after = i + 1;
        while (before > 0 && s[before - 1] == ' ')
            --before;
        while (after < s.size() && s[after] == ' ')
            ++after;
        std::size_t past = after;
        while (past < s.size() && digit(s[past]))
            ++past;
        const bool fraction = past < s.size() && s[past] == '/' && past + 1 < s.size() && digit(s[past + 1]);
        const bool spaced = before < i && after > i + 1 && before > 0 &&
                            std::isalpha(static_cast<unsigned char>(s[before - 1]));
        if (before > 0 && past > after && ((digit(s[before - 1]) && !fraction) || spaced)) return {i, 1};
    }
    return {};
}

/// "5 %" after a ±: a share of the value it stands behind.
std::optional<double> share(std::string_view text) {
    const auto s = trimmed(text);
    if (s.empty() || s.back() != '%') return {};
    const auto n = numberAt(s);
    if (!n || trimmed(s.substr(n->end)) != "%") return {};
    return n->value / 100;
}

/// "(12 ± 1) N" without its brackets.
std::string unbracketed(std::string_view s) {
    const auto close = s.find(')');
    if (s.empty() || s.front() != '(' || close == std::string_view::npos) return std::string(s);
    return std::string(s.substr(1, close - 1)) + " " + std::string(s.substr(close + 1));
}

} // namespace

namespace {

/// What was typed, taken apart: what its signs say, and the texts of its one or two numbers.
struct Parts {
    std::string_view whole, first, second;
    Bound bound = Bound::exact;
    Precision precision = Precision::stated;
    bool two() const {
        return !second.empty() || bound == Bound::between || precision == Precision::plusMinus;
    }
};

/// `whole`: trimmed and not empty.
Parts takenApart(std::string_view whole) {
    Parts p{whole, whole, {}};
    auto& s = p.first;
    if (s.front() == '>' || s.front() == '<' || s.front() == '~') {
        p.bound = s.front() == '>' ? Bound::above : s.front() == '<' ? Bound::below : Bound::exact;
        if (s.front() == '~') p.precision = Precision::about;
        s = trimmed(s.substr(1));
        if (!s.empty() && s.front() == '=') s = trimmed(s.substr(1));
        return p;
    }
    const auto split = [&](std::size_t at, std::size_t length) {
        p.second = trimmed(s.substr(at + length));
        s = trimmed(s.substr(0, at));
    };
    constexpr std::string_view plusMinus = "±";
    if (const auto at = s.find(plusMinus); at != std::string_view::npos)
        split(at, plusMinus.size()), p.precision = Precision::plusMinus;
    else if (const auto seam = rangeSeam(s); seam.at != std::string_view::npos)
        split(seam.at, seam.length), p.bound = Bound::between;
    return p;
}

/// The second number; nothing typed is none. `bracketed`: "(12 ± 1) %", so that "%" is no share of the first.
Expected<NumberInUnit> secondOf(const Parts& p, const NumberInUnit& first, std::optional<Dimension> wanted,
                                bool bracketed) {
    const auto percent =
        p.precision == Precision::plusMinus && !bracketed && (!first.unit || first.unit->symbol != "%")
            ? share(p.second)
            : std::nullopt;
    if (percent && !first.unit && wanted == Dimension::ratio)
        return fail(
            fmt::format("\"{}\" can be read in two ways: write \"{} % ± {}\" where both are per cent.",
                        p.whole, p.first, p.second));
    if (percent && (first.unit ? first.unit->dimension : wanted) == Dimension::temperature)
        return fail(fmt::format("\"{}\": a share of a temperature means nothing, write degrees.", p.whole));
    if (percent) return NumberInUnit{std::abs(first.value) * *percent, nullptr, -1};
    if (!p.two()) return NumberInUnit{};
    return measured(p.second, first.unit && !wanted ? std::optional(first.unit->dimension) : wanted, p.whole);
}

/// The unit of the entry. Error: there is none, or it is of another dimension.
Expected<const Unit*> unitOf(const Parts& p, const Unit* typed, std::optional<Dimension> wanted) {
    if (!typed && (wanted == Dimension::ratio || wanted == Dimension::money)) return &siUnit(*wanted);
    if (!typed)
        return fail(fmt::format("\"{}\" has no unit: add one, such as {}.", p.whole,
                                examples(wanted.value_or(Dimension::force))));
    if (wanted && typed->dimension != *wanted)
        return fail(fmt::format("\"{}\" measures {}, but {} is wanted here.", p.whole, name(typed->dimension),
                                name(*wanted)));
    return typed;
}

} // namespace

Expected<Entry> parseEntry(std::string_view text, std::optional<Dimension> wanted, const Unit* fallback) {
    if (text.size() > mostEntryBytes)
        return fail("This is too long for a measurement: type one number with its unit.");
    const std::string plain = plainCharacters(text);
    const bool bracketed = trimmed(plain).starts_with('('); // the unit belongs to both
    const std::string clean = unbracketed(trimmed(plain));
    if (trimmed(clean).empty()) return fail("Nothing was entered: type a number with its unit.");
    const auto p = takenApart(trimmed(clean));
    const auto first = measured(p.first, wanted, p.whole);
    if (!first) return tl::unexpected(first.error());
    const auto other = secondOf(p, *first, wanted, bracketed);
    if (!other) return tl::unexpected(other.error());
    const auto found = unitOf(p, first->unit ? first->unit : other->unit ? other->unit : fallback, wanted);
    if (!found) return tl::unexpected(found.error());
    const Unit* const u = *found;
    const Unit* const otherUnit = other->unit ? other->unit : u;
    if (otherUnit->dimension != u->dimension)
        return fail(
            fmt::format("\"{}\" mixes {} and {}.", p.whole, name(u->dimension), name(otherUnit->dimension)));
    Entry entry{u->toSi(first->value),
                p.bound,
                p.precision,
                0,
                0,
                u,
                first->decimals < 0 || other->decimals < 0 ? -1 : std::max(first->decimals, other->decimals)};
    if (entry.bound == Bound::between) {
        if (!first->unit) // "4…5 kN": the unit belongs to both
            entry.si = otherUnit->toSi(first->value);
        entry.unit = first->unit ? u : otherUnit;
        entry.upperSi = otherUnit->toSi(other->value);
        if (entry.upperSi < entry.si)
            return fail(
                fmt::format("\"{}\" runs from the larger to the smaller: write the smaller first.", p.whole));
    } else if (entry.precision == Precision::plusMinus) {
        if (!first->unit && other->unit) entry.si = other->unit->toSi(first->value);
        entry.plusMinusSi = std::abs(other->value) * otherUnit->factor;
    }
    for (const double v : {entry.si, entry.upperSi, entry.plusMinusSi})
        if (!(std::abs(v) <= mostEntry) || (v != 0 && std::abs(v) < leastEntry))
            return fail(fmt::format("\"{}\" is too large or too small to be a measurement.", p.whole));
    return entry;
}

Expected<double> parseNumber(std::string_view text) {
    if (text.size() > mostEntryBytes) return fail("This is too long for a number.");
    const std::string clean = plainCharacters(text);
    const auto s = trimmed(clean);
    auto n = numberAt(s);
    if (!n && n.error().wants != Wants::number) return tl::unexpected(n.error());
    if (!n || !trimmed(s.substr(n->end)).empty()) return fail(fmt::format("\"{}\" is not a number.", s));
    return n->value;
}

namespace {

/// An entry as text, its numbers (in `unit`) printed by `number`.
template <class Number> std::string printed(const Entry& entry, const Unit& unit, Number number) {
    const auto value = [&](double si) { return number(unit.fromSi(si)); };
    std::string text = value(entry.si);
    switch (entry.bound) {
    case Bound::exact:
        break;
    case Bound::above:
        text = ">" + text;
        break;
    case Bound::below:
        text = "<" + text;
        break;
    case Bound::between:
        text += "…" + value(entry.upperSi);
        break;
    }
    switch (entry.precision) {
    case Precision::stated:
        break;
    case Precision::about:
        text = "~" + text;
        break;
    case Precision::plusMinus:
        if (unit.symbol == "%") text += " %"; // "12 ± 1 %" would be a share of the 12
        text += " ± " + number(entry.plusMinusSi / unit.factor);
        break;
    }
    return unit.symbol.empty() ? text : text + " " + std::string(unit.symbol);
}

} // namespace

std::string print(const Entry& entry) {
    return printed(entry, *entry.unit, [&](double shown) {
        return entry.decimals < 0 ? shortest(shown) : fixed(shown, entry.decimals);
    });
}

std::string printIn(const Entry& entry, const Unit& unit) {
    if (entry.unit == &unit) return print(entry);
    return printed(entry, unit, [](double shown) { return significant(shown); });
}

} // namespace anvil::quantity
