// Reading an open project: studies, curves, files, journal.
#include "chunks.h"
#include "fields.h"
#include "project_private.h"
#include "samples.h"
#include "seal.h"
#include <QJsonDocument>
#include <anvil/curve/steady.h>
#include <anvil/domain/bounds.h>

namespace anvil::store {

namespace {

/// Reads the rows of a project into studies. After the first thing that cannot be, the rest is read for
/// nothing and the sentence stays.
class Loader {
public:
    explicit Loader(const QSqlDatabase& db) : m_db(db) {}

    Expected<std::vector<domain::StudyData>> all() {
        const Snapshot one(m_db);
        studies();
        options();
        conditions();
        specimens();
        pulls();
        attachments();
        for (std::size_t i = 0; i < m_all.size() && m_wrong.empty(); ++i)
            if (auto ok = domain::validate(m_all[i]); !ok) m_wrong = ok.error().message;
        if (!m_wrong.empty()) return fail(m_wrong);
        for (auto& s : m_all)
            s.count();
        return std::move(m_all);
    }

private:
    template <class T, class Take> void rows(const char* order, Take take) {
        if (auto ok = readAll<T>(m_db, order, take); !ok) wrong(ok.error().message);
    }
    void wrong(const std::string& what) {
        if (m_wrong.empty()) m_wrong = what;
    }
    domain::StudyData* study(Id id, const char* what) {
        for (auto& s : m_all)
            if (s.study.id == id) return &s;
        wrong("The project is damaged: " + std::string(what) + " is of study " + std::to_string(id) +
              ", which is not there.");
        return nullptr;
    }

    void studies() {
        rows<domain::Study>("position, id", [&](domain::Study s) {
            domain::StudyData data;
            data.study = std::move(s);
            m_all.push_back(std::move(data));
        });
    }
    void options() {
        rows<domain::Option>("position, id", [&](domain::Option o) {
            if (auto* s = study(o.study, "an option")) s->options.push_back(std::move(o));
        });
    }
    void conditions() {
        rows<domain::Condition>("position, id", [&](domain::Condition c) {
            if (auto* s = study(c.study, "a condition")) s->conditions.push_back(std::move(c));
        });
    }
    void specimens() {
        rows<domain::Specimen>("option, condition, replicate, id", [&](domain::Specimen piece) {
            auto* s = study(piece.study, "a piece");
            if (!s) return;
            m_studyOfPiece[piece.id] = piece.study;
            s->specimens.push_back(std::move(piece));
        });
    }
    void pulls() {
        rows<domain::Pull>("id", [&](domain::Pull p) {
            auto* s = study(m_studyOfPiece[p.specimen], "a pull");
            if (!s) return;
            m_studyOfPull[p.id] = s->study.id;
            s->pulls.push_back(std::move(p));
        });
    }
    void attachments() {
        rows<domain::Attachment>("id", [&](domain::Attachment a) {
            if (auto* s = study(m_studyOfPull[a.pull], "a picture")) s->attachments.push_back(std::move(a));
        });
    }

