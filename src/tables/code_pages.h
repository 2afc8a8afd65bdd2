// Text in one of the code pages from before Unicode: which one, by the words of a heading that come out
// right.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace anvil::tables {

/// Bytes that are no UTF-8 as text, and the name of their code page. The Western European one where no other
/// makes a word of a heading (load, time, way …) in a language that is written in it.
struct Decoded {
    std::string text, encoding;
};
Decoded fromCodePage(std::string_view bytes);

/// UTF-32 with or without mark; nothing where it is none.
std::optional<std::string> fromUtf32(std::string_view bytes);

/// Appends a character in UTF-8.
void appendUtf8(std::string& out, char32_t c);

} // namespace anvil::tables
