#include "lock.h"

#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <QSysInfo>
#include <cerrno>
#include <csignal>
#include <cstdlib>
#include <mutex>
#include <set>
#include <sys/stat.h>
#include <sys/statvfs.h>
#include <unistd.h>
#include <utility>
#include <vector>

namespace anvil::store {
namespace {

/// What this process holds itself: a lock file with our own number in it may be a dead process's, for numbers
/// come round again.
struct Ours {
    std::mutex mutex;
    std::set<std::pair<pid_t, QString>> projects; // with the number, for a process may fork
};
Ours& ours() {
    static Ours o;
    return o;
}

QString lockOf(const QString& project) { return project + ".lock"; }
constexpr qint64 writtenWithinMs = 2000; ///< a lock file is empty for as long as it takes to write it
constexpr int mostTries = 60;            ///< of 50 ms each: nothing that lies there is waited for longer

/// Something lies there that is no file: a pipe would be opened without end.
bool noFile(const QString& path) {
    struct stat info {};
    return ::lstat(QFile::encodeName(path).constData(), &info) == 0 && !S_ISREG(info.st_mode);
}

} // namespace

QString fullDisk(const QString& folder) {
    struct statvfs s {};
    if (::statvfs(QFile::encodeName(folder).constData(), &s) != 0) return {};
    const auto room = static_cast<std::uint64_t>(s.f_bavail) * s.f_frsize;
    // SQLite's log index alone takes eight pages of memory.
    return room < (32U << 10) || (s.f_files > 0 && s.f_favail == 0)
               ? QStringLiteral("There is no room left on the disk.")
               : QString();
}

ProjectLock::~ProjectLock() {
    if (!m_lock) return;
    qint64 pid = 0;
    QString host, app;
    if (m_lock->getLockInfo(&pid, &host, &app) && pid == ::getpid() && host == QSysInfo::machineHostName())
        m_lock->unlock();
    else { // the folder is gone, or somebody else's lies there: giving it back would take theirs away
        static auto& lost = *new std::vector<std::unique_ptr<QLockFile>>; // its end would give it back, too
        lost.push_back(std::move(m_lock));
    }
    const std::lock_guard guard(ours().mutex);
    ours().projects.erase({::getpid(), m_project});
}

bool ProjectLock::take(const QString& project) {
    m_project = project;
    {
        const std::lock_guard guard(ours().mutex);
        if (!ours().projects.insert({::getpid(), project}).second) {
            m_why =
                QStringLiteral("It is open in this program already. You can look, but not change anything.");
            return false;
        }
    }
    bool again = true;
    for (int n = 0; again && n < mostTries; ++n)
        if (tryOnce(lockOf(project), again)) return true;
    const std::lock_guard guard(ours().mutex);
    ours().projects.erase({::getpid(), project});
    return false;
}

bool ProjectLock::tryOnce(const QString& file, bool& again) {
    again = false;
    if (noFile(file)) {
        m_why = QStringLiteral("%1 is in the way and is no file of this program, so the project is open for "
                               "looking only.")
                    .arg(QFileInfo(file).fileName());
        return false;
    }
    auto lock = std::make_unique<QLockFile>(file);
    lock->setStaleLockTime(0); // only a dead holder is stale
    if (lock->tryLock(0)) {
        m_lock = std::move(lock);
        return true;
    }
    const QFileInfo info(file);
    if (lock->error() != QLockFile::LockFailedError) {
        const auto full = fullDisk(info.absolutePath());
        m_why = (full.isEmpty() ? QStringLiteral("The folder cannot be written") : full.chopped(1)) +
                ", so the project is open for looking only.";
        return false;
    }
    qint64 pid = 0;
    QString host, app;
    if (lock->getLockInfo(&pid, &host, &app)) {
        if (pid == ::getpid() && host == QSysInfo::machineHostName()) // of a dead process with our number
            again = QFile::remove(file);
        m_why =
            QStringLiteral("It is open elsewhere: by %1 on %2 (process %3) since %4. You can look, but not "
                           "change anything.")
                .arg(info.owner().isEmpty() ? QStringLiteral("somebody") : info.owner(), host)
                .arg(pid)
                .arg(info.lastModified().toString("d MMM hh:mm"));
        return false;
    }
    m_why =
        QStringLiteral("%1 is in the way and cannot be taken away, so the project is open for looking only.")
            .arg(info.fileName());
    if (!info.exists()) {
        again = true; // given back this moment
    } else if (std::abs(info.lastModified().msecsTo(QDateTime::currentDateTime())) > writtenWithinMs) {
        again = QFile::remove(file);
    } else {
        ::usleep(50'000);
        again = true;
    }
    return false;
}

bool ProjectLock::held(const QString& project) {
    {
        const std::lock_guard guard(ours().mutex);
        if (ours().projects.count({::getpid(), project})) return true;
    }
    qint64 pid = 0;
    QString host, app;
    if (noFile(lockOf(project)) || !QLockFile(lockOf(project)).getLockInfo(&pid, &host, &app)) return false;
    if (host != QSysInfo::machineHostName()) return true;
    return pid != ::getpid() && (::kill(static_cast<pid_t>(pid), 0) == 0 || errno == EPERM);
}

} // namespace anvil::store
