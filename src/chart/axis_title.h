// The title of an axis.
#pragma once

#include <anvil/quantity/unit.h>
#include <string>
#include <string_view>

namespace anvil::chart {

/// "Peak force (N)"; of a plain number only its name.
inline std::string axisTitle(std::string_view title, std::string_view symbol) {
    return symbol.empty() ? std::string(title) : std::string(title) + " (" + std::string(symbol) + ")";
}

} // namespace anvil::chart
