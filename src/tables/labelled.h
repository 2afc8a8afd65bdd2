// Lines that say what they measure: "Load: 71.61 kg", "F=12.3 x=0.4", "14:05:33.050 -> 0.07".
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace anvil::tables {

/// Such a log as comma-separated values with a heading made of the labels and units, one line for each line
/// of the file so that line numbers stay; lines of another kind stay as they are and are counted later.
/// Nothing where the text is not of this kind: nine in ten of its first lines must be alike.
std::optional<std::string> fromLabelled(std::string_view text);

} // namespace anvil::tables
