// Reading an open project: studies, curves, files, journal.
#include "project_private.h"
#include "samples.h"
#include <QJsonDocument>
#include <anvil/curve/steady.h>

namespace anvil::store {

Expected<std::vector<study::StudyData>> Project::load() const {
    auto db = d->reader();
    std::vector<study::StudyData> all;
    const auto text = [](const QVariant& v) { return v.toString().toStdString(); };
    const auto number = [](const QVariant& v) {
        return v.isNull() ? std::nullopt : std::optional(v.toDouble());
    };
    const auto in = [&](Id id) -> study::StudyData* {
        for (auto& s : all)
            if (s.study.id == id) return &s;
        return nullptr;
    };
    QSqlQuery q(db);
    q.setForwardOnly(true);
    if (!q.exec("SELECT id, position, title, question, intent, metric, margin, note, plan FROM study "
                "ORDER BY position, id"))
        return failText(QStringLiteral("The project cannot be read: %1.").arg(q.lastError().text()));
    while (q.next()) {
        study::StudyData s;
        const auto intent = q.value(4).toString();
        s.study = {q.value(0).toLongLong(),
                   q.value(1).toInt(),
                   text(q.value(2)),
                   text(q.value(3)),
                   text(q.value(7)),
                   intent == "exploratory" ? study::Intent::exploratory
                   : intent == "as_used"   ? study::Intent::asUsed
                                           : study::Intent::controlled,
                   study::metricFromKey(text(q.value(5))).value_or(study::Metric::peak),
                   q.value(6).toDouble(),
                   planFromJson(q.value(8).toString())};
        all.push_back(std::move(s));
    }
    q.exec("SELECT id, study, position, name, kind, currency, note, unit_cost, weight_kg, rating_n, "
           "rating_basis, grade, geometry FROM option ORDER BY position, id");
    while (q.next())
        if (auto* s = in(q.value(1).toLongLong()))
            s->options.push_back({q.value(0).toLongLong(), q.value(1).toLongLong(), q.value(2).toInt(),
                                  text(q.value(3)), text(q.value(4)), text(q.value(5)), text(q.value(6)),
                                  number(q.value(7)), number(q.value(8)), number(q.value(9)),
                                  text(q.value(10)), text(q.value(11)), text(q.value(12))});
    q.exec("SELECT id, study, position, name, note, value FROM condition ORDER BY position, id");
    while (q.next())
        if (auto* s = in(q.value(1).toLongLong()))
            s->conditions.push_back({q.value(0).toLongLong(), q.value(1).toLongLong(), q.value(2).toInt(),
                                     text(q.value(3)), text(q.value(4)), number(q.value(5))});
    q.exec("SELECT id, study, option, condition, replicate, label, note, batch, block, measured, history, "
           "x_m, y_m FROM "
           "specimen ORDER BY option, condition, replicate, id");
    std::map<Id, Id> studyOf, studyOfPull;
    while (q.next())
        if (auto* s = in(q.value(1).toLongLong())) {
            s->specimens.push_back({q.value(0).toLongLong(), q.value(1).toLongLong(), q.value(2).toLongLong(),
                                    q.value(3).toLongLong(), q.value(4).toInt(), text(q.value(5)),
                                    text(q.value(6)), text(q.value(7)), text(q.value(8)),
                                    measuredFromJson(q.value(9).toString()), text(q.value(10)),
                                    number(q.value(11)), number(q.value(12))});
            studyOf[q.value(0).toLongLong()] = q.value(1).toLongLong();
        }
    q.exec("SELECT id, specimen, curve, performed_at, source_name, what_broke, note, reason, standing, "
           "looked, metric, value, upper, as_typed, reading, operator, setup, outcome, recording, practice"
           " FROM pull ORDER BY id");
    while (q.next()) {
        study::Pull p;
        p.id = q.value(0).toLongLong();
        p.specimen = q.value(1).toLongLong();
        p.curve = q.value(2).toLongLong();
        p.performedAt = text(q.value(3));
        p.sourceName = text(q.value(4));
        p.whatBroke = text(q.value(5));
        p.note = text(q.value(6));
        p.reason = text(q.value(7));
        p.standing = study::standingFromKey(text(q.value(8))).value_or(study::Standing::notRead);
        p.looked = q.value(9).toBool();
        if (!q.value(11).isNull())
            p.typed = study::TypedValue{study::metricFromKey(text(q.value(10))).value_or(study::Metric::peak),
                                        q.value(11).toDouble(), q.value(12).toDouble(), text(q.value(13))};
        p.settings = settingsFromJson(q.value(14).toString());
        p.operatorName = text(q.value(15));
        p.setup = q.value(16).toLongLong();
        p.outcome = outcomeFromJson(q.value(17).toString());
        p.recording = q.value(18).toString() == "interrupted" ? study::Recording::interrupted
                      : q.value(18).toString() == "running"   ? study::Recording::running
                                                              : study::Recording::done;
        p.practice = q.value(19).toBool();
        studyOfPull[p.id] = studyOf[p.specimen];
        if (auto* s = in(studyOf[p.specimen])) s->pulls.push_back(std::move(p));
    }
    q.exec("SELECT id, pull, at_s, name, file FROM attachment ORDER BY id");
    while (q.next()) {
        study::Attachment a;
        a.id = q.value(0).toLongLong();
        a.pull = q.value(1).toLongLong();
        if (!q.value(2).isNull()) a.at = q.value(2).toDouble();
        a.name = text(q.value(3));
        a.file = q.value(4).toLongLong();
        if (auto* s = in(studyOfPull[a.pull])) s->attachments.push_back(std::move(a));
    }
    return all;
}

Expected<curve::Curve> Project::curve(Id id) const {
    auto out = ownSamples(id);
    if (!out) return out;
    if (out->force.empty()) return failText(QStringLiteral("There are no samples for curve %1.").arg(id));
    for (const auto beside : curvesBeside(id)) {
        auto other = ownSamples(beside);
        if (!other) return other;
        for (auto& channel : other->others) {
            channel.values = curve::resampled(other->time, channel.values, out->time);
            if (!channel.values.empty()) out->others.push_back(std::move(channel));
        }
    }
    return out;
}

bool Project::hasMoreChannels(Id id) const {
    auto db = d->reader();
    QSqlQuery q(db);
    q.prepare("SELECT 1 FROM channel WHERE curve = ? AND kind = 'other' UNION SELECT 1 FROM curve WHERE "
              "beside = ?");
    q.addBindValue(static_cast<qlonglong>(id));
    q.addBindValue(static_cast<qlonglong>(id));
    return q.exec() && q.next();
}

std::vector<Id> Project::curvesBeside(Id id) const {
    auto db = d->reader();
    QSqlQuery q(db);
    q.prepare("SELECT id FROM curve WHERE beside = ? ORDER BY id");
    q.addBindValue(static_cast<qlonglong>(id));
    std::vector<Id> out;
    if (q.exec())
        while (q.next())
            out.push_back(q.value(0).toLongLong());
    return out;
}

Expected<curve::Curve> Project::ownSamples(Id id) const {
    auto db = d->reader();
    QSqlQuery q(db);
    q.setForwardOnly(true);
    q.prepare(
        "SELECT c.kind, k.data, k.checksum, k.samples, c.name, c.unit FROM channel c JOIN chunk k ON k.curve "
        "= c.curve AND k.channel = c.number WHERE c.curve = ? ORDER BY c.number, k.sequence");
    q.addBindValue(static_cast<qlonglong>(id));
    if (!q.exec())
        return failText(
            QStringLiteral("The samples of curve %1 cannot be read (%2).").arg(id).arg(q.lastError().text()));
    curve::Curve out;
    while (q.next()) {
        const auto kind = q.value(0).toString(), name = q.value(4).toString();
        const auto data = q.value(1).toByteArray();
        if (checksum(data) != q.value(2).toLongLong() || data.size() != q.value(3).toLongLong() * 8 ||
            !putChunk(out, kind, name, q.value(5).toString(), data))
            return failText(QStringLiteral("A stretch of %1 samples of curve %2 is damaged (checksum).")
                                .arg(name.isEmpty() ? kind : name)
                                .arg(id));
    }
    return out;
}

std::vector<SetupRow> Project::setups() const {
    auto db = d->reader();
    std::vector<SetupRow> out;
    QSqlQuery q(db);
    q.exec("SELECT id, rig, version, made_at, setup FROM setup ORDER BY id");
    while (q.next())
        out.push_back({q.value(0).toLongLong(), q.value(1).toString(), q.value(2).toInt(),
                       q.value(3).toString(), q.value(4).toString()});
    return out;
}

Expected<ImportedFile> Project::importedFile(Id id) const {
    auto db = d->reader();
    QSqlQuery q(db);
    q.prepare("SELECT name, digest, bytes, data FROM file WHERE id = ?");
    q.addBindValue(static_cast<qlonglong>(id));
    if (!q.exec() || !q.next()) return failText(QStringLiteral("There is no kept file %1.").arg(id));
    return ImportedFile{q.value(0).toString(), q.value(1).toString(), q.value(2).toLongLong(),
                        q.value(3).toByteArray()};
}

std::vector<Id> Project::importedFiles() const {
    auto db = d->reader();
    std::vector<Id> out;
    QSqlQuery q(db);
    q.exec("SELECT id FROM file ORDER BY id");
    while (q.next())
        out.push_back(q.value(0).toLongLong());
    return out;
}

std::map<QString, Id> Project::curveDigests() const {
    auto db = d->reader();
    std::map<QString, Id> out;
    QSqlQuery q(db); // an import that was undone leaves its samples behind; they are no repeat
    q.exec("SELECT digest, id FROM curve WHERE id IN (SELECT curve FROM pull)");
    while (q.next())
        out[q.value(0).toString()] = q.value(1).toLongLong();
    return out;
}

namespace {
JournalEntry entryFrom(const QSqlQuery& q) {
    return {q.value(0).toLongLong(), q.value(4).toLongLong(),
            q.value(1).toString(),   q.value(2).toString(),
            q.value(3).toString(),   QJsonDocument::fromJson(q.value(5).toByteArray()).array()};
}
} // namespace

std::vector<JournalEntry> Project::journal(int most) const {
    auto db = d->reader();
    std::vector<JournalEntry> out;
    QSqlQuery q(db);
    q.prepare("SELECT id, at, who, what, undoes, changes FROM journal ORDER BY id DESC LIMIT ?");
    q.addBindValue(most);
    q.exec();
    while (q.next())
        out.push_back(entryFrom(q));
    return out;
}

Expected<JournalEntry> Project::journalEntry(Id id) const {
    auto db = d->reader();
    QSqlQuery q(db);
    q.prepare("SELECT id, at, who, what, undoes, changes FROM journal WHERE id = ?");
    q.addBindValue(static_cast<qlonglong>(id));
    if (!q.exec() || !q.next()) return failText(QStringLiteral("The journal has no entry %1.").arg(id));
    return entryFrom(q);
}

} // namespace anvil::store
