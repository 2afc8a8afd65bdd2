// Samples as stored: little-endian float64 in checksummed chunks.
#pragma once

#include <QByteArray>
#include <anvil/curve/curve.h>
#include <span>
#include <tuple>
#include <vector>

namespace anvil::store {

inline constexpr std::size_t samplesPerChunk = 131072; // 1 MiB a chunk

struct ChannelView {
    const char* kind;
    const char* unit;
    const std::vector<double>* values;
};
std::vector<ChannelView> channelsOf(const curve::Curve& curve);

/// The bytes of the values where they lie: not a copy.
QByteArray pack(std::span<const double> values);
bool unpack(const QByteArray& data, std::vector<double>& to); ///< false when the size is no multiple of 8
qint64 checksum(const QByteArray& data);                      ///< XXH3, 64 bits

} // namespace anvil::store
