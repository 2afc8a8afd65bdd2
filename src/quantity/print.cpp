#include <anvil/quantity/print.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
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

} // namespace

std::string fixed(double value, int decimals) {
    if (!std::isfinite(value)) return "–";
    return grouped(withoutMinusZero(fmt::format("{:.{}f}", value, std::max(0, decimals))));
}

std::string significant(double value, int digits) {
    if (!std::isfinite(value)) return "–";
    if (value == 0) return "0";
    // Round in scientific notation first: 9999.7 has its decimal exponent only after rounding.
    const double rounded = std::strtod(fmt::format("{:.{}e}", value, digits - 1).c_str(), nullptr);
    const int exponent = static_cast<int>(std::floor(std::log10(std::abs(rounded)) + 1e-12));
    return fixed(rounded, digits - 1 - exponent);
}

std::string shortest(double value) {
    if (!std::isfinite(value)) return "–";
    const double rounded = std::strtod(fmt::format("{:.11e}", value).c_str(), nullptr);
    if (rounded != 0 && (std::abs(rounded) >= 1e15 || std::abs(rounded) < 1e-6))
        return fmt::format("{}", rounded);
    // More decimals than 12 significant digits would show binary dust.
    const int exponent = rounded == 0 ? 0 : static_cast<int>(std::floor(std::log10(std::abs(rounded))));
    std::string text = fmt::format("{:.{}f}", rounded, std::clamp(11 - exponent, 0, 17));
    if (text.find('.') != std::string::npos) {
        text.erase(text.find_last_not_of('0') + 1);
        if (text.back() == '.') text.pop_back();
    }
    return withoutMinusZero(text);
}

double tidy(double value) {
    return std::isfinite(value) ? std::strtod(fmt::format("{:.14e}", value).c_str(), nullptr) : value;
}

std::string withUnit(double si, const Unit& unit, int digits) {
    auto text = significant(unit.fromSi(si), digits);
    return unit.symbol.empty() ? text : text + " " + std::string(unit.symbol);
}

std::string asEntered(double si, const Unit& unit) {
    auto text = shortest(unit.fromSi(si));
    return unit.symbol.empty() ? text : text + " " + std::string(unit.symbol);
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
