// The grammar of a number as people write it, and the plain characters it is written in.
#pragma once

#include <anvil/quantity/error.h>
#include <string>
#include <string_view>

namespace anvil::quantity {

/// A number found at the start of a text.
struct Number {
    double value = 0;
    int decimals = 0;    ///< digits after the decimal mark; −1 for fractions and powers of ten
    std::size_t end = 0; ///< first character after the number
    bool primes = false; ///< its groups are set apart by ' ("1'250")
};

/// The text with every typographic character the grammar knows replaced by its plain form: spaces, minus
/// signs, quotes and primes, fractions (½, 3⁄8), multiplication dots; "…" stands for every range mark.
std::string plainCharacters(std::string_view text);

/// A decimal, a fraction or a mixed number at the start of `s`: 3.25, 1/4, 3 1/4, 3-1/4, 1'250. Error: a
/// sentence, which wants a number where the text does not begin with one.
Expected<Number> numberAt(std::string_view s);

/// Without the blanks at both ends.
std::string_view trimmed(std::string_view s);

} // namespace anvil::quantity
