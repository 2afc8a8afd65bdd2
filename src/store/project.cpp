#include <anvil/store/project.h>

#include "samples.h"
#include "schema.h"
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QJsonDocument>
#include <QLockFile>
#include <QSqlDatabase>
#include <QSqlError>
#include <QSqlQuery>
#include <QSqlRecord>
#include <QTemporaryDir>
#include <QUrl>
#include <QVariant>
#include <anvil/curve/steady.h>
#include <atomic>
#include <condition_variable>
#include <deque>
#include <future>
#include <mutex>
#include <set>
#include <thread>

namespace anvil::store {
namespace {

QString uniqueName(const char* kind) {
    static std::atomic<int> number{0};
    return QStringLiteral("anvil-%1-%2").arg(kind).arg(++number);
}

auto failText(const QString& message) { return fail(message.toStdString()); }

bool exec(QSqlDatabase& db, const QString& sql) {
    QSqlQuery q(db);
    return q.exec(sql);
}

QString currentUser() {
    for (const char* name : {"USER", "LOGNAME"})
        if (auto user = qEnvironmentVariable(name); !user.isEmpty()) return user;
    return QStringLiteral("unknown");
}

/// Runs jobs one after another on a thread of its own.
class WriterThread {
public:
    WriterThread() : m_thread([this] { loop(); }) {}
    ~WriterThread() {
        {
            const std::lock_guard lock(m_mutex);
            m_stop = true;
        }
        m_wake.notify_one();
        m_thread.join();
    }
    /// Waits until the job is done.
    void run(const std::function<void()>& job) {
        std::packaged_task<void()> task(job);
        auto done = task.get_future();
        {
            const std::lock_guard lock(m_mutex);
            m_jobs.push_back(std::move(task));
        }
        m_wake.notify_one();
        done.get();
    }

private:
    void loop() {
        for (;;) {
            std::packaged_task<void()> job;
            {
                std::unique_lock lock(m_mutex);
                m_wake.wait(lock, [this] { return m_stop || !m_jobs.empty(); });
                if (m_jobs.empty()) return;
                job = std::move(m_jobs.front());
                m_jobs.pop_front();
            }
            job();
        }
    }
    std::mutex m_mutex;
    std::condition_variable m_wake;
    std::deque<std::packaged_task<void()>> m_jobs;
    bool m_stop = false;
    std::thread m_thread;
};

} // namespace

struct Project::Private {
    QString path, readOnlyReason, connectOptions = "QSQLITE_BUSY_TIMEOUT=5000";
    QString databaseName;
    bool readOnly = false;
    std::unique_ptr<QLockFile> lock;
    std::unique_ptr<QTemporaryDir> copy; ///< of a project left open in a folder that cannot be written
    std::function<QDateTime()> clock = [] { return QDateTime::currentDateTime(); };
    QString who = currentUser();
    QString writeName = uniqueName("write");
    std::unique_ptr<WriterThread> writer;
    bool logged = false; ///< the write-ahead log is in use
    mutable std::mutex readersMutex;
    mutable std::map<std::thread::id, QString> readers;

    /// A read connection belongs to the thread that made it, so each thread gets its own.
    QSqlDatabase reader() const {
        const std::lock_guard guard(readersMutex);
        auto& name = readers[std::this_thread::get_id()];
        if (!name.isEmpty()) return QSqlDatabase::database(name, false);
        name = uniqueName("read");
        auto db = QSqlDatabase::addDatabase("QSQLITE", name);
        db.setDatabaseName(databaseName);
        db.setConnectOptions(connectOptions + ";QSQLITE_OPEN_READONLY" +
                             (databaseName.startsWith("file:") ? ";QSQLITE_OPEN_URI" : ""));
        db.open();
        return db;
    }

    ~Private() {
        // Readers first: the last connection to go must be able to fold the log into the file.
        for (const auto& [thread, name] : readers)
            QSqlDatabase::removeDatabase(name);
        if (writer) {
            writer->run([this] {
                {
                    auto db = QSqlDatabase::database(writeName, false);
                    if (db.isOpen())
                        exec(db,
                             "PRAGMA wal_checkpoint(PASSIVE)"); // the last one to close takes the log away
                    db.close();
                }
                QSqlDatabase::removeDatabase(writeName);
            });
            writer.reset();
        }
    }

    /// Takes the lock file beside the project; on failure the project is read-only and says why.
    void takeLock() {
        lock = std::make_unique<QLockFile>(path + ".lock");
        lock->setStaleLockTime(0); // only a dead holder is stale
        if (lock->tryLock(0)) return;
        readOnly = true;
        qint64 pid = 0;
        QString host, app;
        if (lock->error() == QLockFile::LockFailedError && lock->getLockInfo(&pid, &host, &app)) {
            const QFileInfo info(path + ".lock");
            readOnlyReason =
                QStringLiteral("It is open elsewhere: by %1 on %2 (process %3) since %4. You can look, but "
                               "not change anything.")
                    .arg(info.owner().isEmpty() ? QStringLiteral("somebody") : info.owner(), host)
                    .arg(pid)
                    .arg(info.lastModified().toString("d MMM hh:mm"));
        } else {
            readOnlyReason =
                QStringLiteral("The folder cannot be written, so the project is open for looking only.");
        }
        lock.reset();
    }

    /// Changes to the write-ahead log; what went wrong, or nothing.
    QString useLog(QSqlDatabase& db) {
        QSqlQuery q(db);
        logged = q.exec("PRAGMA journal_mode = WAL") && q.next() && q.value(0).toString() == "wal";
        return logged ? QString()
                      : QStringLiteral("this folder does not support safe writing (write-ahead log)");
    }

