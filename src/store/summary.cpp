// Reading the samples of a curve through, without keeping them.
#include "project_private.h"
#include "samples.h"

namespace anvil::store {

Expected<CurveSummary> summarizeOne(QSqlDatabase& db, Id id) {
    CurveSummary out{id, 0, 0, 0, {}, {}};
    QSqlQuery q(db);
    q.setForwardOnly(true);
    q.prepare("SELECT c.number, c.kind, c.name, k.data, k.checksum, k.samples FROM channel c JOIN chunk k ON "
              "k.curve = "
              "c.curve AND k.channel = c.number WHERE c.curve = ? ORDER BY c.number, k.sequence");
    q.addBindValue(static_cast<qlonglong>(id));
    if (!q.exec())
        return failText(
            QStringLiteral("The samples of curve %1 cannot be read (%2).").arg(id).arg(q.lastError().text()));
    SamplesDigest digest;
    curve::Pyramid::Builder pyramid;
    std::vector<double> values;
    qlonglong channel = -1;
    while (q.next()) {
        const auto kind = q.value(1).toString(), name = q.value(2).toString();
        const auto data = q.value(3).toByteArray();
        values.clear();
        if (checksum(data) != q.value(4).toLongLong() || data.size() != q.value(5).toLongLong() * 8 ||
            !unpack(data, values))
            return failText(QStringLiteral("A stretch of %1 samples of curve %2 is damaged (checksum).")
                                .arg(name.isEmpty() ? kind : name)
                                .arg(id));
        if (q.value(0).toLongLong() != channel) {
            channel = q.value(0).toLongLong();
            ++out.channels;
            out.samples = 0;
            digest.channel(kind.toStdString(), name.toStdString());
        }
        ++out.chunks;
        out.samples += values.size();
        digest.values(data.constData(), static_cast<std::size_t>(data.size()));
        if (kind == QLatin1String("force")) pyramid.add(values);
    }
    if (out.samples > 0) out.digest = digest.done();
    out.pyramid = pyramid.done();
    return out;
}

Expected<std::vector<CurveSummary>> Project::summarize(Id curve) const {
    const auto name = uniqueName("read");
    auto out = [&]() -> Expected<std::vector<CurveSummary>> {
        auto db = d->openReader(name);
        std::vector<Id> ids{curve};
        QSqlQuery q(db);
        q.exec(QStringLiteral("SELECT id FROM curve WHERE beside = %1 ORDER BY id").arg(curve));
        while (q.next())
            ids.push_back(q.value(0).toLongLong());
        std::vector<CurveSummary> all;
        for (const auto id : ids) {
            auto one = summarizeOne(db, id);
            if (!one) return tl::unexpected(one.error());
            all.push_back(std::move(*one));
        }
        return all;
    }();
    QSqlDatabase::removeDatabase(name);
    return out;
}

} // namespace anvil::store
