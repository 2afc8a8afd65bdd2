// What an open project holds: its connections, its lock, and the thread that alone writes.
#pragma once

#include "lock.h"
#include "query.h"
#include "schema.h"
#include <QDir>
#include <QFileInfo>
#include <QTemporaryDir>
#include <anvil/store/project.h>
#include <atomic>
#include <condition_variable>
#include <deque>
#include <future>
#include <mutex>
#include <thread>

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

/// Everything but samples, by study, each validated. Error: a sentence about the first thing that cannot be.
Expected<std::vector<domain::StudyData>> loadStudies(const QSqlDatabase& db);
/// What is wrong with the structure of a database, in sentences: tables or indices that are missing, made
/// otherwise, or not this program's.
QStringList structureProblems(const QSqlDatabase& db);
/// What is wrong with anything but samples and kept files, in sentences: structure, pages, references, seals.
/// Takes as long as reading those tables once.
QStringList damageOf(const QSqlDatabase& db);

/// Of one curve, without those beside it. `samples` are those of its last channel; all have as many.
Expected<CurveSummary> summarizeOne(const QSqlDatabase& db, Id curve);

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
    /// Goes on at once; the job is done before the thread ends.
    void post(std::function<void()> job) {
        {
            const std::lock_guard lock(m_mutex);
            m_jobs.emplace_back(std::move(job));
        }
        m_wake.notify_one();
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

/// How the file is read.
enum class FileAccess {
    beside,    ///< as a reader beside a writer; makes the files that go with the log, and leaves them
    tidy,      ///< the same, with the right to clear them away behind it; changes nothing else
    immutable, ///< the file as it lies, nothing beside it is looked at
    copy       ///< a copy of the file and its log in a temporary folder
};

struct Project::Private {
    QString path, readOnlyReason, connectOptions = "QSQLITE_BUSY_TIMEOUT=5000";
    QString databaseName;
    FileAccess access = FileAccess::beside;
    bool readOnly = false;
    ProjectLock lock;
    std::unique_ptr<QTemporaryDir> copy; ///< of a project that could not be read where it lies
    std::function<QDateTime()> clock = [] { return QDateTime::currentDateTime(); };
    QString who = currentUser();
    QString writeName = uniqueName("write");
    std::unique_ptr<WriterThread> writer;
    bool logged = false; ///< the write-ahead log is in use
    /// The file itself, whatever name leads to it: device and number.
    std::optional<std::pair<unsigned long long, unsigned long long>> identity{};
    QString whyNotInPlace() const;
    int brokenOff = 0;                  ///< recordings that were running when the program ended
    std::vector<QStringList> leftTapes; ///< found at opening, and not to be brought in
    QStringList damage;                 ///< found at opening: nothing of it is shown or written
    mutable std::mutex readersMutex;
    mutable std::map<int, QString> readers; ///< by `threadNumber`

    ~Private();

    /// Takes the lock file beside the project; on failure the project is read-only and says why.
    void takeLock();
    void onlyForLooking(const QString& why);

    /// A read connection belongs to the thread that made it, so each thread gets its own.
    QSqlDatabase reader() const;
    /// For a thread that will not live as long as the project: to be closed and removed by its name.
    QSqlDatabase openReader(const QString& name) const;
    void closeReader() const; ///< of this thread
    void closeReaders();

    /// Finds a way to read the file, and leaves nothing beside it where it is only looked at. Error: there is
    /// none, with the reason.
    Expected<void> findReading();
    /// Brings a file of an older version up to date after a copy of it was kept; for looking only, a copy is.
    Expected<void> bringUpToDate(int version);
    /// Opens the one connection that writes, on its thread. Error: nothing can be written.
    Expected<void> makeFile() const;
    Expected<void> startWriter(bool fresh);
    /// A complete copy of what is in the project now; what went wrong, or nothing.
    QString copyTo(const QString& target) const;
    /// Changes to the write-ahead log; what went wrong, or nothing.
    QString useLog(QSqlDatabase& db);

private:
    bool readAs(FileAccess way, QString& why);
    void reserveIndex() const;
    QString oldCopyPath(int version) const;
};

} // namespace anvil::store
