#include <anvil/quantity/entry.h>

#include <anvil/quantity/print.h>
#include <array>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace anvil::quantity {
namespace {

/// Longer than anything a measurement takes.
constexpr std::size_t mostEntryBytes = 500;
/// In SI units; what is larger, or nearer to nothing, is a slip of the hand.
constexpr double mostEntry = 1e100, leastEntry = 1e-100;

bool digit(char c) { return c >= '0' && c <= '9'; }

std::string_view trim(std::string_view s) {
    const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\n' || c == '\r'; };
    while (!s.empty() && blank(s.front()))
        s.remove_prefix(1);
    while (!s.empty() && blank(s.back()))
        s.remove_suffix(1);
    return s;
}

/// Replaces typographic characters by the plain ones the grammar knows.
std::string normalised(std::string_view text) {
    static constexpr std::array<std::pair<std::string_view, std::string_view>, 15> changes{{{"\u00a0", " "},
                                                                                            {"\u202f", " "},
                                                                                            {"\u2009", " "},
                                                                                            {"−", "-"},
                                                                                            {"–", "…"},
                                                                                            {"...", "…"},
                                                                                            {"..", "…"},
                                                                                            {"≥", ">"},
                                                                                            {"≤", "<"},
                                                                                            {"≈", "~"},
                                                                                            {"+/-", "±"},
                                                                                            {"″", "\""},
                                                                                            {"′", "'"},
                                                                                            {"½", " 1/2"},
                                                                                            {">=", ">"}}};
    std::string out(text);
    for (const auto& [from, to] : changes)
        for (std::size_t at = 0; (at = out.find(from, at)) != std::string::npos; at += to.size())
            out.replace(at, from.size(), to);
    return out;
}

struct Number {
    double value = 0;
    int decimals = 0;
    std::size_t end = 0; ///< first character after the number
};

/// Whether the digits before the decimal mark stand alone, or in groups of three with one kind of mark.
bool wellGrouped(std::string_view whole) {
    const auto first = whole.find_first_not_of("0123456789");
    if (first == std::string_view::npos) return true;
    if (first == 0 || first > 3 || (whole.size() - first) % 4 != 0) return false;
    for (auto at = first; at < whole.size(); at += 4)
        if (whole[at] != whole[first] || !digit(whole[at + 1]) || !digit(whole[at + 2]) ||
            !digit(whole[at + 3]))
            return false;
    return true;
}

/// Digits with optional grouping and decimal mark, from `s[0]`. Does not read fractions.
Expected<Number> decimal(std::string_view s) {
    std::size_t i = 0;
    std::string digits;
    if (i < s.size() && (s[i] == '-' || s[i] == '+')) digits += s[i] == '-' ? "-" : "", ++i;
    const std::size_t first = i;
    int dots = 0, commas = 0;
    std::size_t lastMark = 0;
    while (i < s.size()) {
        if (digit(s[i])) {
            ++i;
        } else if ((s[i] == '.' || s[i] == ',') && i + 1 < s.size() && digit(s[i + 1])) {
            (s[i] == '.' ? dots : commas)++;
            lastMark = i++;
        } else if (s[i] == ' ' && i + 3 < s.size() && i > first && i - first <= 3 && dots + commas == 0 &&
                   digit(s[i + 1]) && digit(s[i + 2]) && digit(s[i + 3]) &&
                   (i + 4 == s.size() || (!digit(s[i + 4]) && s[i + 4] != '/'))) {
            i += 4; // "1 250": groups of exactly three
            while (i + 3 < s.size() && s[i] == ' ' && digit(s[i + 1]) && digit(s[i + 2]) && digit(s[i + 3]) &&
                   (i + 4 == s.size() || !digit(s[i + 4])))
                i += 4;
        } else {
            break;
        }
    }
    const auto body = s.substr(first, i - first);
    if (body.empty() || !(digit(body[0]) || ((body[0] == '.' || body[0] == ',') && body.size() > 1)))
        return fail("no number");
    const char lastChar = dots + commas ? s[lastMark] : '\0';
    const std::size_t after = lastChar ? i - lastMark - 1 : 0, before = lastChar ? lastMark - first : 0;
    bool markIsDecimal = lastChar != '\0';
    if (commas == 1 && dots == 0 && after == 3 && before <= 3 && before > 0 && body[0] != '0') {
        const auto head = std::string(body.substr(0, before)), tail = std::string(body.substr(before + 1));
        auto trimmed = tail;
        while (!trimmed.empty() && trimmed.back() == '0')
            trimmed.pop_back();
        return fail(
            fmt::format("{} or {}? \"{}\" can be read both ways: write it with a point or without the comma.",
                        head + (trimmed.empty() ? "" : "." + trimmed), head + tail, body));
    }
    if ((commas > 1 && dots == 0) || (dots > 1 && commas == 0)) markIsDecimal = false; // 1,250,000
    if (!wellGrouped(s.substr(first, (markIsDecimal ? lastMark : i) - first)))
        return fail(fmt::format("\"{}\" has a grouping mark in the wrong place.", body));
    if (dots > 0 && commas > 0 && (lastChar == '.' ? dots : commas) > 1)
        return fail(fmt::format("\"{}\" has more than one decimal mark.", body));
    Number out;
    for (std::size_t k = first; k < i; ++k) {
        if (digit(s[k]))
            digits += s[k];
        else if (markIsDecimal && k == lastMark)
            digits += '.';
    }
    out.decimals = markIsDecimal ? static_cast<int>(after) : 0;
    if (i < s.size() && (s[i] == 'e' || s[i] == 'E')) { // exponent
        std::size_t j = i + 1;
        if (j < s.size() && (s[j] == '-' || s[j] == '+')) ++j;
        if (j < s.size() && digit(s[j])) {
            while (j < s.size() && digit(s[j]))
                ++j;
            auto power = std::string(s.substr(i, j - i));
            std::erase(power, '+');
            digits += power;
            out.decimals = -1;
            i = j;
        }
    }
    const auto got = std::from_chars(digits.data(), digits.data() + digits.size(), out.value);
    if (got.ec == std::errc::result_out_of_range)
        return fail(
            fmt::format("\"{}\" is too large or too small to be a measurement.", trim(s.substr(0, i))));
    if (got.ec != std::errc{}) return fail("no number");
    out.end = i;
    return out;
}

/// A decimal, a fraction or a mixed number: 3.25, 1/4, 3 1/4, 3-1/4.
Expected<Number> number(std::string_view s) {
    auto whole = decimal(s);
    if (!whole) return whole;
    const auto fractionAt = [&](std::size_t at) -> Expected<Number> {
        std::size_t j = at;
        while (j < s.size() && digit(s[j]))
            ++j;
        if (j == at || j >= s.size() || s[j] != '/' || j + 1 >= s.size() || !digit(s[j + 1]))
            return fail("no fraction");
        auto top = decimal(s.substr(at, j - at)), bottom = decimal(s.substr(j + 1));
        if (!top || !bottom || bottom->decimals != 0) return fail("no fraction");
        if (bottom->value == 0)
            return fail(fmt::format("\"{}\" divides by zero.", s.substr(at, j + 1 + bottom->end - at)));
        return Number{top->value / bottom->value, -1, j + 1 + bottom->end};
    };
    const bool negative = s.front() == '-';
    if (whole->end < s.size() && s[whole->end] == '/' && whole->decimals == 0) { // 1/4
        const std::size_t start = s.front() == '-' || s.front() == '+' ? 1 : 0;
        auto f = fractionAt(start);
        if (f && negative) f->value = -f->value;
        if (f || f.error().message != "no fraction") return f;
    } else if (whole->end + 1 < s.size() && (s[whole->end] == ' ' || s[whole->end] == '-') &&
               whole->decimals == 0) {
        std::size_t at = whole->end + 1;
        while (at < s.size() && s[at] == ' ')
            ++at;
        auto f = fractionAt(at);
        if (f) return Number{whole->value + (negative ? -f->value : f->value), -1, f->end};
        if (f.error().message != "no fraction") return f;
    }
    return whole;
}

struct Measured {
    double value = 0; ///< in `unit`, or bare
    const Unit* unit = nullptr;
    int decimals = 0;
};

/// The inches after some feet: a number, alone or with a length's unit.
Expected<Measured> inchesAfter(std::string_view s, std::string_view whole) {
    const auto n = number(s);
    if (!n) return tl::unexpected(n.error());
    const auto rest = trim(s.substr(n->end));
    if (rest.empty()) return Measured{n->value, nullptr, n->decimals};
    const auto u = findUnit(rest, Dimension::length);
    if (!u) return fail(fmt::format("\"{}\" cannot be read: {}", whole, u.error().message));
    return Measured{n->value, *u, n->decimals};
}

/// One number with an optional unit, or feet and inches.
Expected<Measured> measured(std::string_view s, std::optional<Dimension> wanted, std::string_view whole) {
    s = trim(s);
    auto n = number(s);
    if (!n) {
        if (n.error().message == "no number")
            return fail(
                fmt::format("\"{}\" does not start with a number: type something like {}.", whole,
                            wanted == Dimension::length ? "12.5 mm or 3 1/4 in" : "1.5 kN or 48.3 kgf"));
        return tl::unexpected(n.error());
    }
    auto rest = trim(s.substr(n->end));
    if (rest.empty()) return Measured{n->value, nullptr, n->decimals};
    std::size_t split = 0; // feet and inches: a digit after the unit
    while (split < rest.size() &&
           !(digit(rest[split]) && split > 0 && (rest[split - 1] == ' ' || rest[split - 1] == '\'')))
        ++split;
    if (split < rest.size()) {
        const auto first = findUnit(trim(rest.substr(0, split)), Dimension::length);
        const bool feet = first && (*first)->symbol == "ft" && (!wanted || wanted == Dimension::length);
        const auto second =
            feet ? inchesAfter(rest.substr(split), whole) : Expected<Measured>(fail("no feet"));
        if (second) {
            const Unit* inches = second->unit ? second->unit : &unit("in");
            return Measured{n->value * (*first)->factor / inches->factor +
                                (n->value < 0 ? -second->value : second->value),
                            inches, -1};
        }
    }
    auto u = findUnit(rest, wanted);
    if (!u) return tl::unexpected(u.error());
    return Measured{n->value, *u, n->decimals};
}

} // namespace

