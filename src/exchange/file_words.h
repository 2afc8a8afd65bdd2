// The words of a package for things that have keys: the key with blanks, such as "at least" for at_least.
// What a window shows may change; these may not.
#pragma once

#include <anvil/domain/model.h>
#include <optional>
#include <string>

namespace anvil::exchange {

std::string fileWord(domain::Standing standing);
std::string fileWord(domain::Limit limit);
std::string fileWord(domain::Intent intent);

/// The other way round, in any spelling of the key and in the words of earlier packages; nothing for another
/// word.
std::optional<domain::Standing> standingFrom(const std::string& text);
std::optional<domain::Limit> limitFrom(const std::string& text);
std::optional<domain::Intent> intentFrom(const std::string& text);

} // namespace anvil::exchange
