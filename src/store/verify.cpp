// Whether a project file is as it was written.
#include "project_private.h"
#include "seal.h"
#include <set>

namespace anvil::store {
namespace {

/// Tables and indices with their columns, as text that two files can be compared by.
Expected<std::map<QString, QString>> structure(const QSqlDatabase& db) {
    std::map<QString, QString> out;
    std::vector<std::pair<QString, QString>> objects;
    if (auto ok = each(db, "SELECT type, name FROM sqlite_master WHERE name NOT LIKE 'sqlite_%'", {},
                       [&](const Query& q) { objects.emplace_back(q.string(0), q.string(1)); });
        !ok)
        return tl::unexpected(ok.error());
    for (const auto& [type, name] : objects) {
        std::set<QString> columns; // one added later stands last
        const bool index = type == "index";
        const auto sql = index
                             ? QStringLiteral("SELECT seqno, name FROM pragma_index_info(?)")
                             : QStringLiteral("SELECT name, type, \"notnull\", pk FROM pragma_table_info(?)");
        auto ok = each(db, sql, {name}, [&](const Query& q) {
            columns.insert(index ? q.string(0) + " " + q.string(1)
                                 : QStringList{q.string(0), q.string(1), q.string(2), q.string(3)}.join(' '));
        });
        if (!ok) return tl::unexpected(ok.error());
        out[type + " " + name] = QStringList(columns.begin(), columns.end()).join(", ");
    }
    return out;
}

/// What a file of this version is made of.
std::map<QString, QString> wantedStructure() {
    const auto name = uniqueName("schema");
    std::map<QString, QString> out;
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", name);
        db.setDatabaseName(":memory:");
        db.open();
        for (const auto& sql : schema())
            exec(db, sql);
        out = structure(db).value_or(out);
    }
    QSqlDatabase::removeDatabase(name);
    return out;
}

} // namespace

QStringList structureProblems(const QSqlDatabase& db) {
    static const auto wanted = wantedStructure();
    const auto found = structure(db);
    if (!found) return {QString::fromStdString(found.error().message)};
    QStringList problems;
    for (const auto& [what, columns] : wanted) {
        const auto it = found->find(what);
        if (it == found->end())
            problems << QStringLiteral("The %1 is missing.").arg(what);
        else if (it->second != columns)
            problems << QStringLiteral("The %1 is not made as this program makes it.").arg(what);
    }
    for (const auto& [what, columns] : *found)
        if (what.startsWith("trigger ") || what.startsWith("view "))
            problems << QStringLiteral("It holds a %1, which this program never makes.").arg(what);
    return problems;
}

QStringList damageOf(const QSqlDatabase& db) {
    auto problems = structureProblems(db);
    if (!problems.isEmpty()) return problems; // nothing in it can be asked for by name
    const auto ask = [&](const QString& sql, const auto& sentence) {
        if (auto ok = each(db, sql, {}, [&](const Query& q) { sentence(q); }); !ok)
            problems << QString::fromStdString(ok.error().message);
    };
    const auto table = [&](const QString& name) {
        ask("PRAGMA integrity_check(\"" + name + "\")", [&](const Query& q) {
            if (q.string(0) != "ok") problems << q.string(0).simplified();
        });
        ask("PRAGMA foreign_key_check(\"" + name + "\")", [&](const Query& q) {
            problems << QStringLiteral("A row of %1 points to a %2 that is not there.")
                            .arg(q.string(0), q.string(2));
        });
    };
    for (const auto& sealed : sealedTables())
        if (const QString name = sealed.table; name != "journal") { // long, and read row by row with its seal
            if (name != "file") table(name);
            problems << brokenSeals(db, sealed);
        }
    return problems;
}

} // namespace anvil::store