    /// Where the copy of a file of an older version goes: beside it, under a name that is free.
    QString oldCopyPath(int version) const {
        const QFileInfo info(path);
        for (int n = 1;; ++n) {
            auto name = info.absolutePath() + "/" + info.completeBaseName() +
                        QStringLiteral(".version-%1").arg(version) +
                        (n > 1 ? QStringLiteral("-%1").arg(n) : QString()) + "." + info.suffix();
            if (!QFileInfo::exists(name)) return name;
        }
    }

    /// Brings a file to this program's version, all or nothing; what went wrong, or nothing.
    static QString migrate(const QString& file, int version) {
        const auto name = uniqueName("migrate");
        QString error;
        {
            auto db = QSqlDatabase::addDatabase("QSQLITE", name);
            db.setDatabaseName(file);
            QSqlQuery q(db);
            if (!db.open() || !db.transaction())
                error = db.lastError().text();
            else
                q = QSqlQuery(db);
            for (auto v = static_cast<std::size_t>(version); v < schemaVersion && error.isEmpty(); ++v)
                for (const char* sql : migrations[v - 1])
                    if (error.isEmpty() && !q.exec(sql)) error = q.lastError().text();
            if (error.isEmpty() && !q.exec(QStringLiteral("PRAGMA user_version = %1").arg(schemaVersion)))
                error = q.lastError().text();
            q.finish();
            if (error.isEmpty() && !db.commit()) error = db.lastError().text();
            db.close();
        }
        QSqlDatabase::removeDatabase(name);
        return error;
    }

    /// Opens a file of an older version: the file itself is brought up to date after a copy was kept, or, for
    /// looking only, a copy is.
    Expected<void> bringUpToDate(int version) {
        QString target = path;
        if (readOnly) {
            copy = std::make_unique<QTemporaryDir>();
            target = copy->filePath("project.anvil");
        }
        const auto kept = readOnly ? target : oldCopyPath(version);
        bool copied = false;
        QString why;
        {
            auto db = reader();
            QSqlQuery q(db);
            q.prepare("VACUUM INTO ?");
            q.addBindValue(kept);
            copied = q.exec();
            why = q.lastError().text();
            db.close();
        }
        {
            const std::lock_guard guard(readersMutex);
            for (const auto& [thread, name] : readers)
                QSqlDatabase::removeDatabase(name);
            readers.clear();
        }
        if (!copied)
            return failText(
                QStringLiteral("%1 is of an older version and no copy of it could be kept (%2), so "
                               "it was left as it is.")
                    .arg(QFileInfo(path).fileName(), why));
        if (const auto error = migrate(target, version); !error.isEmpty())
            return failText(QStringLiteral("%1 could not be brought to this version: %2. It is unchanged.")
                                .arg(QFileInfo(path).fileName(), error));
        if (readOnly) databaseName = target;
        return {};
    }

    Expected<void> startWriter(bool fresh) {
        writer = std::make_unique<WriterThread>();
        QString error;
        writer->run([&] {
            auto db = QSqlDatabase::addDatabase("QSQLITE", writeName);
            db.setDatabaseName(path);
            db.setConnectOptions(connectOptions);
            if (!db.open()) {
                error = db.lastError().text();
                return;
            }
            QSqlQuery q(db);
            if (fresh) // samples and files are large: large pages keep them in few pieces
                exec(db, "PRAGMA page_size = 16384");
            exec(db, "PRAGMA foreign_keys = ON");
            exec(db, "PRAGMA synchronous = FULL");
            if (!fresh) {
                error = useLog(db);
                return;
            }
            db.transaction();
            exec(db, QStringLiteral("PRAGMA application_id = %1").arg(applicationId));
            exec(db, QStringLiteral("PRAGMA user_version = %1").arg(schemaVersion));
            for (const char* sql : schema)
                if (error.isEmpty() && !q.exec(sql)) error = q.lastError().text();
            if (error.isEmpty() && !db.commit()) error = db.lastError().text();
        });
        if (!error.isEmpty())
            return failText(
                QStringLiteral("%1 cannot be written: %2.").arg(QFileInfo(path).fileName(), error));
        return {};
    }
};

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
    project->endInterruptedRecordings();
    return project;
}

void Project::endInterruptedRecordings() {
    if (d->readOnly) return;
    std::vector<std::pair<Id, Id>> running;
    {
        auto db = d->reader();
        QSqlQuery q(db);
        q.exec("SELECT id, curve FROM pull WHERE recording = 'running'");
        while (q.next())
            running.emplace_back(q.value(0).toLongLong(), q.value(1).toLongLong());
    }
    for (const auto& [pull, curve] : running) {
        const auto end = [&](bool whole) {
            return write(QStringLiteral("A recording was interrupted"), [&](Writer& w) {
                if (whole) w.finishCurve(curve);
                w.update("pull", pull, {{"recording", "interrupted"}});
            });
        };
        // Damaged samples, or a disk without room to lay them together, must not keep the project shut.
        if (!end(true)) (void)end(false);
    }
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
        const auto got = ownSamples(id);
        if (!got)
            out.problems << QString::fromStdString(got.error().message);
        else if (static_cast<Id>(samplesIn(*got)) != samples ||
                 (!hash.isEmpty() && digest(*got) != hash)) // none yet while it is being recorded
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
