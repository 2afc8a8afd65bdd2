// How a project's file is reached: the readers' connections and the one that writes.
#include "project_private.h"
#include <QFile>
#include <QUrl>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <fcntl.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

namespace anvil::store {
namespace {

/// Never that of a thread that has ended, as the system's own would be.
int threadNumber() {
    static std::atomic<int> threads{0};
    thread_local const int number = ++threads;
    return number;
}

/// What a file of a log's index takes for a log of eight thousand pages.
constexpr off_t indexBytes = 64 << 10;

} // namespace

Project::Private::~Private() {
    closeReaders(); // first: the last connection to go must be able to fold the log into the file
    if (!writer) return;
    writer->run([this] {
        {
            auto db = QSqlDatabase::database(writeName, false);
            if (db.isOpen())
                exec(db, "PRAGMA wal_checkpoint(PASSIVE)"); // the last to close takes the log away
            db.close();
        }
        QSqlDatabase::removeDatabase(writeName);
    });
}

void Project::Private::onlyForLooking(const QString& why) {
    readOnly = true;
    readOnlyReason = why;
}

void Project::Private::takeLock() {
    if (!lock.take(path)) onlyForLooking(lock.why());
}

QSqlDatabase Project::Private::reader() const {
    const std::lock_guard guard(readersMutex);
    auto& name = readers[threadNumber()];
    if (!name.isEmpty()) return QSqlDatabase::database(name, false);
    name = uniqueName("read");
    return openReader(name);
}

QSqlDatabase Project::Private::openReader(const QString& name) const {
    auto db = QSqlDatabase::addDatabase("QSQLITE", name);
    db.setDatabaseName(databaseName);
    auto options = connectOptions;
    if (access == FileAccess::beside || access == FileAccess::immutable) options += ";QSQLITE_OPEN_READONLY";
    if (access == FileAccess::immutable) options += ";QSQLITE_OPEN_URI";
    db.setConnectOptions(options);
    if (db.open() && access == FileAccess::tidy) exec(db, "PRAGMA query_only = ON");
    return db;
}

void Project::Private::closeReader() const {
    const std::lock_guard guard(readersMutex);
    const auto at = readers.find(threadNumber());
    if (at == readers.end()) return;
    QSqlDatabase::removeDatabase(at->second);
    readers.erase(at);
}

void Project::leaveThread() const { d->closeReader(); }

void Project::Private::closeReaders() {
    const std::lock_guard guard(readersMutex);
    for (const auto& [thread, name] : readers)
        QSqlDatabase::removeDatabase(name);
    readers.clear();
}

/// Whether the file can be read this way; `why` not.
bool Project::Private::readAs(FileAccess way, QString& why) {
    closeReaders();
    access = way;
    databaseName = path;
    if (way == FileAccess::immutable)
        databaseName = "file:" + QString::fromUtf8(QUrl::toPercentEncoding(path, "/")) + "?immutable=1";
    if (way == FileAccess::copy) {
        copy = std::make_unique<QTemporaryDir>();
        databaseName = copy->filePath("project.anvil");
        const auto take = [](const QString& from, const QString& to) {
            return QFile::copy(from, to) && QFile(to).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
        };
        if (!copy->isValid() || !take(path, databaseName) || !take(path + "-wal", databaseName + "-wal")) {
            why = QStringLiteral("it was not closed properly and there is no room for a copy of it");
            return false;
        }
    }
    Query q(reader(), "SELECT count(*) FROM sqlite_master"); // the first that looks into the file
    while (q.next()) {
    }
    why = q.error();
    return why.isEmpty();
}

Expected<void> Project::Private::findReading() {
    const QFileInfo file(path), folder(file.absolutePath());
    const bool log = QFileInfo(path + "-wal").size() > 0, writable = folder.isWritable();
    std::vector<FileAccess> ways;
    if (!readOnly) // until the writer is there, for the file may prove damaged
        ways = {log ? FileAccess::beside : FileAccess::tidy};
    else if (ProjectLock::held(path))
        ways = {FileAccess::beside};
    else if (log)
        ways = writable ? std::vector{FileAccess::beside, FileAccess::copy} : std::vector{FileAccess::copy};
    else
        ways = writable && file.isWritable() ? std::vector{FileAccess::tidy, FileAccess::immutable}
                                             : std::vector{FileAccess::immutable};
    QString why;
    for (const auto way : ways)
        if (readAs(way, why)) return {};
    const auto full = fullDisk(file.absolutePath());
    if (!readOnly) { // the files that go with a log could not be made: perhaps it can be looked at
        onlyForLooking(full.isEmpty() ? QStringLiteral("Nothing can be written here (%1).").arg(why) : full);
        QString alone;
        if (readAs(log ? FileAccess::copy : FileAccess::immutable, alone)) return {};
    }
    return failText(QStringLiteral("%1 cannot be read (%2).%3")
                        .arg(file.fileName(), why, full.isEmpty() ? full : " " + full));
}

QString Project::Private::copyTo(const QString& target) const {
    auto db = reader();
    if (access == FileAccess::tidy)
        exec(db, "PRAGMA query_only = OFF"); // it would count the copy as a change
    auto why = Query(db, "VACUUM INTO ?", {target}).error();
    if (access == FileAccess::tidy) exec(db, "PRAGMA query_only = ON");
    if (!why.isEmpty())
        QFile::remove(target); // half a copy
    else                       // who may not read the project may not read its copy either
        QFile::setPermissions(target, QFile::permissions(path));
    return why;
}

QString Project::Private::useLog(QSqlDatabase& db) {
    QSqlQuery q(db);
    logged = q.exec("PRAGMA journal_mode = WAL") && q.next() && q.value(0).toString() == "wal";
    q.finish();
    if (logged && q.exec("SELECT count(*) FROM sqlite_master")) { // makes the log and its index
        q.finish();
        reserveIndex();
    }
    return logged ? QString() : QStringLiteral("this folder does not support safe writing (write-ahead log)");
}

/// Gives the log's index its room on the disk for good. SQLite writes to it in memory; had the disk become
/// full meanwhile, the system would end the program (SIGBUS). By a process of its own, for closing the file
/// here would take away SQLite's locks on it. Where the file system cannot do it, nothing is lost.
void Project::Private::reserveIndex() const {
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

namespace {
std::optional<std::pair<unsigned long long, unsigned long long>> identityOf(const QString& path) {
    struct stat info {};
    if (::stat(QFile::encodeName(path).constData(), &info) != 0) return std::nullopt;
    return std::pair<unsigned long long, unsigned long long>(info.st_dev, info.st_ino);
}
} // namespace

QString Project::Private::whyNotInPlace() const {
    if (!identity) return {};
    const auto now = identityOf(path);
    const auto name = QFileInfo(path).fileName();
    if (!now)
        return QStringLiteral("%1 was deleted or moved while it was open. Save a copy of what is open under "
                              "another name.")
            .arg(name);
    if (*now != *identity)
        return QStringLiteral(
                   "Another file was put in the place of %1 while it was open. Save a copy of what is "
                   "open under another name.")
            .arg(name);
    return {};
}

/// Makes the file under a name of its own and gives it its name once it is whole, so that a program that is
/// killed meanwhile leaves nothing that looks like a project. Where there can be no log it is said here.
Expected<void> Project::Private::makeFile() const {
    const auto part = path + QStringLiteral(".new-%1").arg(::getpid());
    const auto name = uniqueName("make");
    QString error;
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", name);
        db.setDatabaseName(part);
        db.setConnectOptions(connectOptions);
        if (!db.open()) error = db.lastError().text();
        QSqlQuery q(db);
        const auto must = [&](const QString& sql) {
            if (error.isEmpty() && !q.exec(sql)) error = q.lastError().text();
        };
        must("PRAGMA page_size = 16384"); // samples and files are large: few pieces
        must("PRAGMA synchronous = FULL");
        if (error.isEmpty() && !db.transaction()) error = db.lastError().text();
        must(QStringLiteral("PRAGMA application_id = %1").arg(applicationId));
        must(QStringLiteral("PRAGMA user_version = %1").arg(schemaVersion()));
        for (const auto& sql : schema())
            must(sql);
        if (error.isEmpty() && !db.commit()) error = db.lastError().text();
        must("PRAGMA journal_mode = WAL");
        if (error.isEmpty() && !(q.next() && q.value(0).toString() == "wal"))
            error = QStringLiteral("this folder does not support safe writing (write-ahead log)");
        q.finish();
        must("PRAGMA journal_mode = DELETE"); // the first samples go straight into the file
        q.finish();
        db.close();
    }
    QSqlDatabase::removeDatabase(name);
    const auto from = QFile::encodeName(part), to = QFile::encodeName(path);
    if (error.isEmpty() &&
        ::renameat2(AT_FDCWD, from.constData(), AT_FDCWD, to.constData(), RENAME_NOREPLACE) != 0) {
        // Not every file system can; a link never replaces anything either.
        if (errno == EEXIST || ::link(from.constData(), to.constData()) != 0) {
            if (errno != EPERM && errno != EOPNOTSUPP && errno != ENOSYS)
                error = QString::fromLocal8Bit(std::strerror(errno));
            else if (::rename(from.constData(), to.constData()) != 0)
                error = QString::fromLocal8Bit(std::strerror(errno));
        }
    }
    for (const char* end : {"", "-wal", "-shm", "-journal"})
        QFile::remove(part + end);
    if (error.isEmpty()) return {};
    return failText(
        QStringLiteral("%1 cannot be written: %2.").arg(QFileInfo(path).fileName(), error.simplified()));
}

Expected<void> Project::Private::startWriter(bool fresh) {
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
        const auto must = [&](const QString& sql) {
            if (error.isEmpty() && !q.exec(sql)) error = q.lastError().text();
        };
        must("PRAGMA foreign_keys = ON");
        must("PRAGMA synchronous = FULL");
        if (fresh) return;
        if (error.isEmpty()) error = useLog(db);
        must("BEGIN IMMEDIATE"); // a file that takes no writing says so now, before anything is broken
        must("ROLLBACK");
    });
    identity = identityOf(path);
    closeReaders(); // from now on they are beside it
    access = FileAccess::beside;
    if (!error.isEmpty())
        return failText(
            QStringLiteral("%1 cannot be written: %2.").arg(QFileInfo(path).fileName(), error.simplified()));
    return {};
}

} // namespace anvil::store
