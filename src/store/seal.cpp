#include "seal.h"

#include "fields.h"

#include <QMetaType>
#include <cstring>
#include <map>
#include <xxhash.h>

namespace anvil::store {
namespace {

template <class T> void put(QByteArray& to, char type, const T& value) {
    to.append(type);
    to.append(reinterpret_cast<const char*>(&value), sizeof value);
}

void put(QByteArray& to, char type, const QByteArray& bytes) {
    put(to, type, static_cast<qint64>(bytes.size()));
    to.append(bytes);
}

int columnsOf(const SealedTable& table) { return static_cast<int>(table.columns.count(',')) + 1; }

QString select(const SealedTable& table, const QString& where = {}) {
    return QStringLiteral("SELECT %1, %2 FROM \"%3\" %4").arg(table.key, table.columns, table.table, where);
}

/// Rows in sentences: "row 3", "rows 3, 5 and 9 more".
QString rows(const std::vector<Id>& ids) {
    QStringList first;
    constexpr std::size_t most = 5;
    for (std::size_t i = 0; i < std::min(most, ids.size()); ++i)
        first << QString::number(ids[i]);
    auto text =
        (ids.size() == 1 ? QStringLiteral("row %1") : QStringLiteral("rows %1")).arg(first.join(", "));
    if (ids.size() > most) text += QStringLiteral(" and %1 more").arg(ids.size() - most);
    return text;
}

} // namespace

const std::vector<SealedTable>& sealedTables() {
    static const auto all = [] {
        std::vector<SealedTable> out;
        for (const auto& t : storedTables()) {
            QStringList columns;
            for (const auto& c : t.columns)
                columns << c.name;
            out.push_back({t.name, "id", "id = ?", columns.join(", ")});
        }
        out.push_back({"curve", "id", "id = ?", "id, samples, digest, beside"});
        out.push_back({"channel", "curve * 256 + number", "curve = ? / 256 AND number = ? % 256",
                       "curve, number, kind, unit, name"});
        out.push_back({"file", "id", "id = ?", "id, name, digest, bytes"}); // its data answer to its digest
        out.push_back({"journal", "id", "id = ?", "id, at, who, what, undoes, changes"});
        return out;
    }();
    return all;
}

const SealedTable& sealedTable(const QString& table) {
    for (const auto& t : sealedTables())
        if (table == t.table) return t;
    throw std::logic_error("no sealed table " + table.toStdString());
}

qint64 sealOf(const QSqlQuery& row, int first, int columns) {
    QByteArray all;
    for (int i = first; i < first + columns; ++i) {
        const auto v = row.value(i);
        if (row.isNull(i))
            all.append('0');
        else if (v.typeId() == QMetaType::LongLong)
            put(all, 'i', v.toLongLong());
        else if (v.typeId() == QMetaType::Double)
            put(all, 'r', v.toDouble());
        else if (v.typeId() == QMetaType::QByteArray)
            put(all, 'b', v.toByteArray());
        else
            put(all, 't', v.toString().toUtf8());
    }
    return static_cast<qint64>(XXH3_64bits(all.constData(), static_cast<std::size_t>(all.size())));
}

Expected<void> seal(Statements& statements, const SealedTable& table, Id key) {
    const auto id = static_cast<qlonglong>(key);
    const QString& find = table.find;
    const auto done = [](const Prepared& p) -> Expected<void> {
        if (p.ok()) return {};
        return fail("The project cannot be read (" + p.error().toStdString() + ").");
    };
    std::optional<qint64> sum;
    {
        auto row = statements.run(select(table, "WHERE " + find), QVariantList(find.count('?'), id));
        if (row.next()) sum = sealOf(row.query(), 1, columnsOf(table));
        if (!row.ok()) return done(row);
    }
    if (!sum) return done(statements.run("DELETE FROM seal WHERE of = ? AND row = ?", {table.table, id}));
    return done(statements.run("INSERT OR REPLACE INTO seal (of, row, checksum) VALUES (?, ?, ?)",
                               {table.table, id, *sum}));
}

std::vector<SealedTable> sealedTablesOf(int version) {
    if (version < 4) return {};
    auto out = sealedTables();
    for (const auto& t : storedTables()) {
        QStringList columns;
        for (const auto& c : t.columns)
            if (c.since <= version) columns << c.name;
        if (version < 6 && t.name == "pull") // it is part of the outcome now
            columns.insert(columns.indexOf("reason") + 1, "what_broke");
        for (auto& sealed : out)
            if (sealed.table == t.name) sealed.columns = columns.join(", ");
    }
    return out;
}

Expected<void> sealAll(const QSqlDatabase& db) {
    for (const auto& table : sealedTables()) {
        std::vector<std::pair<Id, qint64>> all;
        const auto columns = columnsOf(table);
        auto read = each(db, select(table), {},
                         [&](const Query& q) { all.emplace_back(q.id(0), sealOf(q.row(), 1, columns)); });
        if (!read) return read;
        for (const auto& [key, sum] : all)
            if (auto ok = Query(db, "INSERT INTO seal (of, row, checksum) VALUES (?, ?, ?)",
                                {table.table, static_cast<qlonglong>(key), sum})
                              .done();
                !ok)
                return ok;
    }
    return {};
}

QStringList brokenSeals(const QSqlDatabase& db, const SealedTable& table) {
    QStringList problems;
    std::map<Id, qint64> seals;
    std::vector<Id> wrong, foreign, missing;
    if (auto ok = each(db, "SELECT row, checksum FROM seal WHERE of = ?", {table.table},
                       [&](const Query& q) { seals[q.id(0)] = q.id(1); });
        !ok)
        return {QString::fromStdString(ok.error().message)};
    const auto columns = columnsOf(table);
    const auto read = each(db, select(table), {}, [&](const Query& q) {
        const auto it = seals.find(q.id(0));
        if (it == seals.end()) return foreign.push_back(q.id(0));
        if (it->second != sealOf(q.row(), 1, columns)) wrong.push_back(q.id(0));
        seals.erase(it);
    });
    if (!read) return {QString::fromStdString(read.error().message)};
    for (const auto& [key, sum] : seals)
        missing.push_back(key);
    const auto say = [&](const std::vector<Id>& ids, const QString& what) {
        if (!ids.empty()) problems << QStringLiteral("In %1, %2 %3.").arg(table.table, rows(ids), what);
    };
    say(wrong, wrong.size() == 1 ? "is not as it was written" : "are not as they were written");
    say(missing, missing.size() == 1 ? "is missing" : "are missing");
    say(foreign,
        foreign.size() == 1 ? "was not written by this program" : "were not written by this program");
    return problems;
}

} // namespace anvil::store
