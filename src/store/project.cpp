// Opening, writing and checking a project.
#include "project_private.h"
#include "samples.h"
#include <QFile>
#include <QJsonDocument>
#include <QUrl>
#include <anvil/store/tape.h>

namespace anvil::store {

Project::Project(std::unique_ptr<Private> p) : d(std::move(p)) {}
Project::~Project() = default;

Expected<std::unique_ptr<Project>> Project::create(const QString& path) {
    if (QFileInfo::exists(path))
        return failText(QStringLiteral("%1 exists already; choose another name.").arg(path));
    auto p = std::make_unique<Private>();
    p->path = p->databaseName = QFileInfo(path).absoluteFilePath();
    p->takeLock();
    if (p->readOnly)
        return failText(QStringLiteral("%1 cannot be written.").arg(QFileInfo(path).absolutePath()));
    if (auto ok = p->startWriter(true); !ok) return tl::unexpected(ok.error());
    return std::unique_ptr<Project>(new Project(std::move(p)));
}

Expected<std::unique_ptr<Project>> Project::open(const QString& path, Access access) {
    const QFileInfo info(path);
    if (!info.exists() || !info.isFile()) return failText(QStringLiteral("There is no file %1.").arg(path));
    QFile head(path);
    if (!head.open(QIODevice::ReadOnly))
        return failText(QStringLiteral("%1 cannot be read: %2.").arg(path, head.errorString()));
    if (head.read(16) != QByteArray("SQLite format 3\0", 16))
        return failText(QStringLiteral("%1 is not a project of this program.").arg(info.fileName()));
    auto p = std::make_unique<Private>();
    p->path = p->databaseName = info.absoluteFilePath();
    if (access == Access::readOnly) {
        p->readOnly = true;
        p->readOnlyReason = QStringLiteral("It was opened for looking only.");
    } else {
        p->takeLock();
    }
    if (p->readOnly && !QFileInfo(info.absolutePath()).isWritable()) {
        // SQLite could not make the files that go with a write-ahead log here: read the file as it lies, or,
        // where a log was left behind, a copy of both.
        QString lies = p->path;
        if (QFileInfo(p->path + "-wal").size() > 0) {
            p->copy = std::make_unique<QTemporaryDir>();
            lies = p->copy->filePath("project.anvil");
            if (!QFile::copy(p->path, lies) || !QFile::copy(p->path + "-wal", lies + "-wal"))
                return failText(QStringLiteral("%1 was not closed properly, its folder cannot be written, "
                                               "and there is no room for a copy of it.")
                                    .arg(info.fileName()));
            QFile(lies).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
            QFile(lies + "-wal").setPermissions(QFile::ReadOwner | QFile::WriteOwner);
            auto db = QSqlDatabase::addDatabase("QSQLITE", p->writeName); // folds the log into the copy
            db.setDatabaseName(lies);
            if (db.open()) exec(db, "PRAGMA wal_checkpoint(TRUNCATE)");
            db.close();
            db = {};
            QSqlDatabase::removeDatabase(p->writeName);
        }
        p->databaseName = "file:" + QString::fromUtf8(QUrl::toPercentEncoding(lies, "/")) + "?immutable=1";
    }
    {
        auto db = p->reader();
        QSqlQuery q(db);
        const auto number = [&](const char* pragma) {
            return q.exec(QStringLiteral("PRAGMA ") + pragma) && q.next() ? q.value(0).toInt() : -1;
        };
        if (number("application_id") != applicationId)
            return failText(QStringLiteral("%1 is not a project of this program.").arg(info.fileName()));
        const int version = number("user_version");
        if (version > schemaVersion)
            return failText(
                QStringLiteral(
                    "%1 was made by a newer version of this program (file version %2, this one knows %3).")
                    .arg(info.fileName())
                    .arg(version)
                    .arg(schemaVersion));
        q.finish();
        db = {};
        if (version < schemaVersion)
            if (auto ok = p->bringUpToDate(version); !ok) return tl::unexpected(ok.error());
    }
    if (!p->readOnly)
        if (auto ok = p->startWriter(false); !ok) {
            p->readOnly = true;
            p->readOnlyReason = QString::fromStdString(ok.error().message);
        }
    auto project = std::unique_ptr<Project>(new Project(std::move(p)));
    if (!project->readOnly()) project->endInterruptedRecordings();
    return project;
}

const QString& Project::path() const { return d->path; }
bool Project::readOnly() const { return d->readOnly; }
const QString& Project::readOnlyReason() const { return d->readOnlyReason; }
void Project::setClock(std::function<QDateTime()> clock) { d->clock = std::move(clock); }
void Project::setWho(const QString& who) { d->who = who; }

Expected<Id> Project::write(const QString& what, const std::function<void(Writer&)>& change, Id undoes) {
    if (d->readOnly) return failText(QStringLiteral("Nothing was changed. %1").arg(d->readOnlyReason));
    QString error, warning;
    Id journalId = 0;
    d->writer->run([&] {
        auto db = QSqlDatabase::database(d->writeName, false);
        if (!db.transaction()) {
            error = db.lastError().text();
            return;
        }
        Writer writer(db);
        change(writer);
        if (!writer.failed() && !writer.changes().isEmpty()) {
            QSqlQuery q(db);
            q.prepare("INSERT INTO journal (at, who, what, undoes, changes) VALUES (?, ?, ?, ?, ?)");
            q.addBindValue(d->clock().toString(Qt::ISODateWithMs));
            q.addBindValue(d->who);
            q.addBindValue(what);
            q.addBindValue(undoes ? QVariant(static_cast<qlonglong>(undoes)) : QVariant());
            q.addBindValue(QString::fromUtf8(QJsonDocument(writer.changes()).toJson(QJsonDocument::Compact)));
            if (!q.exec()) writer.failWith(q.lastError().text());
            journalId = q.lastInsertId().toLongLong();
        }
        if (!writer.failed() && !db.commit()) writer.failWith(db.lastError().text());
        if (writer.failed()) {
            db.rollback();
            error = writer.error();
        } else if (!d->logged && writer.samplesAdded()) {
            // The first samples of a new project went straight into the file: they need not be written twice.
            // From here on others may read while something is written.
            warning = d->useLog(db);
        }
    });
    if (!error.isEmpty()) return failText(QStringLiteral("Nothing was changed: %1").arg(error));
    if (!warning.isEmpty()) {
        d->readOnly = true;
        d->readOnlyReason = warning;
    }
    return journalId;
}

QStringList Project::tapeNotes() const {
    QStringList notes;
    if (!d->readOnly)
        for (const auto& tape : d->leftTapes)
            notes << QStringLiteral(
                         "%1 holds samples of a recording that could not be brought into the project.")
                         .arg(tape.join(", "));
    else if (!d->heldElsewhere()) // else it may be of a recording that goes on
        for (const auto& tape : tapesOf(d->path))
            notes << QStringLiteral(
                         "%1 may hold samples of a recording that broke off; open the project in the window "
                         "to bring them in.")
                         .arg(tape.join(", "));
    return notes;
}

Integrity Project::check() const {
    auto db = d->reader();
    Integrity out;
    QSqlQuery q(db);
    q.exec("PRAGMA integrity_check");
    while (q.next())
        if (q.value(0).toString() != "ok") out.problems << q.value(0).toString();
    q.exec("PRAGMA foreign_key_check");
    while (q.next())
        out.problems << QStringLiteral("A row of %1 points to a %2 that is not there.")
                            .arg(q.value(0).toString(), q.value(2).toString());
    std::vector<std::tuple<Id, Id, QString>> curves;
    q.exec("SELECT id, samples, digest FROM curve");
    while (q.next())
        curves.emplace_back(q.value(0).toLongLong(), q.value(1).toLongLong(), q.value(2).toString());
    for (const auto& [id, samples, hash] : curves) {
        if (samples == 0) continue; // begun, and nothing came
        ++out.curves;
        out.samples += samples;
        const auto got = summarizeOne(db, id);
        if (!got)
            out.problems << QString::fromStdString(got.error().message);
        else if (static_cast<Id>(got->samples) != samples ||
                 (!hash.isEmpty() && got->digest != hash)) // none yet while it is being recorded
            out.problems
                << QStringLiteral("The samples of curve %1 are not those that were recorded.").arg(id);
    }
    for (const auto id : importedFiles()) {
        const auto file = importedFile(id);
        if (const auto bytes = file ? file->unpack() : tl::unexpected(file.error()); !bytes)
            out.problems << QString::fromStdString(bytes.error().message);
    }
    q.exec("SELECT count(*) FROM pull");
    if (q.next()) out.pulls = q.value(0).toLongLong();
    return out;
}

Expected<void> Project::saveCopy(const QString& path) const {
    if (QFileInfo::exists(path))
        return failText(QStringLiteral("%1 exists already; choose another name.").arg(path));
    auto db = d->reader();
    QSqlQuery q(db);
    q.prepare("VACUUM INTO ?");
    q.addBindValue(QFileInfo(path).absoluteFilePath());
    if (!q.exec())
        return failText(QStringLiteral("The copy could not be made: %1.").arg(q.lastError().text()));
    return {};
}

} // namespace anvil::store
