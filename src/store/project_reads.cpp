// Reading an open project: studies, curves, files, journal.
#include "chunks.h"
#include "json_fields.h"
#include "json_rows.h"
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
    template <class Row> void rows(const char* sql, Row row) {
        if (auto ok = each(m_db, sql, {}, row); !ok) wrong(ok.error().message);
    }
    void wrong(const std::string& what) {
        if (m_wrong.empty()) m_wrong = what;
    }
    template <class T> T taken(Expected<T> value) {
        if (value) return std::move(*value);
        wrong(value.error().message);
        return {};
    }
    /// What a word in the file stands for.
    template <class T> T meant(const std::optional<T>& value, const char* what, const QString& word) {
        if (!value)
            wrong("The project is damaged: there is no " + std::string(what) + " \"" + word.toStdString() +
                  "\".");
        return value.value_or(T{});
    }
    domain::StudyData* study(Id id, const char* what) {
        for (auto& s : m_all)
            if (s.study.id == id) return &s;
        wrong("The project is damaged: " + std::string(what) + " is of study " + std::to_string(id) +
              ", which is not there.");
        return nullptr;
    }

    void studies() {
        rows("SELECT id, position, title, question, intent, metric, margin, note, plan FROM study ORDER BY "
             "position, id",
             [&](const Query& q) {
                 domain::StudyData s;
                 auto stored = taken(planFromJson(q.string(8)));
                 stored.goal.metric =
                     meant(domain::metricFromKey(q.text(5), stored.plan.method), "metric", q.string(5));
                 stored.goal.margin = q.number(6).value_or(0);
                 s.study = {q.id(0),
                            q.integer(1),
                            q.text(2),
                            q.text(3),
                            q.text(7),
                            meant(domain::intentFromKey(q.text(4)), "intent", q.string(4)),
                            std::move(stored.goal),
                            std::move(stored.plan),
                            std::move(stored.card),
                            std::move(stored.telling)};
                 m_all.push_back(std::move(s));
             });
    }
    void options() {
        rows("SELECT id, study, position, name, kind, currency, note, unit_cost, weight_kg, rating_n, "
             "rating_basis, grade, geometry FROM option ORDER BY position, id",
             [&](const Query& q) {
                 if (auto* s = study(q.id(1), "an option"))
                     s->options.push_back({q.id(0), q.id(1), q.integer(2), q.text(3), q.text(4), q.text(5),
                                           q.text(6), q.number(7), q.number(8), q.number(9), q.text(10),
                                           q.text(11), q.text(12)});
             });
    }
    /// What a condition sets.
    std::vector<std::string> levels(const QString& json) {
        JsonTrouble trouble;
        std::vector<std::string> out;
        for (const auto& v : jsonList(json, trouble))
            if (auto text = QString::fromStdString(jsonText(v, trouble)).trimmed(); !text.isEmpty())
                out.push_back(text.toStdString());
        if (auto ok = trouble.done("A condition"); !ok) wrong(ok.error().message);
        return out;
    }
    void conditions() {
        rows("SELECT id, study, position, name, note, value, levels FROM condition ORDER BY position, id",
             [&](const Query& q) {
                 if (auto* s = study(q.id(1), "a condition"))
                     s->conditions.push_back({q.id(0), q.id(1), q.integer(2), q.text(3), q.text(4),
                                              q.number(5), levels(q.string(6))});
             });
    }
    void specimens() {
        rows("SELECT id, study, option, condition, replicate, label, note, batch, block, measured, history, "
             "x_m, y_m FROM specimen ORDER BY option, condition, replicate, id",
             [&](const Query& q) {
                 auto* s = study(q.id(1), "a piece");
                 if (!s) return;
                 auto piece = taken(pieceFromJson(q.string(9)));
                 s->specimens.push_back({q.id(0), q.id(1), q.id(2), q.id(3), q.integer(4), q.text(5),
                                         q.text(6), q.text(7), q.text(8), std::move(piece.measured),
                                         q.text(10), q.number(11), q.number(12), std::move(piece.inputs)});
                 m_studyOfPiece[q.id(0)] = q.id(1);
             });
    }
    void pulls() {
        rows("SELECT id, specimen, curve, performed_at, source_name, note, reason, standing, "
             "looked, metric, value, upper, as_typed, reading, operator, setup, outcome, recording, practice"
             " FROM pull ORDER BY id",
             [&](const Query& q) {
                 auto* s = study(m_studyOfPiece[q.id(1)], "a pull");
                 if (!s) return;
                 s->pulls.push_back(pull(q));
                 m_studyOfPull[q.id(0)] = s->study.id;
             });
    }
    domain::Pull pull(const Query& q) {
        domain::Pull p;
        p.id = q.id(0);
        p.specimen = q.id(1);
        p.curve = q.id(2);
        p.performedAt = q.text(3);
        p.sourceName = q.text(4);
        p.note = q.text(5);
        p.reason = q.text(6);
        p.standing = meant(domain::standingFromKey(q.text(7)), "standing", q.string(7));
        p.looked = q.integer(8) != 0;
        if (!q.null(10))
            p.typed = domain::TypedValue{meant(domain::metricFromKey(q.text(9)), "metric", q.string(9)),
                                         q.number(10).value_or(0), q.number(11).value_or(0), q.text(12)};
        p.settings = taken(settingsFromJson(q.string(13)));
        p.operatorName = q.text(14);
        p.setup = q.id(15);
        p.outcome = taken(outcomeFromJson(q.string(16)));
        p.recording = meant(domain::recordingFromKey(q.text(17)), "state of a recording", q.string(17));
        p.practice = q.integer(18) != 0;
        return p;
    }
    void attachments() {
        rows("SELECT id, pull, at_s, name, file, marks FROM attachment ORDER BY id", [&](const Query& q) {
            auto* s = study(m_studyOfPull[q.id(1)], "a picture");
            if (!s) return;
            auto marks = marksFromJson(q.string(5));
            if (!marks) return wrong(marks.error().message);
            s->attachments.push_back({q.id(0), q.id(1), q.id(4), q.number(2), q.text(3), std::move(*marks)});
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
    if (out->force.empty()) return failText(QStringLiteral("There are no samples for curve %1.").arg(id));
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
    if (auto ok = each(d->reader(), "SELECT id, rig, version, made_at, setup FROM setup ORDER BY id", {},
                       [&](const Query& q) {
                           out.push_back({q.id(0), q.string(1), q.integer(2), q.string(3), q.string(4)});
                       });
        !ok)
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
