// Files of older versions.
#include "project_private.h"
#include "seal.h"
#include <QFile>

namespace anvil::store {
namespace {

/// Brings a file to this program's version, all or nothing; what went wrong, or nothing.
QString migrate(const QString& file, int version) {
    const auto name = uniqueName("migrate");
    QString error;
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", name);
        db.setDatabaseName(file);
        if (!db.open() || !db.transaction()) error = db.lastError().text();
        {
            QSqlQuery q(db);
            const auto must = [&](const QString& sql) {
                if (error.isEmpty() && !q.exec(sql)) error = q.lastError().text();
            };
            for (int v = version; v < schemaVersion(); ++v)
                for (const auto& sql : migrationFrom(v))
                    must(sql);
            must("DELETE FROM seal"); // they were looked at, and the rows have changed
            must(QStringLiteral("PRAGMA user_version = %1").arg(schemaVersion()));
        }
        if (error.isEmpty())
            if (const auto ok = sealAll(db); !ok) error = QString::fromStdString(ok.error().message);
        if (error.isEmpty() && !db.commit()) error = db.lastError().text();
        if (!error.isEmpty()) db.rollback();
        db.close();
    }
    QSqlDatabase::removeDatabase(name);
    return error.simplified();
}

/// What is wrong with a file of an older version: pages, references and, where it has them, seals.
QString damageOfOld(const QSqlDatabase& db, int version) {
    QStringList problems;
    const auto ask = [&](const char* pragma, const auto& sentence) {
        if (auto ok = each(db, QStringLiteral("PRAGMA %1").arg(pragma), {},
                           [&](const Query& q) {
                               if (const QString text = sentence(q); !text.isEmpty()) problems << text;
                           });
            !ok)
            problems << QString::fromStdString(ok.error().message);
    };
    ask("integrity_check(1)", [](const Query& q) { return q.string(0) == "ok" ? QString() : q.string(0); });
    ask("foreign_key_check", [](const Query& q) {
        return QStringLiteral("a row of %1 points to a %2 that is not there").arg(q.string(0), q.string(2));
    });
    for (const auto& table : sealedTablesOf(version))
        if (problems.isEmpty()) problems << brokenSeals(db, table);
    return problems.isEmpty() ? QString() : problems.first().simplified();
}

} // namespace

/// Where the copy of a file of an older version goes: beside it, under a name that is free.
QString Project::Private::oldCopyPath(int version) const {
    const QFileInfo info(path);
    for (int n = 1;; ++n) {
        auto name = info.absolutePath() + "/" + info.completeBaseName() +
                    QStringLiteral(".version-%1").arg(version) +
                    (n > 1 ? QStringLiteral("-%1").arg(n) : QString()) + "." + info.suffix();
        if (!QFileInfo::exists(name)) return name;
    }
}

Expected<void> Project::Private::bringUpToDate(int version) {
    QString target = path, kept, damage, why;
    std::unique_ptr<QTemporaryDir> folder;
    if (readOnly) {
        folder = std::make_unique<QTemporaryDir>();
        target = kept = folder->filePath("project.anvil");
    } else {
        kept = oldCopyPath(version);
    }
    damage = damageOfOld(reader(), version); // what is sealed from now on must be sound
    if (damage.isEmpty()) why = copyTo(kept);
    closeReaders();
    const auto name = QFileInfo(path).fileName();
    if (!damage.isEmpty())
        return failText(QStringLiteral("%1 is of an older version and damaged, so it was left as it is (%2).")
                            .arg(name, damage));
    if (!why.isEmpty())
        return failText(
            QStringLiteral(
                "%1 is of an older version and no copy of it could be kept (%2), so it was left as "
                "it is.")
                .arg(name, why));
    if (const auto error = migrate(target, version); !error.isEmpty()) {
        QFile::remove(kept); // of a file that is unchanged
        return failText(
            QStringLiteral("%1 could not be brought to this version: %2. It is unchanged.").arg(name, error));
    }
    if (readOnly) {
        databaseName = target;
        access = FileAccess::copy;
        copy = std::move(folder);
    }
    return {};
}

} // namespace anvil::store
