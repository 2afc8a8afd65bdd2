// Files that somebody hands over.
#pragma once

#include <anvil/quantity/error.h>
#include <string>
#include <string_view>

namespace anvil::tables {

/// Most bytes of a log or table: some 15 million rows. More is better cut up by the logger.
inline constexpr long long mostTextBytes = 400'000'000;
/// Most bytes of a picture or clip kept with a pull.
inline constexpr long long mostPictureBytes = 500'000'000;

/// The bytes of a regular file. Error, a sentence without the file's name: not there, no regular file (a
/// device or pipe would be read without end), larger than `most`, or not to be read.
Expected<std::string> readFile(const std::string& path, long long most = mostTextBytes);

/// Writes a whole file, or none: beside its place under a name of its own (never through a link), every
/// write, the disk and the close checked, then put there. What stood there before stands there as long as
/// this fails. Error, a sentence with the file's name: no name, the place is a folder, a device, a pipe or a
/// link, a project lies there, or the disk takes no more.
Expected<void> writeFile(const std::string& path, std::string_view bytes);

/// Why nothing may be written there, as `writeFile` would say; empty: it may.
std::string whyNotThere(const std::string& path);

} // namespace anvil::tables
