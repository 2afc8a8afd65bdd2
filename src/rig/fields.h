// Fields of a line as numbers.
#pragma once

#include <algorithm>
#include <anvil/columns/number.h>
#include <anvil/rig/lines.h>
#include <cmath>

namespace anvil::rig {

inline constexpr double tooLarge = 1e15; // no sensor shows this in any unit

/// A whole field as a number, with '.' or ',' for the decimals; nothing for anything else.
inline std::optional<double> numberIn(std::string_view field, char decimal) {
    if (field.size() > 63) return std::nullopt;
    const auto value = columns::readNumber(field, decimal);
    return value && std::isfinite(*value) && std::abs(*value) <= tooLarge ? value : std::nullopt;
}

/// A field under a layout; where no idle line showed the decimal mark, "12,5" is none but a decimal comma.
inline std::optional<double> valueIn(std::string_view field, const Layout& layout) {
    const auto value = numberIn(field, layout.decimal);
    const auto comma = field.find(',');
    if (value || layout.decimal != '.' || comma == std::string_view::npos || layout.columns.empty())
        return value;
    return field.size() - comma - 1 != 3 ? numberIn(field, ',') : std::nullopt; // 1,250 may be 1250
}

template <class Take> void fields(std::string_view line, char delimiter, Take take) {
    if (delimiter == ' ') {
        std::size_t at = 0;
        while (at < line.size()) {
            const auto from = line.find_first_not_of(" \t", at);
            if (from == std::string_view::npos) return;
            const auto to = std::min(line.find_first_of(" \t", from), line.size());
            take(line.substr(from, to - from));
            at = to;
        }
        return;
    }
    for (std::size_t at = 0;;) {
        const auto to = line.find(delimiter, at);
        take(line.substr(at, to == std::string_view::npos ? to : to - at));
        if (to == std::string_view::npos) return;
        at = to + 1;
    }
}

} // namespace anvil::rig
