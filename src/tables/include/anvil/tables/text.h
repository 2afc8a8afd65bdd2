// Bytes → text → lines → fields.
#pragma once

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

/// Splits one line at a delimiter; ' ' stands for any run of blanks. Fields in double quotes may hold the
/// delimiter, and "" is a quote.
std::vector<std::string> splitFields(std::string_view line, char delimiter);

/// The beginning of a text, of at most so many bytes and never cut within a character.
std::string_view shortened(std::string_view text, std::size_t most);
/// A text with a ' before it where a spreadsheet would take it for a formula: it begins, blanks apart, with
/// = + - @ and is no number.
std::string noFormula(std::string_view text);
/// A field of a comma-separated file: quoted where it must be, and no formula.
std::string csvField(std::string_view text);

/// Without blanks around it and, if it has them, without its quotes.
std::string_view trimmed(std::string_view field);

/// Lower case, in any alphabet.
std::string lowered(std::string_view text);
/// Letters with their accents as one character each (Unicode's composed form), so that names typed on two
/// machines are one.
std::string composed(std::string_view text);

/// Lines without their ends (LF, CRLF or CR).
std::vector<std::string_view> splitLines(std::string_view text,
                                         std::size_t most = static_cast<std::size_t>(-1));

} // namespace anvil::tables