    QSqlDatabase m_db;
    std::vector<domain::StudyData> m_all;
    std::map<Id, Id> m_studyOfPiece, m_studyOfPull;
    std::string m_wrong;
};

} // namespace

Expected<std::vector<domain::StudyData>> loadStudies(const QSqlDatabase& db) { return Loader(db).all(); }

Expected<std::vector<domain::StudyData>> Project::load() const {
    if (!d->damage.isEmpty()) {
        const auto more = d->damage.size() - 1;
        return failText(
            QStringLiteral("%1 is damaged, so it is neither shown nor changed: %2%3 See \"anvil check\".")
                .arg(QFileInfo(d->path).fileName(), d->damage.first(),
                     more ? QStringLiteral(" And %1 more.").arg(more) : QString()));
    }
    return loadStudies(d->reader());
}

Expected<curve::Curve> Project::curve(Id id) const {
    auto out = ownSamples(id);
    if (!out) return out;
    if (out->load.empty()) return failText(QStringLiteral("There are no samples for curve %1.").arg(id));
    const auto all = curvesBeside(id);
    if (!all) return tl::unexpected(all.error());
    for (const auto beside : *all) {
        auto other = ownSamples(beside);
        if (!other) return other;
        for (auto& channel : other->others) {
            channel.values = curve::resampled(other->time, channel.values, out->time);
            if (!channel.values.empty()) out->others.push_back(std::move(channel));
        }
    }
    return out;
}

Expected<bool> Project::hasMoreChannels(Id id) const {
    Query q(
        d->reader(),
        "SELECT 1 FROM channel WHERE curve = ? AND kind = 'other' UNION SELECT 1 FROM curve WHERE beside = ?",
        {static_cast<qlonglong>(id), static_cast<qlonglong>(id)});
    const bool more = q.next();
    if (auto ok = q.done(); !ok) return tl::unexpected(ok.error());
    return more;
}

namespace {

Expected<std::vector<Id>> ids(const QSqlDatabase& db, const char* sql, const QVariantList& values = {}) {
    std::vector<Id> out;
    if (auto ok = each(db, sql, values, [&](const Query& q) { out.push_back(q.id(0)); }); !ok)
        return tl::unexpected(ok.error());
    return out;
}

} // namespace

Expected<std::vector<Id>> Project::curvesBeside(Id id) const {
    return ids(d->reader(), "SELECT id FROM curve WHERE beside = ? ORDER BY id",
               {static_cast<qlonglong>(id)});
}

Expected<curve::Curve> Project::ownSamples(Id id) const {
    curve::Curve out;
    const auto read = readSamples(d->reader(), id, [&](const ChunkRow& c) {
        putChunk(out, c.kind, c.name, c.unit, c.values);
        return true;
    });
    if (!read) return tl::unexpected(read.error());
    return out;
}

Expected<std::vector<SetupRow>> Project::setups() const {
    std::vector<SetupRow> out;
    if (auto ok = readAll<SetupRow>(d->reader(), "id", [&](SetupRow s) { out.push_back(std::move(s)); }); !ok)
        return tl::unexpected(ok.error());
    return out;
}

Expected<ImportedFile> Project::importedFile(Id id) const {
    Query q(d->reader(), "SELECT name, digest, bytes, data FROM file WHERE id = ?",
            {static_cast<qlonglong>(id)});
    if (q.next()) return ImportedFile{q.string(0), q.string(1), q.id(2), q.bytes(3)};
    if (auto ok = q.done(); !ok) return tl::unexpected(ok.error());
    return failText(QStringLiteral("There is no kept file %1.").arg(id));
}

Expected<std::vector<Id>> Project::importedFiles() const {
    return ids(d->reader(), "SELECT id FROM file ORDER BY id");
}

Expected<std::map<QString, Id>> Project::curveDigests() const {
    std::map<QString, Id> out; // an import that was undone leaves its samples behind; they are no repeat
    if (auto ok = each(d->reader(), "SELECT digest, id FROM curve WHERE id IN (SELECT curve FROM pull)", {},
                       [&](const Query& q) { out[q.string(0)] = q.id(1); });
        !ok)
        return tl::unexpected(ok.error());
    return out;
}

namespace {

/// Reads journal rows whose seals hold.
Expected<std::vector<JournalEntry>> entries(const QSqlDatabase& db, const QString& which,
                                            const QVariantList& values) {
    std::vector<JournalEntry> out;
    bool sound = true;
    const auto read = each(
        db,
        "SELECT j.id, j.at, j.who, j.what, j.undoes, j.changes, s.checksum FROM journal j LEFT JOIN seal "
        "s ON s.of = 'journal' AND s.row = j.id " +
            which,
        values, [&](const Query& q) {
            sound = sound && q.id(6) == sealOf(q.row(), 0, 6);
            out.push_back({q.id(0), q.id(4), q.string(1), q.string(2), q.string(3),
                           QJsonDocument::fromJson(q.bytes(5)).array()});
        });
    if (!read) return tl::unexpected(read.error());
    if (!sound) return fail("The journal is damaged: an entry is not as it was written.");
    return out;
}

} // namespace

Expected<std::vector<JournalEntry>> Project::journal(int most) const {
    return entries(d->reader(), "ORDER BY j.id DESC LIMIT ?", {most});
}

Expected<JournalEntry> Project::journalEntry(Id id) const {
    auto found = entries(d->reader(), "WHERE j.id = ?", {static_cast<qlonglong>(id)});
    if (!found) return tl::unexpected(found.error());
    if (found->empty()) return failText(QStringLiteral("The journal has no entry %1.").arg(id));
    return std::move(found->front());
}

QString Project::lastChange() const {
    Query q(d->reader(), "SELECT at FROM journal ORDER BY id DESC LIMIT 1");
    return q.next() ? q.string(0) : QString();
}

std::vector<JournalEntry> Project::historyOfPull(Id pull, int most) const {
    // As a writer's change is laid down; parsing an import of thousands of pulls for one would take too long.
    const auto touched = QStringLiteral("\"id\":%1,\"table\":\"pull\"}").arg(pull);
    std::vector<JournalEntry> out;
    (void)each(
        d->reader(),
        "SELECT id, at, who, what, undoes FROM journal WHERE instr(changes, ?) > 0 ORDER BY id DESC LIMIT ?",
        {touched, most}, [&](const Query& q) {
            out.push_back({q.id(0), q.id(4), q.string(1), q.string(2), q.string(3), {}});
        });
    return out;
}

} // namespace anvil::store
