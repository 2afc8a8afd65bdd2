#include <anvil/quantity/unit.h>

#include <algorithm>
#include <cctype>
#include <fmt/format.h>
#include <numbers>
#include <stdexcept>
#include <vector>

namespace anvil::quantity {
namespace {

constexpr double g0 = 9.80665;
constexpr double lb = 0.45359237;
constexpr double lbf = lb * g0;
constexpr double in = 0.0254;
constexpr double ft = 0.3048;
constexpr double pi = std::numbers::pi;

using enum Dimension;

constexpr Unit table[] = {
    {"N", force, 1, 0, "newton newtons"},
    {"kN", force, 1000, 0, "kilonewton kilonewtons"},
    {"mN", force, 0.001, 0, "millinewton millinewtons"},
    {"cN", force, 0.01, 0, "centinewton centinewtons"},
    {"dN", force, 0.1, 0, "decinewton decinewtons"},
    {"MN", force, 1e6, 0, "meganewton meganewtons"},
    {"daN", force, 10, 0, "decanewton decanewtons"},
    {"kgf", force, g0, 0, "kg kgs kp kilo kilos kilogram kilograms kilogramforce"},
    {"gf", force, g0 / 1000, 0, "g gram grams"},
    {"tf", force, 1000 * g0, 0, "t tonne tonnes"},
    {"lbf", force, lbf, 0, "lb lbs # pound pounds lbfs lbsf lbsforce lbforce poundforce poundsforce"},
    {"ozf", force, lbf / 16, 0, "oz ounce ounces"},
    {"kip", force, 1000 * lbf, 0, "klbf klb kips"},
    {"tonf", force, 2000 * lbf, 0, "ton tons uston"},
    {"m", length, 1, 0, "metre metres meter meters"},
    {"mm", length, 0.001, 0, "millimetre millimeter millimetres millimeters"},
    {"cm", length, 0.01, 0, "centimetre centimeter centimetres centimeters"},
    {"µm", length, 1e-6, 0, "um μm"},
    {"km", length, 1000},
    {"in", length, in, 0, "\" inch inches ″ ''"},
    {"ft", length, ft, 0, "' foot feet ′"},
    {"m²", area, 1, 0, "m2 sqm"},
    {"mm²", area, 1e-6, 0, "mm2"},
    {"cm²", area, 1e-4, 0, "cm2"},
    {"in²", area, in* in, 0, "in2 sqin"},
    {"kg", mass, 1, 0, "kilo kilos kilogram kilograms"},
    {"g", mass, 0.001, 0, "gram grams"},
    {"t", mass, 1000, 0, "tonne tonnes"},
    {"lb", mass, lb, 0, "lbs pound pounds #"},
    {"oz", mass, lb / 16, 0, "ounce ounces"},
    {"s", time, 1, 0, "sec second seconds"},
    {"ms", time, 0.001, 0, "msec millisecond milliseconds"},
    {"µs", time, 1e-6, 0, "us μs"},
    {"min", time, 60, 0, "minute minutes"},
    {"h", time, 3600, 0, "hour hours hr"},
    {"d", time, 86400, 0, "day days"},
    {"wk", time, 604800, 0, "week weeks"},
    {"N·m", torque, 1, 0, "Nm"},
    {"N·cm", torque, 0.01, 0, "Ncm"},
    {"N·mm", torque, 0.001, 0, "Nmm"},
    {"kN·m", torque, 1000, 0, "kNm"},
    {"ft·lbf", torque, ft* lbf, 0,
     "ftlb ftlbs lbft lbsft lbfft footpound footpounds footpoundforce poundfoot poundfeet"},
    {"in·lbf", torque, in* lbf, 0, "inlb inlbs lbin lbsin lbfin inchpound inchpounds poundinch"},
    {"kgf·cm", torque, g0 / 100, 0, "kgcm"},
    {"ozf·in", torque, lbf / 16 * in, 0, "ozin inoz"},
    {"kgf·m", torque, g0, 0, "kgm"},
    {"Pa", stress, 1},
    {"kPa", stress, 1000},
    {"MPa", stress, 1e6, 0, "N/mm² N/mm2 mpa MPA"},
    {"mPa", stress, 0.001},
    {"GPa", stress, 1e9, 0, "kN/mm² kN/mm2"},
    {"N/cm²", stress, 1e4, 0, "N/cm2"},
    {"bar", stress, 1e5, 0, "bars"},
    {"psi", stress, lbf / (in * in), 0, "lb/in² lbs/in² lbf/in² lb/in2 lbs/in2 lbf/in2"},
    {"ksi", stress, 1000 * lbf / (in * in), 0, "kip/in² kip/in2"},
    {"kgf/cm²", stress, g0 * 1e4, 0, "kg/cm² kg/cm2 kgf/cm2"},
    {"kgf/mm²", stress, g0 * 1e6, 0, "kg/mm² kg/mm2 kgf/mm2"},
    {"J", energy, 1, 0, "Nm joule joules"},
    {"kJ", energy, 1000},
    {"mJ", energy, 0.001},
    {"MJ", energy, 1e6},
    {"ft·lbf", energy, ft* lbf, 0, "ftlb ftlbs footpound footpounds footpoundforce"},
    {"in·lbf", energy, in* lbf, 0, "inlb inlbs inchpound inchpounds"},
    {"m/s²", acceleration, 1, 0, "m/s2"},
    {"g₀", acceleration, g0, 0, "g g0"},
    {"m/s", speed, 1},
    {"mm/s", speed, 0.001},
    {"mm/min", speed, 0.001 / 60},
    {"km/h", speed, 1 / 3.6, 0, "kph"},
    {"mph", speed, 5280 * ft / 3600},
    {"kn", speed, 1852.0 / 3600, 0, "knot knots kt"},
    {"in/min", speed, in / 60},
    {"N/m", stiffness, 1},
    {"N/mm", stiffness, 1000},
    {"kN/m", stiffness, 1000},
    {"kN/mm", stiffness, 1e6},
    {"kgf/mm", stiffness, 1000 * g0, 0, "kg/mm"},
    {"lbf/in", stiffness, lbf / in, 0, "lb/in"},
    {"lbf/mm", stiffness, lbf * 1000, 0, "lb/mm"},
    {"N/in", stiffness, 1 / in},
    {"kN/in", stiffness, 1000 / in},
    {"kgf/in", stiffness, g0 / in, 0, "kg/in"},
    {"rad", angle, 1, 0, "radian radians"},
    {"°", angle, pi / 180, 0, "deg degree degrees"},
    {"turn", angle, 2 * pi, 0, "turns rev"},
    {"K", temperature, 1},
    {"°C", temperature, 1, 273.15, "C degC"},
    {"°F", temperature, 5.0 / 9.0, 273.15 - 32 * 5.0 / 9.0, "F degF"},
    {"", ratio, 1},
    {"%", ratio, 0.01, 0, "percent"},
    {"", money, 1},
    {"J/m²", energyPerArea, 1, 0, "J/m2"},
    {"kJ/m²", energyPerArea, 1000, 0, "kJ/m2"},
    {"J/cm²", energyPerArea, 1e4, 0, "J/cm2"},
    {"N·m²", bendingStiffness, 1, 0, "Nm2"},
    {"N·mm²", bendingStiffness, 1e-6, 0, "Nmm2"},
    {"kN·m²", bendingStiffness, 1000, 0, "kNm2"},
    {"V", voltage, 1, 0, "volt volts"},
    {"mV", voltage, 0.001, 0, "millivolt millivolts"},
    {"µV", voltage, 1e-6, 0, "uV μV microvolt microvolts"},
};

/// Characters that join a unit's parts, or are written another way in plain text.
constexpr std::pair<std::string_view, std::string_view> joiners[] = {
    {"\u00b7", ""}, {"\u22c5", ""}, {"\u2219", ""},  {"\u2022", ""},  {"\u2027", ""},  {"\u30fb", ""},
    {"\u00d7", ""}, {"\u00a0", ""}, {"\u202f", ""},  {"\u2009", ""},  {"\u2212", ""},  {"\u2010", ""},
    {"\u2011", ""}, {"\u2013", ""}, {"\u00b2", "2"}, {"\u03bc", "µ"}, {"\u2215", "/"}, {"\u2044", "/"},
};

/// Spelling without joiners, so that "ft-lb", "ft·lb" and "ft lb" are one.
std::string plain(std::string_view text) {
    std::string out;
    for (std::size_t i = 0; i < text.size();) {
        const auto c = static_cast<unsigned char>(text[i]);
        if (std::isspace(c) || c == '-' || c == '*' || c == '.' || c == '^') {
            ++i;
            continue;
        }
        const auto* joiner =
            c < 0x80 ? std::end(joiners)
                     : std::find_if(std::begin(joiners), std::end(joiners),
                                    [&](const auto& j) { return text.substr(i).starts_with(j.first); });
        if (joiner != std::end(joiners)) {
            out += joiner->second;
            i += joiner->first.size();
        } else {
            out += text[i++];
        }
    }
    return out;
}

std::string lower(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return text;
}

/// Whether `unit` is a thousandth or a million of another unit, by the m or M in front of it.
bool hasMilliOrMega(const Unit& unit) {
    if (unit.symbol.size() < 2 || lower(std::string(unit.symbol.substr(0, 1))) != "m") return false;
    return std::any_of(std::begin(table), std::end(table), [&](const Unit& u) {
        return u.dimension == unit.dimension && u.symbol == unit.symbol.substr(1);
    });
}

/// A unit's spellings made ready for comparing: its symbol first, then its aliases.
struct Spelled {
    struct Form {
        std::string plain;
        std::string lower;
    };
    const Unit* unit = nullptr;
    bool milliOrMega = false;
    std::vector<Form> forms;
};

Spelled spelled(const Unit& unit) {
    Spelled out{&unit, hasMilliOrMega(unit), {}};
    const auto add = [&](std::string_view form) {
        auto p = plain(form);
        auto l = lower(p);
        out.forms.push_back({std::move(p), std::move(l)});
    };
    add(unit.symbol);
    std::string_view rest = unit.aliases;
    while (!rest.empty()) {
        const auto space = rest.find(' ');
        add(rest.substr(0, space));
        rest = space == std::string_view::npos ? std::string_view{} : rest.substr(space + 1);
    }
    return out;
}

/// Every unit of the table, prepared once: a live line of named values looks up each of its words.
const std::vector<Spelled>& spelledTable() {
    static const auto all = [] {
        std::vector<Spelled> out;
        for (const auto& u : table)
            out.push_back(spelled(u));
        return out;
    }();
    return all;
}

/// Whether `typed` is `form` but for capitals. Where an m or an M decides over milli and mega, only a
/// writer who does not mind capitals at all can have meant the other one: "MM" and "mpa" pass, "MJ" is no mJ.
bool sameButForCase(const Spelled& unit, const Spelled::Form& typed, const Spelled::Form& form) {
    if (typed.lower != form.lower) return false;
    return !unit.milliOrMega || typed.plain.front() == form.plain.front() ||
           typed.plain.substr(1) != form.plain.substr(1);
}

bool isSpelledAs(const Spelled& unit, const Spelled::Form& typed, bool ignoreCase) {
    return std::any_of(unit.forms.begin(), unit.forms.end(), [&](const Spelled::Form& form) {
        if (!ignoreCase || typed.plain.empty() || form.plain.empty()) return typed.plain == form.plain;
        return sameButForCase(unit, typed, form);
    });
}

std::string symbolsOf(std::optional<Dimension> wanted) {
    if (!wanted) return "N, kN, kgf, lbf, mm, in, s, N·m, MPa, J";
    std::string out;
    for (const auto& u : table)
        if (u.dimension == *wanted && !u.symbol.empty())
            out += (out.empty() ? "" : ", ") + std::string(u.symbol);
    return out;
}

} // namespace

std::string_view name(Dimension dimension) {
    static constexpr std::string_view names[] = {"force",
                                                 "length",
                                                 "area",
                                                 "mass",
                                                 "time",
                                                 "torque",
                                                 "stress",
                                                 "energy",
                                                 "acceleration",
                                                 "speed",
                                                 "stiffness",
                                                 "angle",
                                                 "temperature",
                                                 "ratio",
                                                 "money",
                                                 "energy per area",
                                                 "bending stiffness",
                                                 "voltage"};
    static_assert(std::size(names) == static_cast<std::size_t>(Dimension::voltage) + 1);
    return names[static_cast<int>(dimension)];
}

std::optional<Dimension> dimensionNamed(std::string_view text) {
    for (int d = 0; d <= static_cast<int>(voltage); ++d)
        if (name(static_cast<Dimension>(d)) == text) return static_cast<Dimension>(d);
    return std::nullopt;
}

std::span<const Unit> allUnits() { return table; }

const Unit& siUnit(Dimension dimension) {
    return *std::find_if(std::begin(table), std::end(table),
                         [&](const Unit& u) { return u.dimension == dimension; });
}

const Unit& unit(std::string_view symbol) {
    const auto found =
        std::find_if(std::begin(table), std::end(table), [&](const Unit& u) { return u.symbol == symbol; });
    if (found == std::end(table)) throw std::logic_error(fmt::format("no unit is written \"{}\"", symbol));
    return *found;
}

Expected<const Unit*> findUnit(std::string_view text, std::optional<Dimension> wanted) {
    Spelled::Form typed{plain(text), {}};
    typed.lower = lower(typed.plain);
    for (const bool ignoreCase : {false, true}) {
        const Spelled* found = nullptr;
        bool several = false;
        for (const auto& u : spelledTable()) {
            if ((wanted && u.unit->dimension != *wanted) || !isSpelledAs(u, typed, ignoreCase)) continue;
            // Without a wanted dimension a unit's own symbol wins over another's alias.
            const bool own = u.forms.front().plain == typed.plain;
            if (!found || (own && found->forms.front().plain != typed.plain))
                found = &u;
            else if (ignoreCase)
                several = true;
        }
        if (found && !several && !(typed.plain.empty() && !wanted)) return found->unit;
    }
    if (wanted && !typed.plain.empty())
        for (const auto& u : spelledTable())
            if (isSpelledAs(u, typed, false))
                return fail(fmt::format("\"{}\" measures {}, but {} is wanted here: use {}.", text,
                                        name(u.unit->dimension), name(*wanted), symbolsOf(wanted)));
    return fail(fmt::format("\"{}\" is not a unit known here: use {}.", text, symbolsOf(wanted)));
}

Expected<double> convert(double value, const Unit& from, const Unit& to) {
    if (from.dimension != to.dimension)
        return fail(fmt::format("{} measures {} and {} measures {}: one cannot become the other.",
                                from.symbol, name(from.dimension), to.symbol, name(to.dimension)));
    if (from.offset == to.offset) return value * (from.factor / to.factor);
    return to.fromSi(from.toSi(value));
}

} // namespace anvil::quantity
