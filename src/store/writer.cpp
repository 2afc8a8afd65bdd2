#include <anvil/store/project.h>

#include "chunks.h"
#include "fields.h"
#include "packing.h"
#include "samples.h"
#include "seal.h"
#include "statements.h"
#include <QJsonDocument>
#include <QSqlRecord>
#include <anvil/curve/pyramid.h>
#include <atomic>
#include <future>

namespace anvil::store {

Writer::Writer(QSqlDatabase& database)
    : m_database(database), m_statements(std::make_unique<Statements>(database)) {}
Writer::~Writer() = default;

void Writer::failWith(const QString& message) {
    if (m_error.isEmpty()) m_error = message;
}

bool Writer::known(const QString& table) {
    const auto& tables = storedTables();
    if (std::none_of(tables.begin(), tables.end(), [&](const auto& t) { return t.name == table; }))
        failWith(QStringLiteral("The project has no rows called \"%1\".").arg(table));
    return !failed();
}

QJsonObject Writer::row(const QString& table, Id id) {
    auto found =
        m_statements->run("SELECT * FROM \"" + table + "\" WHERE id = ?", {static_cast<qlonglong>(id)});
    QJsonObject out;
    if (found.next()) {
        const auto names = found.query().record();
        for (int i = 0; i < names.count(); ++i) {
            const auto v = found.query().value(i);
            out[names.fieldName(i)] = v.isNull() ? QJsonValue(QJsonValue::Null) : QJsonValue::fromVariant(v);
        }
    }
    if (!found.ok()) failWith(found.error());
    return out;
}

namespace {

/// A column's name comes from a journal or a tape, which may be damaged.
QString quoted(const QString& name) { return '"' + QString(name).replace('"', "\"\"") + '"'; }

QStringList quoted(const QStringList& names) {
    QStringList out;
    for (const auto& n : names)
        out << quoted(n);
    return out;
}

} // namespace

Id Writer::insert(const QString& table, QJsonObject fields) {
    if (failed() || !known(table)) return 0;
    if (fields.value("id").toInteger() == 0) fields.remove("id");
    QVariantList values;
    for (const auto& v : std::as_const(fields))
        values << v.toVariant();
    const auto marks = QStringList(values.size(), "?");
    const Id id = run("INSERT INTO " + quoted(table) + " (" + quoted(fields.keys()).join(", ") +
                          ") VALUES (" + marks.join(", ") + ")",
                      values);
    seal(table, id);
    if (!failed())
        m_changes.append(QJsonObject{
            {"table", table}, {"id", id}, {"before", QJsonValue::Null}, {"after", row(table, id)}});
    return failed() ? 0 : id;
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
        sets << quoted(it.key()) + " = ?";
        values << it.value().toVariant();
    }
    if (sets.isEmpty()) return;
    run("UPDATE " + quoted(table) + " SET " + sets.join(", ") + " WHERE id = ?",
        values << static_cast<qlonglong>(id));
    seal(table, id);
    if (!failed())
        m_changes.append(
            QJsonObject{{"table", table}, {"id", id}, {"before", before}, {"after", row(table, id)}});
}

void Writer::remove(const QString& table, Id id) {
    if (failed() || !known(table)) return;
    const auto before = row(table, id);
    run("DELETE FROM " + quoted(table) + " WHERE id = ?", {static_cast<qlonglong>(id)});
    seal(table, id);
    if (!before.isEmpty() && !failed())
        m_changes.append(
            QJsonObject{{"table", table}, {"id", id}, {"before", before}, {"after", QJsonValue::Null}});
}

void Writer::addToJournal(const QString& at, const QString& who, const QString& what, Id undoes) {
    m_journalId = run("INSERT INTO journal (at, who, what, undoes, changes) VALUES (?, ?, ?, ?, ?)",
                      {at, who, what, undoes ? QVariant(static_cast<qlonglong>(undoes)) : QVariant(),
                       QString::fromUtf8(QJsonDocument(m_changes).toJson(QJsonDocument::Compact))});
    seal("journal", m_journalId);
}

void Writer::seal(const QString& table, Id key) {
    if (failed()) return;
    if (auto ok = store::seal(*m_statements, sealedTable(table), key); !ok)
        failWith(QString::fromStdString(ok.error().message));
}

Id Writer::run(const QString& sql, const QVariantList& values) {
    if (failed()) return 0;
    const auto done = m_statements->run(sql, values);
    if (!done.ok()) failWith(done.error());
    return done.ok() ? done.query().lastInsertId().toLongLong() : 0;
}

