// Opening, writing and checking a project.
#include "project_private.h"
#include "seal.h"
#include <QFile>
#include <anvil/store/tape.h>

namespace anvil::store {

Project::Project(std::unique_ptr<Private> p) : d(std::move(p)) {}
Project::~Project() = default;

Expected<std::unique_ptr<Project>> Project::create(const QString& path) {
    if (QFileInfo::exists(path))
        return failText(QStringLiteral("%1 exists already; choose another name.").arg(path));
    auto p = std::make_unique<Private>();
    const QFileInfo info(path), folder(info.absolutePath());
    if (!folder.isDir()) return failText(QStringLiteral("There is no folder %1.").arg(info.absolutePath()));
    p->path = p->databaseName = folder.canonicalFilePath() + "/" + info.fileName();
    // What a project of this name left behind would be taken for a part of the new one.
    QStringList left;
    for (const char* end : {"-wal", "-journal"})
        if (QFileInfo::exists(p->path + end)) left << info.fileName() + end;
    for (const auto& tape : tapesOf(p->path))
        for (const auto& side : tape)
            left << QFileInfo(side).fileName();
    if (!left.isEmpty())
        return failText(
            QStringLiteral("Beside it lies what belongs to another project of this name (%1): choose "
                           "another name, or move it away first.")
                .arg(left.join(", ")));
    p->takeLock();
    if (p->readOnly)
        return failText(
            QStringLiteral("%1 cannot be written. %2").arg(info.absolutePath(), p->readOnlyReason));
    if (auto ok = p->makeFile(); !ok) return tl::unexpected(ok.error());
    if (auto ok = p->startWriter(true); !ok) {
        QFile::remove(p->path);
        return tl::unexpected(ok.error());
    }
    return std::unique_ptr<Project>(new Project(std::move(p)));
}

namespace {

/// Version of the schema of an open file. Error: not a project of this program, or of another version of it.
Expected<int> versionOf(const QSqlDatabase& db, const QString& name) {
    const auto number = [&](const char* pragma) -> Expected<int> {
        Query q(db, QStringLiteral("PRAGMA ") + pragma);
        if (q.next()) return q.integer(0);
        return failText(QStringLiteral("%1 cannot be read (%2).").arg(name, q.error()));
    };
    auto application = number("application_id");
    if (!application) return application;
    if (*application != applicationId)
        return failText(QStringLiteral("%1 is not a project of this program.").arg(name));
    auto version = number("user_version");
    if (version && *version > schemaVersion())
        return failText(
            QStringLiteral(
                "%1 was made by a newer version of this program (file version %2, this one knows %3).")
                .arg(name)
                .arg(*version)
                .arg(schemaVersion()));
    if (version && *version < 1)
        return failText(
            QStringLiteral("%1 is damaged: there is no file version %2.").arg(name).arg(*version));
    return version;
}

} // namespace

Expected<std::unique_ptr<Project>> Project::open(const QString& path, Access access) {
    const QFileInfo info(path);
    if (!info.exists() || !info.isFile()) return failText(QStringLiteral("There is no file %1.").arg(path));
    QFile head(path);
    if (!head.open(QIODevice::ReadOnly))
        return failText(QStringLiteral("%1 cannot be read: %2.").arg(path, head.errorString()));
    if (head.read(16) != QByteArray("SQLite format 3\0", 16))
        return failText(QStringLiteral("%1 is not a project of this program.").arg(info.fileName()));
    head.close();
    auto p = std::make_unique<Private>();
    p->path = p->databaseName = info.canonicalFilePath(); // a link must not lead to a second lock
    if (access == Access::readOnly)
        p->onlyForLooking(QStringLiteral("It was opened for looking only."));
    else if (!info.isWritable())
        p->onlyForLooking(
            QStringLiteral("The file cannot be written, so the project is open for looking only."));
    else
        p->takeLock();
    if (auto ok = p->findReading(); !ok) return tl::unexpected(ok.error());
    const auto version = versionOf(p->reader(), info.fileName());
    if (!version) return tl::unexpected(version.error());
    if (*version < schemaVersion())
        if (auto ok = p->bringUpToDate(*version); !ok) return tl::unexpected(ok.error());
    p->damage = damageOf(p->reader());
    if (!p->damage.isEmpty() && !p->readOnly)
        p->onlyForLooking(QStringLiteral("It is damaged, and nothing is written to it."));
    if (!p->readOnly)
        if (auto ok = p->startWriter(false); !ok) {
            p->onlyForLooking(QString::fromStdString(ok.error().message));
            p->writer.reset();
        }
    auto project = std::unique_ptr<Project>(new Project(std::move(p)));
    if (!project->readOnly()) project->endInterruptedRecordings();
    return project;
}

const QString& Project::path() const { return d->path; }
bool Project::readOnly() const { return d->readOnly; }
QString Project::whyNotInPlace() const { return d->whyNotInPlace(); }
int Project::brokenOff() const { return d->brokenOff; }
const QString& Project::readOnlyReason() const { return d->readOnlyReason; }
void Project::setClock(std::function<QDateTime()> clock) { d->clock = std::move(clock); }
void Project::setWho(const QString& who) { d->who = who; }

Expected<Id> Project::write(const QString& what, const std::function<void(Writer&)>& change, Id undoes) {
    if (d->readOnly) return failText(QStringLiteral("Nothing was changed. %1").arg(d->readOnlyReason));
    QString error, warning;
    Id journalId = 0;
    d->writer->run([&] {
        auto db = QSqlDatabase::database(d->writeName, false);
        if (error = d->whyNotInPlace(); !error.isEmpty()) {
            // What was written so far goes into the file that is open: nothing of it may be taken for a part
            // of the one that lies there now.
            (void)QSqlQuery(db).exec("PRAGMA wal_checkpoint(TRUNCATE)");
            return;
        }
        if (!db.transaction()) {
            error = db.lastError().text();
            return;
        }
        Writer writer(db);
        change(writer);
        if (!writer.failed() && !writer.changes().isEmpty()) // what could not be opened again is not written
            if (const auto all = loadStudies(db); !all)
                writer.failWith(QString::fromStdString(all.error().message));
        if (!writer.failed() && !writer.changes().isEmpty())
            writer.addToJournal(d->clock().toString(Qt::ISODateWithMs), d->who, what, undoes);
        if (!writer.failed() && !db.commit()) writer.failWith(db.lastError().text());
        journalId = writer.journalId();
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
        d->onlyForLooking(warning);
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
    else if (!ProjectLock::held(d->path)) // else it may be of a recording that goes on
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
    const auto say = [&](const Expected<void>& ok) {
        if (!ok) out.problems << QString::fromStdString(ok.error().message);
    };
    out.problems << d->damage;
    if (!structureProblems(db).isEmpty()) return out;
    say(each(db, "PRAGMA integrity_check", {}, [&](const Query& q) {
        if (q.string(0) != "ok") out.problems << q.string(0).simplified();
    }));
    say(each(db, "PRAGMA foreign_key_check", {}, [&](const Query& q) {
        out.problems
            << QStringLiteral("A row of %1 points to a %2 that is not there.").arg(q.string(0), q.string(2));
    }));
    out.problems << brokenSeals(db, sealedTable("journal"));
    std::vector<Id> curves;
    say(each(db, "SELECT id, samples FROM curve", {}, [&](const Query& q) {
        if (q.id(1) == 0) return; // begun, and nothing came
        curves.push_back(q.id(0));
        out.samples += q.id(1);
    }));
    out.curves = static_cast<Id>(curves.size());
    for (const auto id : curves)
        if (const auto got = summarizeOne(db, id); !got)
            out.problems << QString::fromStdString(got.error().message);
    if (const auto files = importedFiles(); !files)
        out.problems << QString::fromStdString(files.error().message);
    else
        for (const auto id : *files) {
            const auto file = importedFile(id);
            if (const auto bytes = file ? file->unpack() : tl::unexpected(file.error()); !bytes)
                out.problems << QString::fromStdString(bytes.error().message);
        }
    say(each(db, "SELECT count(*) FROM pull", {}, [&](const Query& q) { out.pulls = q.id(0); }));
    if (const auto all = load(); !all && out.problems.isEmpty())
        out.problems << QString::fromStdString(all.error().message);
    out.problems.removeDuplicates();
    return out;
}

Expected<void> Project::saveCopy(const QString& path) const {
    if (QFileInfo::exists(path))
        return failText(QStringLiteral("%1 exists already; choose another name.").arg(path));
    const auto why = d->copyTo(QFileInfo(path).absoluteFilePath());
    if (why.isEmpty()) return {};
    return failText(QStringLiteral("The copy could not be made: %1.").arg(why));
}

} // namespace anvil::store
