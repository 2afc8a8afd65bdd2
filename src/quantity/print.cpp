#include <anvil/quantity/digits.h>
#include <anvil/quantity/print.h>

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace anvil::quantity {
namespace {

std::string grouped(const std::string& text) {
    const std::size_t start = !text.empty() && text[0] == '-' ? 1 : 0;
    const std::size_t point = std::min(text.find('.'), text.size());
    if (point - start < 5) return text;
    std::string out = text.substr(0, start);
    for (std::size_t i = start; i < point; ++i) {
        if (i > start && (point - i) % 3 == 0) out += "\u00a0";
        out += text[i];
    }
    return out + text.substr(point);
}

std::string withoutMinusZero(std::string text) {
    if (!text.empty() && text[0] == '-' && text.find_first_of("123456789") == std::string::npos)
        text.erase(0, 1);
    return text;
}

/// The double nearest to `value` in so many significant digits.
double rounded(double value, int digits) {
    return machineNumber(fmt::format("{:.{}e}", value, digits - 1)).value_or(value);
}

} // namespace

std::string fixed(double value, int decimals) {
    if (!std::isfinite(value)) return "–";
    return grouped(withoutMinusZero(fmt::format("{:.{}f}", value, std::max(0, decimals))));
}

std::string significant(double value, int digits) {
    if (!std::isfinite(value)) return "–";
    if (value == 0) return "0";
    // Round in scientific notation first: 9999.7 has its decimal exponent only after rounding.
    const double shown = rounded(value, digits);
    const int exponent = static_cast<int>(std::floor(std::log10(std::abs(shown)) + 1e-12));
    return fixed(shown, digits - 1 - exponent);
}

std::string shortest(double value) {
    if (!std::isfinite(value)) return "–";
    const double shown = rounded(value, 12);
    if (shown != 0 && (std::abs(shown) >= 1e15 || std::abs(shown) < 1e-6)) return fmt::format("{}", shown);
    // More decimals than 12 significant digits would show binary dust.
    const int exponent = shown == 0 ? 0 : static_cast<int>(std::floor(std::log10(std::abs(shown))));
    std::string text = fmt::format("{:.{}f}", shown, std::clamp(11 - exponent, 0, 17));
    if (text.find('.') != std::string::npos) {
        text.erase(text.find_last_not_of('0') + 1);
        if (text.back() == '.') text.pop_back();
    }
    return withoutMinusZero(text);
}

double tidy(double value) { return std::isfinite(value) ? rounded(value, 15) : value; }

std::string withUnit(double si, const Unit& unit, int digits) {
    auto text = significant(unit.fromSi(si), digits);
    return unit.symbol.empty() ? text : text + " " + std::string(unit.symbol);
}

std::string asEntered(double si, const Unit& unit) {
    auto text = shortest(unit.fromSi(si));
    return unit.symbol.empty() ? text : text + " " + std::string(unit.symbol);
}

std::string briefly(double si, const Unit& unit) {
    const auto text = shortest(unit.fromSi(si));
    const auto first = text.find_first_of("123456789");
    if (first == std::string::npos) return asEntered(si, unit);
    auto digits = std::count_if(text.begin() + static_cast<std::ptrdiff_t>(first), text.end(),
                                [](char c) { return c >= '0' && c <= '9'; });
    if (text.find('.') == std::string::npos) // zeros at the end of a whole number say nothing
        digits -= static_cast<std::ptrdiff_t>(text.size() - 1 - text.find_last_not_of('0'));
    return digits <= resultDigits ? asEntered(si, unit) : withUnit(si, unit);
}

std::string atStep(double value, double step) {
    if (!(step > 0)) return significant(value);
    const int decimals = std::clamp(static_cast<int>(-std::floor(std::log10(step) + 1e-9)), 0, 9);
    const double power = std::pow(10.0, decimals), rounded = std::round(value * power) / power;
    return fixed(rounded == 0 ? 0 : rounded, decimals); // never "-0.0"
}

std::string percent(double share) {
    const double p = share * 100;
    return fixed(p, std::abs(p) < 9.95 ? 1 : 0) + " %";
}

} // namespace anvil::quantity
