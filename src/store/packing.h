// Samples of one chunk as they are laid down on the disk: packed without loss, each chunk by itself.
#pragma once

#include <QByteArray>
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

/// Packs samples the way that suits them: as decimals where a logger wrote some, else shuffled; plain where
/// neither makes them smaller. What comes out of `unpacked` is the same to the last bit.
PackedChunk packed(std::span<const double> values);

/// Appends what was packed, `samples` of them. False where the data are no such thing.
bool unpacked(Packing packing, const QByteArray& data, std::size_t samples, std::vector<double>& to);

} // namespace anvil::store
