// What an open project holds: its connections, its lock, and the thread that alone writes.
#pragma once

#include "schema.h"
#include <QDir>
#include <QFileInfo>
#include <QLockFile>
#include <QSqlDatabase>
#include <QSqlError>
#include <QSqlQuery>
#include <QSysInfo>
#include <QTemporaryDir>
#include <QVariant>
#include <anvil/store/project.h>
#include <atomic>
#include <cerrno>
#include <condition_variable>
#include <csignal>
#include <deque>
#include <fcntl.h>
#include <future>
#include <mutex>
#include <sys/wait.h>
#include <thread>
#include <unistd.h>

namespace anvil::store {

/// Of a connection; Qt knows them by name.
inline QString uniqueName(const char* kind) {
    static std::atomic<int> number{0};
    return QStringLiteral("anvil-%1-%2").arg(kind).arg(++number);
}

inline auto failText(const QString& message) { return fail(message.toStdString()); }

inline bool exec(QSqlDatabase& db, const QString& sql) {
    QSqlQuery q(db);
    return q.exec(sql);
}

inline QString currentUser() {
    for (const char* name : {"USER", "LOGNAME"})
        if (auto user = qEnvironmentVariable(name); !user.isEmpty()) return user;
    return QStringLiteral("unknown");
}

/// Of one curve, without those beside it. `samples` are those of its last channel; all have as many.
Expected<CurveSummary> summarizeOne(QSqlDatabase& db, Id curve);

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
    bool logged = false;                ///< the write-ahead log is in use
    std::vector<QStringList> leftTapes; ///< found at opening, and not to be brought in
    mutable std::mutex readersMutex;
    mutable std::map<int, QString> readers; ///< by `threadNumber`

    /// Never that of a thread that has ended, as the system's own would be.
    static int threadNumber() {
        static std::atomic<int> threads{0};
        thread_local const int number = ++threads;
        return number;
    }

    /// A read connection belongs to the thread that made it, so each thread gets its own.
    QSqlDatabase reader() const {
        const std::lock_guard guard(readersMutex);
        auto& name = readers[threadNumber()];
        if (!name.isEmpty()) return QSqlDatabase::database(name, false);
        name = uniqueName("read");
        return openReader(name);
    }

    /// For a thread that will not live as long as the project: to be closed and removed by its name.
    QSqlDatabase openReader(const QString& name) const {
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

    /// Whether a process that still runs holds the lock; one of another host is taken to run.
    bool heldElsewhere() const {
        qint64 pid = 0;
        QString host, app;
        if (!QLockFile(path + ".lock").getLockInfo(&pid, &host, &app)) return false;
        return host != QSysInfo::machineHostName() || ::kill(static_cast<pid_t>(pid), 0) == 0 ||
               errno == EPERM;
    }

    /// Changes to the write-ahead log; what went wrong, or nothing.
    QString useLog(QSqlDatabase& db) {
        QSqlQuery q(db);
        logged = q.exec("PRAGMA journal_mode = WAL") && q.next() && q.value(0).toString() == "wal";
        q.finish();
        if (logged && q.exec("SELECT count(*) FROM sqlite_master")) { // makes the log and its index
            q.finish();
            reserveIndex();
        }
        return logged ? QString()
                      : QStringLiteral("this folder does not support safe writing (write-ahead log)");
    }

    /// Gives the log's index its room on the disk for good. SQLite writes to it in memory; had the disk
    /// become full meanwhile, the system would end the program (SIGBUS). By a process of its own, for closing
    /// the file here would take away SQLite's locks on it. Where the file system cannot do it, nothing is
    /// lost.
    void reserveIndex() const {
        const auto file = QFile::encodeName(path + "-shm");
        const auto child = ::fork();
        if (child == 0) { // only what may be called after a fork of many threads
            const int fd = ::open(file.constData(), O_RDWR | O_CLOEXEC);
            if (fd >= 0) (void)::fallocate(fd, FALLOC_FL_KEEP_SIZE, 0, indexBytes);
            ::_exit(0);
        }
        while (child > 0 && ::waitpid(child, nullptr, 0) < 0 && errno == EINTR) {
        }
    }
    static constexpr off_t indexBytes = 64 << 10; ///< of a log of eight thousand pages

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

} // namespace anvil::store
