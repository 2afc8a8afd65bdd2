// The records a tape is made of; docs/file-format.md has their layout.
#pragma once

#include <anvil/store/tape.h>

namespace anvil::store::tape {

/// What the name of a tape's sides has after the project's.
inline constexpr const char* suffix = "-tape-";

/// `number`: counts the headers of a tape; the last one holds.
void addHeader(std::string& to, const TapeHeader& header, int number);
/// `first`: samples of the stream before these; `others`: further channels each of them has.
void addSamples(std::string& to, std::size_t stream, std::size_t first, std::size_t others,
                std::span<const rig::Sample> samples);

} // namespace anvil::store::tape
