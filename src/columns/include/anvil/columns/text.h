// Fields of a line and words of a field, in any alphabet.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace anvil::columns {

/// Without blanks around it and, if it has them, without its quotes.
std::string_view trimmed(std::string_view field);
/// Whether it has no byte above 127; eight bytes at a time: logs of 100 MB are common.
bool isAscii(std::string_view text);
/// Lower case, in any alphabet.
std::string lowered(std::string_view text);
/// Letters with their accents as one character each (Unicode's composed form), so that names typed on two
/// machines are one.
std::string composed(std::string_view text);
/// The beginning of a text, of at most so many bytes and never cut within a character.
std::string_view shortened(std::string_view text, std::size_t most);

/// Splits one line at a delimiter; ' ' stands for any run of blanks. Fields in double quotes may hold the
/// delimiter, and "" is a quote.
std::vector<std::string> splitFields(std::string_view line, char delimiter);

} // namespace anvil::columns
