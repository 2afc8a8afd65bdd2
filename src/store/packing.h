// Samples of one chunk as they are laid down on the disk: packed without loss, each chunk by itself.
#pragma once

#include <QByteArray>
#include <functional>
#include <span>
#include <vector>

namespace anvil::store {

/// How a chunk's data are packed; the number stored beside them.
enum class Packing : int {
    plain = 0,    ///< float64 as they lie in memory
    shuffled = 1, ///< the first bytes of all samples, then the second …, as a zstd frame
    decimals = 2  ///< whole numbers k of samples k / 10^d · factor, by their differences; see packing.cpp
};

struct PackedChunk {
    Packing packing = Packing::plain;
    QByteArray data;
};

/// Makes a frame of bytes; false where it cannot.
using Compress = std::function<bool(std::vector<char>& frame, std::span<const char> bytes)>;
bool zstdFrame(std::vector<char>& frame, std::span<const char> bytes);

/// Packs samples the way that suits them: as decimals where a logger wrote some, else shuffled; plain where
/// neither makes them smaller or nothing can be compressed. What comes out of `unpacked` is the same to the
/// last bit.
PackedChunk packed(std::span<const double> values, const Compress& compress = zstdFrame);

/// Appends what was packed, `samples` of them. False where the data are no such thing.
bool unpacked(Packing packing, const QByteArray& data, std::size_t samples, std::vector<double>& to);

} // namespace anvil::store
