#include "chunks.h"

#include "packing.h"
#include "samples.h"
#include <anvil/domain/bounds.h>

namespace anvil::store {
namespace {

auto damaged(Id curve, const QString& how) {
    return fail(
        QStringLiteral("The samples of curve %1 are damaged (%2).").arg(curve).arg(how).toStdString());
}

/// What the curve's own row says of it.
struct CurveRow {
    qlonglong samples = 0;
    QString digest;
    int channels = 0;
};

Expected<CurveRow> rowOf(const QSqlDatabase& db, Id id) {
    Query q(
        db,
        "SELECT samples, digest, (SELECT count(*) FROM channel WHERE curve = c.id) FROM curve c WHERE id = ?",
        {static_cast<qlonglong>(id)});
    if (q.next()) {
        CurveRow row{q.id(0), q.string(1), q.integer(2)};
        if (row.samples < 0 || row.samples > domain::bounds::samples ||
            row.channels > domain::bounds::channels)
            return damaged(id,
                           QStringLiteral("%1 samples of %2 channels").arg(row.samples).arg(row.channels));
        return row;
    }
    if (auto ok = q.done(); !ok) return tl::unexpected(ok.error());
    return fail(QStringLiteral("There is no curve %1.").arg(id).toStdString());
}

} // namespace

Expected<QString> readSamples(const QSqlDatabase& db, Id curve,
                              const std::function<bool(const ChunkRow&)>& take) {
    const Snapshot one(db);
    const auto row = rowOf(db, curve);
    if (!row) return tl::unexpected(row.error());
    SamplesDigest digest;
    QString wrong;
    std::vector<double> values;
    qlonglong channel = -1, held = 0;
    int channels = 0;
    const auto endChannel = [&] {
        if (wrong.isEmpty() && channel >= 0 && held != row->samples)
            wrong = QStringLiteral("channel %1 has %2 of %3").arg(channel).arg(held).arg(row->samples);
    };
    const auto read =
        each(db,
             "SELECT c.number, c.kind, c.name, c.unit, k.data, k.checksum, k.samples, k.packing FROM channel "
             "c JOIN "
             "chunk k ON "
             "k.curve = c.curve AND k.channel = c.number WHERE c.curve = ? ORDER BY c.number, k.sequence",
             {static_cast<qlonglong>(curve)}, [&](const Query& q) {
                 if (!wrong.isEmpty()) return;
                 ChunkRow c{q.id(0), q.string(1), q.string(2), q.string(3), {}};
                 const auto name = c.name.isEmpty() ? c.kind : c.name;
                 if (c.channel != channel) {
                     endChannel();
                     channel = c.channel;
                     held = 0;
                     ++channels;
                     digest.channel(c.kind.toStdString(), c.name.toStdString());
                 }
                 const auto data = q.bytes(4);
                 const auto samples = q.id(6);
                 values.clear();
                 const bool sound = samples >= 0 && checksum(data) == q.id(5) &&
                                    unpacked(static_cast<Packing>(q.integer(7)), data,
                                             static_cast<std::size_t>(samples), values);
                 c.values = values;
                 held += samples;
                 digest.values(values.data(), values.size() * sizeof(double));
                 if (!sound || !take(c)) wrong = QStringLiteral("checksum of a stretch of %1").arg(name);
             });
    if (!read) return damaged(curve, QString::fromStdString(read.error().message).chopped(1));
    endChannel();
    if (wrong.isEmpty() && row->samples > 0 && channels != row->channels)
        wrong = QStringLiteral("%1 of %2 channels are there").arg(channels).arg(row->channels);
    auto all = row->samples > 0 ? digest.done() : QString();
    if (wrong.isEmpty() && row->samples > 0 && !row->digest.isEmpty() && all != row->digest)
        wrong = QStringLiteral("they are not those that were recorded");
    if (!wrong.isEmpty()) return damaged(curve, wrong);
    return all;
}

} // namespace anvil::store
