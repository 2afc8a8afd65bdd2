// Bytes → text → lines → fields.
#pragma once

#include <anvil/columns/text.h>
#include <anvil/quantity/error.h>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::tables {

/// Text as UTF-8: a view of the bytes where they already were, else a converted copy in `storage`.
struct Text {
    std::string_view view;
    std::string storage;
    std::string encoding; ///< "UTF-8", "UTF-16", "Latin-1", "Windows-1251" …

    Text() = default;
    Text(const Text&) = delete;
    Text& operator=(const Text&) = delete;
    Text(Text&&) = delete;
};

/// Decodes UTF-8 (with or without mark), UTF-16 and UTF-32 (with mark, or recognised by their zero bytes) and
/// the common code pages into `out`. Error: empty, or not text.
Expected<void> decode(std::string_view bytes, Text& out);

/// A text with a ' before it where a spreadsheet would take it for a formula: it begins, blanks apart, with
/// = + - @ and is no number.
std::string noFormula(std::string_view text);
/// A field of a comma-separated file: quoted where it must be, and no formula.
std::string csvField(std::string_view text);

/// Lines without their ends (LF, CRLF or CR).
std::vector<std::string_view> splitLines(std::string_view text,
                                         std::size_t most = static_cast<std::size_t>(-1));

} // namespace anvil::tables
