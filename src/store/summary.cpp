// Reading the samples of a curve through, without keeping them.
#include "chunks.h"
#include "project_private.h"
#include "samples.h"

namespace anvil::store {

Expected<CurveSummary> summarizeOne(const QSqlDatabase& db, Id id) {
    CurveSummary out{id, 0, 0, 0, {}, {}};
    curve::Pyramid::Builder pyramid;
    qlonglong channel = -1;
    auto read = readSamples(db, id, [&](const ChunkRow& c) {
        if (c.channel != channel) {
            channel = c.channel;
            ++out.channels;
            out.samples = 0;
        }
        ++out.chunks;
        out.samples += c.values.size();
        if (c.kind == QLatin1String("force")) pyramid.add(c.values);
        return true;
    });
    if (!read) return tl::unexpected(read.error());
    out.digest = std::move(*read);
    out.pyramid = pyramid.done();
    return out;
}

Expected<std::vector<CurveSummary>> Project::summarize(Id curve) const {
    const auto name = uniqueName("read");
    auto out = [&]() -> Expected<std::vector<CurveSummary>> {
        auto db = d->openReader(name);
        std::vector<Id> ids{curve};
        if (auto ok = each(db, "SELECT id FROM curve WHERE beside = ? ORDER BY id",
                           {static_cast<qlonglong>(curve)}, [&](const Query& q) { ids.push_back(q.id(0)); });
            !ok)
            return tl::unexpected(ok.error());
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
