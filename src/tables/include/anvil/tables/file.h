// Files that somebody hands over.
#pragma once

#include <anvil/quantity/error.h>
#include <string>

namespace anvil::tables {

/// Most bytes of a log or table: some 15 million rows. More is better cut up by the logger.
inline constexpr long long mostTextBytes = 400'000'000;
/// Most bytes of a picture or clip kept with a pull.
inline constexpr long long mostPictureBytes = 500'000'000;

/// The bytes of a regular file. Error, a sentence without the file's name: not there, no regular file (a
/// device or pipe would be read without end), larger than `most`, or not to be read.
Expected<std::string> readFile(const std::string& path, long long most = mostTextBytes);

} // namespace anvil::tables
