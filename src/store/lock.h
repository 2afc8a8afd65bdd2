// Who may write to a project: the lock file beside it.
#pragma once

#include <QLockFile>
#include <QString>
#include <memory>

namespace anvil::store {

/// The lock of one project, given back when this goes. A lock whose process is dead is no lock; one that is
/// empty or damaged is none either once it is older than the time that writing one takes.
class ProjectLock {
public:
    ProjectLock() = default;
    ~ProjectLock();
    ProjectLock(const ProjectLock&) = delete;
    ProjectLock& operator=(const ProjectLock&) = delete;

    /// `project`: its canonical path. False: it is held elsewhere, or the lock file cannot be made; `why`
    /// says which.
    bool take(const QString& project);
    const QString& why() const { return m_why; }

    /// Whether a process that still runs holds the lock; one of another host is taken to run.
    static bool held(const QString& project);

private:
    bool tryOnce(const QString& file, bool& again);
    QString m_project, m_why;
    std::unique_ptr<QLockFile> m_lock;
};

/// "There is no room left on the disk.", where that is so; else empty.
QString fullDisk(const QString& folder);

} // namespace anvil::store
