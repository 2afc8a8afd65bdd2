#include "samples.h"
#include <anvil/store/project.h>

#include <QSqlDatabase>
#include <QSqlError>
#include <QSqlQuery>
#include <QSqlRecord>
#include <QVariant>
#include <anvil/curve/pyramid.h>

namespace anvil::store {

Writer::Writer(QSqlDatabase& database) : m_database(database) {}

void Writer::failWith(const QString& message) {
    if (m_error.isEmpty()) m_error = message;
}

bool Writer::known(const QString& table) {
    static const QStringList tables{"study", "option", "condition", "specimen",
                                    "pull",  "setup",  "attachment"};
    if (!tables.contains(table))
        failWith(QStringLiteral("The project has no rows called \"%1\".").arg(table));
    return !failed();
}

QJsonObject Writer::row(const QString& table, Id id) {
    QSqlQuery q(m_database);
    q.prepare("SELECT * FROM " + table + " WHERE id = ?");
    q.addBindValue(static_cast<qlonglong>(id));
    if (!q.exec()) {
        failWith(q.lastError().text());
        return {};
    }
    if (!q.next()) return {};
    QJsonObject out;
    for (int i = 0; i < q.record().count(); ++i)
        out[q.record().fieldName(i)] =
            q.value(i).isNull() ? QJsonValue(QJsonValue::Null) : QJsonValue::fromVariant(q.value(i));
    return out;
}

Id Writer::insert(const QString& table, QJsonObject fields) {
    if (failed() || !known(table)) return 0;
    if (fields.value("id").toInteger() == 0) fields.remove("id");
    QStringList names = fields.keys(), marks;
    marks.fill("?", 0);
    for (qsizetype i = 0; i < names.size(); ++i)
        marks << "?";
    QSqlQuery q(m_database);
    q.prepare("INSERT INTO " + table + " (\"" + names.join("\", \"") + "\") VALUES (" + marks.join(", ") +
              ")");
    for (const auto& n : names)
        q.addBindValue(fields.value(n).toVariant());
    if (!q.exec()) {
        failWith(q.lastError().text());
        return 0;
    }
    const Id id = q.lastInsertId().toLongLong();
    m_changes.append(
        QJsonObject{{"table", table}, {"id", id}, {"before", QJsonValue::Null}, {"after", row(table, id)}});
    return id;
}

void Writer::update(const QString& table, Id id, const QJsonObject& fields) {
    if (failed() || !known(table)) return;
    const auto before = row(table, id);
    if (before.isEmpty())
        return failWith(QStringLiteral("There is no %1 number %2 any more.").arg(table).arg(id));
    QStringList sets;
    QVariantList values;
    for (auto it = fields.begin(); it != fields.end(); ++it) {
        if (it.key() == "id" || before.value(it.key()) == it.value()) continue;
        sets << "\"" + it.key() + "\" = ?";
        values << it.value().toVariant();
    }
    if (sets.isEmpty()) return;
    QSqlQuery q(m_database);
    q.prepare("UPDATE " + table + " SET " + sets.join(", ") + " WHERE id = ?");
    for (const auto& v : values)
        q.addBindValue(v);
    q.addBindValue(static_cast<qlonglong>(id));
    if (!q.exec()) return failWith(q.lastError().text());
    m_changes.append(
        QJsonObject{{"table", table}, {"id", id}, {"before", before}, {"after", row(table, id)}});
}

void Writer::remove(const QString& table, Id id) {
    if (failed() || !known(table)) return;
    const auto before = row(table, id);
    QSqlQuery q(m_database);
    q.prepare("DELETE FROM " + table + " WHERE id = ?");
    q.addBindValue(static_cast<qlonglong>(id));
    if (!q.exec()) return failWith(q.lastError().text());
    if (!before.isEmpty())
        m_changes.append(
            QJsonObject{{"table", table}, {"id", id}, {"before", before}, {"after", QJsonValue::Null}});
}

void Writer::run(const QString& sql, const QVariantList& values) {
    if (failed()) return;
    QSqlQuery q(m_database);
    q.prepare(sql);
    for (const auto& v : values)
        q.addBindValue(v);
    if (!q.exec()) failWith(q.lastError().text());
}

void Writer::addChunk(Id curve, int channel, int sequence, std::span<const double> values) {
    const auto data = pack(values);
    run("INSERT INTO chunk (curve, channel, sequence, samples, checksum, data) VALUES (?, ?, ?, ?, ?, ?)",
        {static_cast<qlonglong>(curve), channel, sequence, static_cast<qlonglong>(values.size()),
         checksum(data), data});
}

void Writer::addPyramid(Id curve, const curve::Pyramid& pyramid) {
    int level = 0;
    for (const auto& ranges : pyramid.levels()) {
        static_assert(sizeof(curve::Pyramid::Range) == 2 * sizeof(double));
        run("INSERT INTO pyramid (curve, level, data) VALUES (?, ?, ?)",
            {static_cast<qlonglong>(curve), level++,
             QByteArray::fromRawData(reinterpret_cast<const char*>(ranges.data()),
                                     qsizetype(ranges.size()) * qsizetype(sizeof(ranges[0])))});
    }
}

Id Writer::addCurve(const curve::Curve& curve, const QString& known) {
    if (failed()) return 0;
    m_samplesAdded = true;
    QSqlQuery q(m_database);
    q.prepare("INSERT INTO curve (samples, digest) VALUES (?, ?)");
    q.addBindValue(static_cast<qlonglong>(samplesIn(curve)));
    q.addBindValue(known.isEmpty() ? digest(curve) : known);
    if (!q.exec()) failWith(q.lastError().text());
    const Id id = q.lastInsertId().toLongLong();
    addChannels(id, curve);
    addChunks(id, curve);
    addPyramid(id, curve::Pyramid(curve.force));
    return id;
}

void Writer::addChannels(Id id, const curve::Curve& curve) {
    int number = 0;
    for (const auto& [kind, unit, name, values] : channelsOf(curve))
        run("INSERT INTO channel (curve, number, kind, unit, name) VALUES (?, ?, ?, ?, ?)",
            {static_cast<qlonglong>(id), number++, QString(kind), QString::fromStdString(unit),
             QString::fromStdString(name)});
}

void Writer::addChunks(Id id, const curve::Curve& curve) {
    int number = 0;
    for (const auto& channel : channelsOf(curve)) {
        const auto& values = *channel.values;
        int sequence = 0;
        for (std::size_t from = 0; from < values.size(); from += samplesPerChunk)
            addChunk(id, number, sequence++,
                     std::span(values).subspan(from, std::min(samplesPerChunk, values.size() - from)));
        ++number;
    }
}

Id Writer::beginCurve(const curve::Curve& shape, Id beside) {
    if (failed()) return 0;
    m_samplesAdded = true;
    QSqlQuery q(m_database);
    q.prepare("INSERT INTO curve (samples, digest, beside) VALUES (0, '', ?)");
    q.addBindValue(beside ? QVariant(static_cast<qlonglong>(beside)) : QVariant());
    if (!q.exec()) failWith(q.lastError().text());
    const Id id = q.lastInsertId().toLongLong();
    addChannels(id, shape);
    return id;
}

void Writer::appendSamples(Id curve, int sequence, const curve::Curve& part) {
    int number = 0;
    for (const auto& channel : channelsOf(part))
        addChunk(curve, number++, sequence, *channel.values);
    run("UPDATE curve SET samples = samples + ? WHERE id = ?",
        {static_cast<qlonglong>(samplesIn(part)), static_cast<qlonglong>(curve)});
}

void Writer::finishCurve(const CurveSummary& summary) {
    const auto wanted = summary.channels * (summary.samples / samplesPerChunk + 1);
    if (summary.chunks > 2 * wanted &&
        summary.samples <= 16 * samplesPerChunk) // rewriting a long one costs more
        layTogether(summary);
    run("DELETE FROM pyramid WHERE curve = ?", {static_cast<qlonglong>(summary.curve)});
    addPyramid(summary.curve, summary.pyramid);
    run("UPDATE curve SET digest = ? WHERE id = ?", {summary.digest, static_cast<qlonglong>(summary.curve)});
}

void Writer::layTogether(const CurveSummary& summary) {
    if (failed()) return;
    const auto id = summary.curve;
    QSqlQuery q(m_database);
    q.setForwardOnly(true);
    q.prepare("SELECT c.kind, k.data, c.name, c.unit FROM channel c JOIN chunk k ON k.curve = c.curve AND "
              "k.channel = "
              "c.number WHERE c.curve = ? ORDER BY c.number, k.sequence");
    q.addBindValue(static_cast<qlonglong>(id));
    if (!q.exec()) return failWith(q.lastError().text());
    curve::Curve whole;
    while (q.next())
        if (!putChunk(whole, q.value(0).toString(), q.value(2).toString(), q.value(3).toString(),
                      q.value(1).toByteArray()))
            break;
    q.finish();
    if (digest(whole) != summary.digest) return; // better in many pieces than not as they were recorded
    run("DELETE FROM chunk WHERE curve = ?", {static_cast<qlonglong>(id)});
    addChunks(id, whole);
}

Id Writer::addFile(const ImportedFile& file) {
    if (failed()) return 0;
    QSqlQuery q(m_database);
    q.prepare("SELECT id FROM file WHERE digest = ? AND bytes = ?");
    q.addBindValue(file.digest);
    q.addBindValue(file.bytes);
    if (q.exec() && q.next()) return q.value(0).toLongLong();
    q.prepare("INSERT INTO file (name, digest, bytes, data) VALUES (?, ?, ?, ?)");
    q.addBindValue(file.name);
    q.addBindValue(file.digest);
    q.addBindValue(file.bytes);
    q.addBindValue(file.packed);
    if (!q.exec()) failWith(q.lastError().text());
    return q.lastInsertId().toLongLong();
}

} // namespace anvil::store
