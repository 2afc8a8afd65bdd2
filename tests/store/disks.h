// Disks without room.
#pragma once

#include <QDir>
#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <csignal>
#include <gtest/gtest.h>
#include <sys/resource.h>
#include <unistd.h>

/// The largest file this process may write, put back at the end; what a full disk looks like from inside.
struct FileLimit {
    rlimit before{};
    explicit FileLimit(qint64 bytes) {
        std::signal(SIGXFSZ, SIG_IGN);
        ::getrlimit(RLIMIT_FSIZE, &before);
        const rlimit now{static_cast<rlim_t>(bytes), before.rlim_max};
        ::setrlimit(RLIMIT_FSIZE, &now);
    }
    void lift() const { ::setrlimit(RLIMIT_FSIZE, &before); }
    ~FileLimit() { lift(); }
};

/// A file system of its own with little room, where this process may mount one; else none.
struct SmallDisk {
    QString at, image;
    bool mounted = false;
    SmallDisk(const QTemporaryDir& dir, int megabytes)
        : at(dir.filePath("disk")), image(dir.filePath("image")) {
        QDir().mkpath(at);
        QFile file(image);
        if (!file.open(QIODevice::WriteOnly) || !file.resize(qint64(megabytes) << 20)) return;
        file.close();
        mounted = QProcess::execute("sh", {"-c", "mkfs.ext4 -q -O ^has_journal " + image +
                                                     " 2>/dev/null && mount -o loop " + image + " " + at +
                                                     " 2>/dev/null"}) == 0;
    }
    /// Fills it to the last byte.
    static void fill(QFile& filler) {
        ASSERT_TRUE(filler.open(QIODevice::WriteOnly | QIODevice::Unbuffered));
        for (qint64 size = 64 << 10; size > 0; size = size > 512 ? size / 2 : 0)
            while (filler.write(QByteArray(static_cast<qsizetype>(size), 'x')) > 0)
                ::fsync(filler.handle());
    }
    ~SmallDisk() {
        if (mounted) QProcess::execute("umount", {"-l", at});
    }
};
