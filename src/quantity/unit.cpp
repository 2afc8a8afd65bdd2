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
    {"mN", force, 0.001},
    {"MN", force, 1e6},
    {"daN", force, 10},
    {"kgf", force, g0, 0, "kg kgs kp kilo kilos kilogram kilograms kilogramforce"},
    {"gf", force, g0 / 1000, 0, "g gram grams"},
    {"tf", force, 1000 * g0, 0, "t tonne tonnes"},
    {"lbf", force, lbf, 0, "lb lbs # pound pounds lbsf lbsforce lbforce poundforce poundsforce"},
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
    {"kN·m", torque, 1000, 0, "kNm"},
    {"ft·lbf", torque, ft* lbf, 0, "ftlb ftlbs lbft lbfft"},
    {"in·lbf", torque, in* lbf, 0, "inlb inlbs lbin lbfin"},
    {"kgf·cm", torque, g0 / 100, 0, "kgcm"},
    {"kgf·m", torque, g0, 0, "kgm"},
    {"Pa", stress, 1},
    {"kPa", stress, 1000},
    {"MPa", stress, 1e6, 0, "N/mm² N/mm2"},
    {"GPa", stress, 1e9},
    {"bar", stress, 1e5},
    {"psi", stress, lbf / (in * in)},
    {"ksi", stress, 1000 * lbf / (in * in)},
    {"J", energy, 1, 0, "Nm joule joules"},
    {"kJ", energy, 1000},
    {"mJ", energy, 0.001},
    {"ft·lbf", energy, ft* lbf, 0, "ftlb ftlbs"},
    {"in·lbf", energy, in* lbf, 0, "inlb inlbs"},
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
};

/// Spelling without joiners, so that "ft-lb", "ft·lb" and "ft lb" are one.
std::string plain(std::string_view text) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto c = static_cast<unsigned char>(text[i]);
        if (std::isspace(c) || c == '-' || c == '*' || c == '.' || c == '^') continue;
        if (c == 0xC2 && i + 1 < text.size()) { // two-byte characters U+0080…U+00BF
            const auto d = static_cast<unsigned char>(text[i + 1]);
            if (d == 0xB7 || d == 0xA0) { // middle dot, no-break space
                ++i;
                continue;
            }
            if (d == 0xB2) { // superscript two
                out += '2';
                ++i;
                continue;
            }
        }
        out += static_cast<char>(c);
    }
    return out;
}

std::string lower(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return text;
}

bool spelledAs(const Unit& unit, const std::string& wanted, bool ignoreCase) {
    const auto same = [&](std::string_view candidate) {
        const auto p = plain(candidate);
        return ignoreCase ? lower(p) == lower(wanted) : p == wanted;
    };
    if (same(unit.symbol)) return true;
    std::string_view rest = unit.aliases;
    while (!rest.empty()) {
        const auto space = rest.find(' ');
        if (same(rest.substr(0, space))) return true;
        rest = space == std::string_view::npos ? std::string_view{} : rest.substr(space + 1);
    }
    return false;
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
    static constexpr std::string_view names[] = {
        "force",        "length", "area",      "mass",  "time",        "torque", "stress", "energy",
        "acceleration", "speed",  "stiffness", "angle", "temperature", "ratio",  "money"};
    return names[static_cast<int>(dimension)];
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
    const std::string typed = plain(text);
    for (const bool ignoreCase : {false, true}) {
        const Unit* found = nullptr;
        bool several = false;
        for (const auto& u : table) {
            if ((wanted && u.dimension != *wanted) || !spelledAs(u, typed, ignoreCase)) continue;
            // Without a wanted dimension a unit's own symbol wins over another's alias.
            const bool own = plain(u.symbol) == typed;
            if (!found || (own && plain(found->symbol) != typed))
                found = &u;
            else if (ignoreCase)
                several = true;
        }
        if (found && !several && !(typed.empty() && !wanted)) return found;
    }
    for (const auto& u : table)
        if (wanted && !typed.empty() && spelledAs(u, typed, false))
            return fail(fmt::format("\"{}\" measures {}, but {} is wanted here: use {}.", text,
                                    name(u.dimension), name(*wanted), symbolsOf(wanted)));
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
