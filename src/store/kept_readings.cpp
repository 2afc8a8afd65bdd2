// Readings kept beside the samples they were made of: a cache, thrown away wherever there is a doubt.
#include "chunks.h"
#include "project_private.h"
#include "reading_bytes.h"
#include "samples.h"

namespace anvil::store {

Expected<std::map<Id, QString>> Project::finishedCurves() const {
    std::map<Id, QString> out;
    // What was recorded beside a curve has a part in its reading and none in its digest.
    auto ok = each(d->reader(),
                   "SELECT id, digest FROM curve WHERE digest <> '' AND beside IS NULL AND id NOT IN (SELECT "
                   "beside FROM curve WHERE beside IS NOT NULL)",
                   {}, [&](const Query& q) { out.emplace_hint(out.end(), q.id(0), q.string(1)); });
    if (!ok) return tl::unexpected(ok.error());
    return out;
}

std::vector<KeptReading> Project::keptReadings() const {
    std::vector<KeptReading> out;
    (void)each(
        d->reader(),
        "SELECT r.curve, r.digest, r.checksum, r.data FROM reading r JOIN curve c ON c.id = r.curve WHERE "
        "r.reader = ? AND r.digest = c.digest",
        {curve::readerVersion}, [&](const Query& q) {
            const auto bytes = q.bytes(3);
            if (checksum(bytes) != q.id(2)) return;
            if (auto got = readingFrom(bytes))
                out.push_back({q.id(0), q.string(1), got->settings, std::move(got->reading)});
        });
    return out;
}

void Project::keepReadings(std::vector<KeptReading> readings) {
    if (d->readOnly || readings.empty()) return;
    d->writer->post([name = d->writeName, all = std::move(readings)] {
        auto db = QSqlDatabase::database(name, false);
        if (!db.transaction()) return;
        bool ok = true;
        for (const auto& r : all) {
            const auto bytes = toBytes(r.settings, r.reading);
            QSqlQuery q(db);
            ok = ok &&
                 q.prepare("INSERT OR REPLACE INTO reading (curve, digest, reader, checksum, data) VALUES "
                           "(?, ?, ?, ?, ?)");
            for (const QVariant& v :
                 {QVariant(static_cast<qlonglong>(r.curve)), QVariant(r.digest),
                  QVariant(curve::readerVersion), QVariant(checksum(bytes)), QVariant(bytes)})
                q.addBindValue(v);
            ok = ok && q.exec();
        }
        if (!ok || !db.commit()) db.rollback(); // they are only made again
    });
}

void Project::dropReading(Id curve) {
    if (d->readOnly) return;
    d->writer->post([name = d->writeName, curve] {
        QSqlQuery q(QSqlDatabase::database(name, false));
        if (q.prepare("DELETE FROM reading WHERE curve = ?")) {
            q.addBindValue(static_cast<qlonglong>(curve));
            q.exec();
        }
    });
}

void Project::verifySamples(std::span<const Id> curves,
                            const std::function<bool(Id, const Expected<void>&)>& told) const {
    const auto name = uniqueName("verify");
    {
        auto db = d->openReader(name);
        for (const auto id : curves) {
            const auto digest = readSamples(db, id, [](const ChunkRow&) { return true; });
            if (!told(id, digest ? Expected<void>{} : tl::unexpected(digest.error()))) break;
        }
    }
    QSqlDatabase::removeDatabase(name);
}

} // namespace anvil::store