Expected<Entry> parseEntry(std::string_view text, std::optional<Dimension> wanted, const Unit* fallback) {
    if (text.size() > mostEntryBytes)
        return fail("This is too long for a measurement: type one number with its unit.");
    const std::string clean = normalised(text);
    std::string_view s = trim(clean);
    if (s.empty()) return fail("Nothing was entered: type a number with its unit.");
    Entry entry;
    if (s.front() == '>' || s.front() == '<' || s.front() == '~') {
        entry.doubt = s.front() == '>' ? Doubt::above : s.front() == '<' ? Doubt::below : Doubt::about;
        s = trim(s.substr(1));
        if (!s.empty() && s.front() == '=') s = trim(s.substr(1));
    }
    std::string_view second;
    const auto split = [&](std::size_t at, std::size_t length, Doubt doubt) {
        second = trim(s.substr(at + length));
        s = trim(s.substr(0, at));
        entry.doubt = doubt;
    };
    constexpr std::string_view plusMinus = "±", ellipsis = "…";
    if (entry.doubt == Doubt::exact) {
        if (const auto at = s.find(plusMinus); at != std::string_view::npos) {
            split(at, plusMinus.size(), Doubt::plusMinus);
        } else if (const auto dots = s.find(ellipsis); dots != std::string_view::npos) {
            split(dots, ellipsis.size(), Doubt::between);
        } else {
            for (std::size_t i = 1; i + 1 < s.size(); ++i) { // "4-5 kN", but not 3-1/4" nor 1e-5
                if (s[i] != '-') continue;
                std::size_t before = i, after = i + 1;
                while (before > 0 && s[before - 1] == ' ')
                    --before;
                while (after < s.size() && s[after] == ' ')
                    ++after;
                std::size_t past = after;
                while (past < s.size() && digit(s[past]))
                    ++past;
                const bool fraction = past < s.size() && s[past] == '/';
                if (before > 0 && digit(s[before - 1]) && past > after && !fraction) {
                    split(i, 1, Doubt::between);
                    break;
                }
            }
        }
    }
    auto first = measured(s, wanted, trim(clean));
    if (!first) return tl::unexpected(first.error());
    Measured other;
    if (!second.empty() || entry.doubt == Doubt::between || entry.doubt == Doubt::plusMinus) {
        auto got = measured(second, first->unit && !wanted ? std::optional(first->unit->dimension) : wanted,
                            trim(clean));
        if (!got) return tl::unexpected(got.error());
        other = *got;
    }
    const Unit* u = first->unit ? first->unit : other.unit ? other.unit : fallback;
    if (!u) {
        if (wanted && (*wanted == Dimension::ratio || *wanted == Dimension::money))
            u = &siUnit(*wanted);
        else
            return fail(fmt::format("\"{}\" has no unit: add one, such as {}.", trim(clean),
                                    wanted == Dimension::length ? "mm or in" : "N, kN, kgf or lbf"));
    }
    if (wanted && u->dimension != *wanted)
        return fail(fmt::format("\"{}\" measures {}, but {} is wanted here.", trim(clean), name(u->dimension),
                                name(*wanted)));
    const Unit* otherUnit = other.unit ? other.unit : u;
    if (otherUnit->dimension != u->dimension)
        return fail(fmt::format("\"{}\" mixes {} and {}.", trim(clean), name(u->dimension),
                                name(otherUnit->dimension)));
    entry.unit = u;
    entry.decimals =
        first->decimals < 0 || other.decimals < 0 ? -1 : std::max(first->decimals, other.decimals);
    entry.si = u->toSi(first->value);
    if (entry.doubt == Doubt::between) {
        if (!first->unit) // "4…5 kN": the unit belongs to both
            entry.si = otherUnit->toSi(first->value);
        entry.unit = first->unit ? u : otherUnit;
        entry.upperSi = otherUnit->toSi(other.value);
        if (entry.upperSi < entry.si)
            return fail(fmt::format("\"{}\" runs from the larger to the smaller: write the smaller first.",
                                    trim(clean)));
    } else if (entry.doubt == Doubt::plusMinus) {
        if (!first->unit && other.unit) entry.si = other.unit->toSi(first->value);
        entry.plusMinusSi = std::abs(other.value) * otherUnit->factor;
    }
    for (const double v : {entry.si, entry.upperSi, entry.plusMinusSi})
        if (!(std::abs(v) <= mostEntry) || (v != 0 && std::abs(v) < leastEntry))
            return fail(fmt::format("\"{}\" is too large or too small to be a measurement.", trim(clean)));
    return entry;
}

Expected<double> parseNumber(std::string_view text) {
    if (text.size() > mostEntryBytes) return fail("This is too long for a number.");
    const std::string clean = normalised(text);
    const auto s = trim(clean);
    auto n = number(s);
    if (!n && n.error().message != "no number") return tl::unexpected(n.error());
    if (!n || !trim(s.substr(n->end)).empty()) return fail(fmt::format("\"{}\" is not a number.", s));
    return n->value;
}

namespace {

/// An entry as text, its numbers (in `unit`) printed by `number`.
template <class Number> std::string printed(const Entry& entry, const Unit& unit, Number number) {
    const auto value = [&](double si) { return number(unit.fromSi(si)); };
    std::string text = value(entry.si);
    switch (entry.doubt) {
    case Doubt::exact:
        break;
    case Doubt::above:
        text = ">" + text;
        break;
    case Doubt::below:
        text = "<" + text;
        break;
    case Doubt::about:
        text = "~" + text;
        break;
    case Doubt::between:
        text += "…" + value(entry.upperSi);
        break;
    case Doubt::plusMinus:
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
