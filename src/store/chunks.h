// Walking the samples of a curve as they are stored.
#pragma once

#include "query.h"
#include <functional>
#include <span>

namespace anvil::store {

/// A stretch of one channel.
struct ChunkRow {
    qlonglong channel = 0;
    QString kind, name, unit;
    std::span<const double> values;
};

/// Hands out every chunk of a curve, channel by channel, in order; `take` says whether it fits. Returns
/// the digest of all, empty where there is nothing. Error, a sentence: the curve is not there, a chunk does
/// not answer to its checksum, the channels are not of the length the curve has, or all of it does not answer
/// to the curve's digest (while it is being recorded there is none yet).
Expected<QString> readSamples(const QSqlDatabase& db, Id curve,
                              const std::function<bool(const ChunkRow&)>& take);

} // namespace anvil::store