void Writer::addChunk(Id curve, int channel, int sequence, std::size_t samples, const PackedChunk& chunk) {
    run("INSERT INTO chunk (curve, channel, sequence, samples, checksum, data, packing) VALUES (?, ?, ?, ?, "
        "?, ?, ?)",
        {static_cast<qlonglong>(curve), channel, sequence, static_cast<qlonglong>(samples),
         checksum(chunk.data), chunk.data, static_cast<int>(chunk.packing)});
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

Id Writer::addCurve(const curve::Curve& curve, const QString& known, Id beside) {
    if (failed()) return 0;
    m_samplesAdded = true;
    const Id id = run("INSERT INTO curve (samples, digest, beside) VALUES (?, ?, ?)",
                      {static_cast<qlonglong>(samplesIn(curve)), known.isEmpty() ? digest(curve) : known,
                       beside ? QVariant(static_cast<qlonglong>(beside)) : QVariant()});
    addChannels(id, curve);
    addChunks(id, curve);
    addPyramid(id, curve::Pyramid(curve.load));
    seal("curve", id);
    return id;
}

void Writer::addChannels(Id id, const curve::Curve& curve) {
    int number = 0;
    for (const auto& [kind, unit, name, values] : channelsOf(curve)) {
        run("INSERT INTO channel (curve, number, kind, unit, name) VALUES (?, ?, ?, ?, ?)",
            {static_cast<qlonglong>(id), number, QString(kind), QString::fromStdString(unit),
             QString::fromStdString(name)});
        seal("channel", id * 256 + number++);
    }
}

void Writer::addChunks(Id id, const curve::Curve& curve) {
    struct Piece {
        int channel = 0, sequence = 0;
        std::span<const double> values;
        PackedChunk chunk;
    };
    std::vector<Piece> pieces;
    int number = 0;
    for (const auto& channel : channelsOf(curve)) {
        const std::span<const double> values(*channel.values);
        int sequence = 0;
        for (std::size_t from = 0; from < values.size(); from += samplesPerChunk)
            pieces.push_back({number,
                              sequence++,
                              values.subspan(from, std::min(samplesPerChunk, values.size() - from)),
                              {}});
        ++number;
    }
    std::atomic<std::size_t> next{0};
    const auto packSome = [&] {
        for (std::size_t k = 0; (k = next++) < pieces.size();)
            pieces[k].chunk = packed(pieces[k].values);
    };
    constexpr std::size_t worthAHelper = 4;
    auto helper =
        pieces.size() >= worthAHelper ? std::async(std::launch::async, packSome) : std::future<void>();
    packSome();
    if (helper.valid()) helper.get();
    for (const auto& p : pieces)
        addChunk(id, p.channel, p.sequence, p.values.size(), p.chunk);
}

Id Writer::beginCurve(const curve::Curve& shape, Id beside) {
    if (failed()) return 0;
    m_samplesAdded = true;
    const Id id = run("INSERT INTO curve (samples, digest, beside) VALUES (0, '', ?)",
                      {beside ? QVariant(static_cast<qlonglong>(beside)) : QVariant()});
    addChannels(id, shape);
    seal("curve", id);
    return id;
}

void Writer::appendSamples(Id curve, int sequence, const curve::Curve& part) {
    int number = 0;
    for (const auto& channel : channelsOf(part))
        addChunk(curve, number++, sequence, channel.values->size(),
                 {Packing::plain, bytesOf(*channel.values)});
    run("UPDATE curve SET samples = samples + ? WHERE id = ?",
        {static_cast<qlonglong>(samplesIn(part)), static_cast<qlonglong>(curve)});
    seal("curve", curve);
}

void Writer::finishCurve(const CurveSummary& summary) {
    const auto wanted = summary.channels * (summary.samples / samplesPerChunk + 1);
    if (summary.chunks > 2 * wanted &&
        summary.samples <= 16 * samplesPerChunk) // rewriting a long one costs more
        layTogether(summary);
    run("DELETE FROM pyramid WHERE curve = ?", {static_cast<qlonglong>(summary.curve)});
    addPyramid(summary.curve, summary.pyramid);
    run("UPDATE curve SET digest = ? WHERE id = ?", {summary.digest, static_cast<qlonglong>(summary.curve)});
    seal("curve", summary.curve);
}

void Writer::layTogether(const CurveSummary& summary) {
    if (failed()) return;
    const auto id = summary.curve;
    curve::Curve whole;
    const auto read = readSamples(m_database, id, [&](const ChunkRow& c) {
        putChunk(whole, c.kind, c.name, c.unit, c.values);
        return true;
    });
    if (!read || digest(whole) != summary.digest)
        return; // better in many pieces than not as they were recorded
    run("DELETE FROM chunk WHERE curve = ?", {static_cast<qlonglong>(id)});
    addChunks(id, whole);
}

Id Writer::addFile(const ImportedFile& file) {
    if (failed()) return 0;
    Query same(m_database, "SELECT id FROM file WHERE digest = ? AND bytes = ?", {file.digest, file.bytes});
    if (same.next()) return same.id(0);
    if (const auto ok = same.done(); !ok) {
        failWith(QString::fromStdString(ok.error().message));
        return 0;
    }
    const Id id = run("INSERT INTO file (name, digest, bytes, data) VALUES (?, ?, ?, ?)",
                      {file.name, file.digest, file.bytes, file.packed});
    seal("file", id);
    return failed() ? 0 : id;
}

} // namespace anvil::store
