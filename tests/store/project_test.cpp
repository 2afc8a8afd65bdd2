#include "disks.h"
#include "fields.h"
#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QLockFile>
#include <QSqlDatabase>
#include <QSqlQuery>
#include <QTemporaryDir>
#include <anvil/quantity/entry.h>
#include <anvil/store/project.h>
#include <anvil/store/texts.h>
#include <csignal>
#include <fcntl.h>
#include <gtest/gtest.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace anvil;
using namespace anvil::store;

namespace {

curve::Curve sampleCurve(std::size_t n, double scale = 1) {
    curve::Curve c;
    for (std::size_t i = 0; i < n; ++i) {
        c.time.push_back(static_cast<double>(i) / 128);
        c.load.push_back(scale * static_cast<double>((i * 2654435761U) % 100003) / 7);
        c.travel.push_back(static_cast<double>(i) * 1e-6);
    }
    return c;
}

/// A study with one of everything, in the project; what load() should give back.
domain::StudyData fill(Project& p, const curve::Curve& curve) {
    domain::StudyData d;
    auto ok = p.write("Fill", [&](Writer& w) {
        d.study = {0,
                   0,
                   "Study \"one\"",
                   "Which?",
                   "note",
                   domain::Intent::asUsed,
                   {domain::metric("stiffness"),
                    domain::Sense::inside,
                    {{2000.0, 3000.0}},
                    1500,
                    {},
                    0.15,
                    0,
                    "the peg"}};
        d.study.id = w.insert("study", toRow(d.study));
        domain::Option o{0, d.study.id, 0, "Pin µ ; DROP TABLE pull", "peg", "EUR", "", 0.35, 0.012};
        o.id = w.insert("option", toRow(o));
        d.options = {o};
        domain::Condition c{0, d.study.id, 0, "Nässe", ""};
        c.id = w.insert("condition", toRow(c));
        d.conditions = {c};
        domain::Specimen s{0, d.study.id, o.id, c.id, 1, "A1-1", "from the second box"};
        s.id = w.insert("specimen", toRow(s));
        d.specimens = {s};
        domain::Pull pull;
        pull.specimen = s.id;
        pull.curve = w.addCurve(curve);
        pull.performedAt = "2026-04-13T08:30:00";
        pull.sourceName = "log.csv";
        pull.standing = domain::Standing::atLeast;
        pull.reason = "topped out";
        pull.outcome.part = "the cord";
        pull.outcome.mode = "snapped, slowly";
        pull.outcome.end = 2;
        pull.outcome.limit = domain::Limit::tipped;
        pull.note = "two\nlines";
        pull.looked = true;
        pull.settings.rigLimit = 5000;
        pull.settings.crossheadSpeed = 0.001;
        pull.settings.breakShare = 0.3;
        pull.settings.peak = curve::Override{1.25, false};
        pull.settings.firstSlip = curve::Override{0, true};
        pull.settings.fitFrom = curve::Override{0.5, false};
        pull.settings.fitTo = curve::Override{0.75, false};
        pull.id = w.insert("pull", toRow(pull));
        domain::Pull typed;
        typed.specimen = s.id;
        typed.typed = domain::TypedValue{domain::metric("peak"), 4000, 5000, "4…5 kN"};
        typed.standing = domain::Standing::between;
        typed.id = w.insert("pull", toRow(typed));
        d.pulls = {pull, typed};
        w.addFile(ImportedFile::pack("log.csv", "1,2,3\n"));
    });
    EXPECT_TRUE(ok) << ok.error().message;
    return d;
}

struct Folder : testing::Test {
    QTemporaryDir dir;
    QString path(const char* name = "p.anvil") const { return dir.filePath(name); }
    std::unique_ptr<Project> create(const char* name = "p.anvil") {
        auto p = Project::create(path(name));
        if (!p) ADD_FAILURE() << p.error().message;
        return p ? std::move(*p) : nullptr;
    }
};

using ProjectFile = Folder;

TEST_F(ProjectFile, RoundTripGivesEverythingBack) {
    const auto curve = sampleCurve(300000); // three chunks a channel
    domain::StudyData d;
    Id curveId = 0;
    {
        auto p = create();
        d = fill(*p, curve);
        curveId = d.pulls[0].curve;
        const auto all = p->load();
        ASSERT_TRUE(all);
        ASSERT_EQ(all->size(), 1U);
        EXPECT_EQ(all->front(), d);
    }
    auto p = Project::open(path());
    ASSERT_TRUE(p);
    EXPECT_FALSE((*p)->readOnly());
    EXPECT_EQ((*p)->load()->front(), d);
    EXPECT_EQ(*(*p)->curve(curveId), curve);
    EXPECT_EQ((*p)->curveDigests().value().size(), 1U);
    EXPECT_EQ((*p)->curveDigests().value().begin()->first, digest(curve));
    const auto checked = (*p)->check();
    EXPECT_TRUE(checked.problems.isEmpty()) << checked.problems.join("\n").toStdString();
    EXPECT_EQ(checked.samples, 300000);
    EXPECT_EQ(checked.pulls, 2);
}

TEST_F(ProjectFile, IsOneFileAfterAnOrderlyCloseAndCanBeCopied) {
    domain::StudyData d;
    {
        auto p = create();
        d = fill(*p, sampleCurve(5000));
    }
    EXPECT_EQ(QDir(dir.path()).entryList(QDir::Files), QStringList{"p.anvil"})
        << "no log, no lock left beside it";
    ASSERT_TRUE(QFile::copy(path(), path("copy.anvil")));
    auto p = Project::open(path("copy.anvil"));
    ASSERT_TRUE(p);
    EXPECT_EQ((*p)->load()->front(), d);
    EXPECT_TRUE((*p)->check().problems.isEmpty());
}

/// The log's index is written to in memory: without room on the disk that ends the program.
TEST_F(ProjectFile, TheLogsIndexHasItsRoomFromTheStart) {
    {
        const auto p = create();
        fill(*p, sampleCurve(5000));
    }
    const int probe = ::open(path("probe").toUtf8().constData(), O_RDWR | O_CREAT, 0600);
    ASSERT_GE(probe, 0);
    const bool can = ::fallocate(probe, FALLOC_FL_KEEP_SIZE, 0, 4096) == 0;
    ::close(probe);
    const auto p = std::move(*Project::open(path("p.anvil")));
    struct stat index {};
    ASSERT_EQ(::stat(path("p.anvil-shm").toUtf8().constData(), &index), 0);
    if (can) {
        EXPECT_GE(index.st_blocks * 512, 64 << 10);
    }
    const auto second = Project::open(path("p.anvil"));
    ASSERT_TRUE(second);
    EXPECT_TRUE((*second)->readOnly());
    EXPECT_TRUE(p->write("still written", [](Writer& w) { w.insert("study", toRow(domain::Study{})); }));
}

TEST_F(ProjectFile, SaveACopyWhileOpen) {
    auto p = create();
    const auto d = fill(*p, sampleCurve(5000));
    ASSERT_TRUE(p->saveCopy(path("copy.anvil")));
    EXPECT_NE(p->saveCopy(path("copy.anvil")).error().message.find("exists already"), std::string::npos);
    auto copy = Project::open(path("copy.anvil"));
    ASSERT_TRUE(copy);
    EXPECT_EQ((*copy)->load()->front(), d);
}

TEST_F(ProjectFile, SecondOpenerMayLookAndIsToldWhoHoldsIt) {
    auto first = create();
    const auto d = fill(*first, sampleCurve(100));
    // A lock is a process's: the second opener has to be another one.
    const pid_t child = fork();
    if (child == 0) {
        auto second = Project::open(path());
        const bool good =
            second && (*second)->readOnly() &&
            (*second)->readOnlyReason().contains(QString::number(getppid())) &&
            (*second)->readOnlyReason().contains("open elsewhere") && (*second)->load()->front() == d &&
            !(*second)->write("no", [](Writer& w) { w.insert("study", toRow(domain::Study{})); });
        _exit(good ? 0 : 1);
    }
    int status = 0;
    waitpid(child, &status, 0);
    EXPECT_EQ(WEXITSTATUS(status), 0);
    EXPECT_FALSE(first->readOnly());
}

TEST_F(ProjectFile, ADeadHoldersLockIsNoLock) {
    { create(); }
    const pid_t child = fork();
    if (child == 0) { // takes the lock and dies without letting go
        auto p = Project::open(path());
        if (!p || (*p)->readOnly()) _exit(1);
        fill(**p, sampleCurve(1000));
        kill(getpid(), SIGKILL);
    }
    int status = 0;
    waitpid(child, &status, 0);
    ASSERT_TRUE(WIFSIGNALED(status));
    ASSERT_TRUE(QFileInfo::exists(path("p.anvil.lock")));
    auto p = Project::open(path());
    ASSERT_TRUE(p);
    EXPECT_FALSE((*p)->readOnly()) << (*p)->readOnlyReason().toStdString();
    EXPECT_EQ((*p)->load()->size(), 1U) << "what was committed before the kill is there";
    EXPECT_TRUE((*p)->check().problems.isEmpty());
}

/// Runs `body` as a user who may do with the folder what `mode` lets everybody. Its exit code is the number
/// of things that were wrong.
int asAStranger(const QString& folder, const std::function<int()>& body, mode_t mode = 0555) {
    chmod(folder.toLocal8Bit().constData(), mode);
    const pid_t child = fork();
    if (child == 0) {
        if (getuid() == 0 && (setgid(65534) != 0 || setuid(65534) != 0)) _exit(100);
        _exit(body());
    }
    int status = 0;
    waitpid(child, &status, 0);
    chmod(folder.toLocal8Bit().constData(), 0755);
    return WEXITSTATUS(status);
}

/// A link to a project is the same project: no second writer gets in through it.
TEST_F(ProjectFile, ALinkLeadsToTheSameLock) {
    auto first = create();
    ASSERT_TRUE(QFile::link(path(), path("link.anvil")));
    const pid_t child = fork();
    if (child == 0) {
        const auto second = Project::open(path("link.anvil"));
        _exit(second && (*second)->readOnly() && (*second)->readOnlyReason().contains("open elsewhere") ? 0
                                                                                                        : 1);
    }
    int status = 0;
    waitpid(child, &status, 0);
    EXPECT_EQ(WEXITSTATUS(status), 0);
    auto again = Project::open(path("link.anvil"));
    ASSERT_TRUE(again);
    EXPECT_TRUE((*again)->readOnlyReason().contains("in this program already"));
    EXPECT_FALSE(QFileInfo::exists(path("link.anvil.lock")));
}

TEST_F(ProjectFile, ADamagedLockIsNoLock) {
    { create(); }
    const auto lock = [&](const QByteArray& bytes, int secondsOld) {
        QFile file(path("p.anvil.lock"));
        ASSERT_TRUE(file.open(QIODevice::WriteOnly | QIODevice::Truncate));
        file.write(bytes);
        file.flush();
        ASSERT_TRUE(file.setFileTime(QDateTime::currentDateTime().addSecs(-secondsOld),
                                     QFileDevice::FileModificationTime));
    };
    for (const QByteArray bytes : {"", "\n", "garbage\n\x01\x02", "99999999999999999999\n\n\n"}) {
        lock(bytes, 60);
        const auto p = Project::open(path());
        ASSERT_TRUE(p);
        EXPECT_FALSE((*p)->readOnly()) << bytes.constData() << (*p)->readOnlyReason().toStdString();
    }
    lock("", 0); // somebody may be writing it this moment: waited for
    {
        const auto p = Project::open(path());
        ASSERT_TRUE(p);
        EXPECT_FALSE((*p)->readOnly());
    }
    lock("", -3600); // of a clock that runs ahead
    {
        const auto p = Project::open(path());
        ASSERT_TRUE(p);
        EXPECT_FALSE((*p)->readOnly()) << (*p)->readOnlyReason().toStdString();
    }
    QFile::remove(path("p.anvil.lock"));
    ASSERT_EQ(::mkfifo(QFile::encodeName(path("p.anvil.lock")).constData(), 0600), 0); // never opened
    const auto p = Project::open(path());
    ASSERT_TRUE(p);
    EXPECT_TRUE((*p)->readOnlyReason().contains("no file of this program"));
}

/// A sync or a restored copy puts another file there; or it is deleted.
TEST_F(ProjectFile, AFileThatIsReplacedUnderneathIsNoticedAndNothingIsWrittenToTheOther) {
    const auto write = [](Project& p, const char* title) {
        return p.write(title, [&](Writer& w) {
            domain::Study s;
            s.title = title;
            w.add(s);
        });
    };
    create();
    {
        auto p = std::move(*Project::open(path()));
        ASSERT_TRUE(write(*p, "First"));
        EXPECT_EQ(p->whyNotInPlace(), "");
        ASSERT_TRUE(p->saveCopy(path("older.anvil")));
        ASSERT_TRUE(write(*p, "Second"));
        ASSERT_EQ(::rename(QFile::encodeName(path("older.anvil")).constData(),
                           QFile::encodeName(path()).constData()),
                  0);
        EXPECT_TRUE(p->whyNotInPlace().contains("Another file was put in the place"));
        const auto third = write(*p, "Third");
        ASSERT_FALSE(third);
        EXPECT_NE(third.error().message.find("another name"), std::string::npos) << third.error().message;
        ASSERT_TRUE(p->saveCopy(path("kept.anvil"))) << "what is open can be kept";
    }
    EXPECT_EQ((*Project::open(path()))->load()->size(), 1U) << "the other one is as it was put there";
    EXPECT_EQ(QFileInfo(path("p.anvil-wal")).size(), 0) << "and no stale log lies beside it";
    {
        auto p = std::move(*Project::open(path("kept.anvil")));
        EXPECT_EQ(p->load()->size(), 2U);
        ASSERT_TRUE(QFile::remove(path("kept.anvil")));
        EXPECT_TRUE(p->whyNotInPlace().contains("deleted or moved"));
        EXPECT_FALSE(write(*p, "Third"));
        ASSERT_TRUE(p->saveCopy(path("again.anvil"))) << "even then";
    }
    EXPECT_EQ((*Project::open(path("again.anvil")))->load()->size(), 2U);
}

TEST_F(ProjectFile, IsMadeWholeUnderAnotherName) {
    create();
    EXPECT_TRUE(QDir(dir.path()).entryList({"*.new-*"}).isEmpty());
    EXPECT_FALSE(Project::create(path())) << "nothing that is there is replaced";
    const FileLimit limit(4096); // the schema has no room
    EXPECT_FALSE(Project::create(path("q.anvil")));
    EXPECT_FALSE(QFileInfo::exists(path("q.anvil")));
    EXPECT_TRUE(QDir(dir.path()).entryList({"q.anvil.new-*"}).isEmpty());
}

/// Process numbers come round again: a dead process's lock may carry our own.
TEST_F(ProjectFile, ALockWithOurOwnNumberIsADeadProcesss) {
    { create(); }
    QLockFile probe(path("probe"));
    ASSERT_TRUE(probe.tryLock());
    QFile::copy(path("probe"), path("p.anvil.lock")); // ours to the letter, and not held by us
    const auto p = Project::open(path());
    ASSERT_TRUE(p);
    EXPECT_FALSE((*p)->readOnly()) << (*p)->readOnlyReason().toStdString();
}

QStringList& qtSaid() {
    static QStringList said;
    return said;
}

/// A lock file that went with its folder, or that is another program's by now, is not taken away.
TEST_F(ProjectFile, ALockThatIsNotOursAnyMoreIsLeftAlone) {
    qtSaid().clear();
    const auto before = qInstallMessageHandler(
        [](QtMsgType, const QMessageLogContext&, const QString& text) { qtSaid() << text; });
    {
        auto p = create();
        ASSERT_TRUE(QFile::remove(path("p.anvil.lock")));
    }
    {
        auto p = create("q.anvil");
        QFile other(path("q.anvil.lock"));
        ASSERT_TRUE(other.open(QIODevice::WriteOnly | QIODevice::Truncate));
        other.write("1\nelsewhere\nanother-host\n");
    }
    qInstallMessageHandler(before);
    EXPECT_TRUE(QFileInfo::exists(path("q.anvil.lock"))) << "it is the other program's";
    EXPECT_TRUE(qtSaid().isEmpty()) << qtSaid().join("; ").toStdString();
}

TEST_F(ProjectFile, AWriteProtectedFileIsOnlyLookedAt) {
    domain::StudyData d;
    {
        auto p = create();
        d = fill(*p, sampleCurve(500));
    }
    chmod(path().toLocal8Bit().constData(), 0444);
    EXPECT_EQ(asAStranger(
                  dir.path(),
                  [&] {
                      const auto p = Project::open(path());
                      return !p ? 50
                                : !(*p)->readOnly() +
                                      !(*p)->readOnlyReason().contains("cannot be written") * 2 +
                                      !((*p)->load()->front() == d) * 4;
                  },
                  0777),
              0);
    EXPECT_EQ(QDir(dir.path()).entryList(QDir::Files), QStringList{"p.anvil"});
}

/// Whoever only reads leaves nothing beside the project, and changes nothing in it.
TEST_F(ProjectFile, ReadingLeavesNothingBeside) {
    { fill(*create(), sampleCurve(500)); }
    QFile file(path());
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    const auto bytes = file.readAll();
    {
        const auto p = Project::open(path(), Project::Access::readOnly);
        ASSERT_TRUE(p);
        EXPECT_TRUE((*p)->load());
        EXPECT_TRUE((*p)->check().problems.isEmpty());
        EXPECT_TRUE((*p)->saveCopy(path("copy.anvil")));
        QFile::remove(path("copy.anvil"));
    }
    EXPECT_EQ(QDir(dir.path()).entryList(QDir::Files), QStringList{"p.anvil"});
    file.seek(0);
    EXPECT_EQ(file.readAll(), bytes);
}

/// A healthy project on a full disk can be looked at, and the true reason why it cannot be written is said.
TEST_F(ProjectFile, AFullDiskIsSaidAndReadingStillWorks) {
    const SmallDisk disk(dir, 8);
    const auto at = disk.mounted ? disk.at + "/p.anvil" : path();
    domain::StudyData d;
    {
        auto p = std::move(*Project::create(at));
        d = fill(*p, sampleCurve(500));
    }
    QFile filler(disk.at + "/filler");
    std::unique_ptr<FileLimit> limit; // where no file system of its own may be mounted
    if (disk.mounted)
        SmallDisk::fill(filler);
    else
        limit = std::make_unique<FileLimit>(1);
    for (const auto access : {Project::Access::readWrite, Project::Access::readOnly}) {
        const auto p = Project::open(at, access);
        ASSERT_TRUE(p) << p.error().message;
        EXPECT_TRUE((*p)->readOnly());
        if (access == Project::Access::readWrite && disk.mounted) { // a limit looks otherwise from inside
            EXPECT_TRUE((*p)->readOnlyReason().contains("no room left on the disk"))
                << (*p)->readOnlyReason().toStdString();
        }
        EXPECT_TRUE((*p)->load()->front() == d);
    }
    filler.remove();
    limit.reset();
    const auto p = Project::open(at);
    ASSERT_TRUE(p);
    EXPECT_FALSE((*p)->readOnly()) << (*p)->readOnlyReason().toStdString();
}

TEST_F(ProjectFile, OpensFromAReadOnlyFolder) {
    domain::StudyData d;
    {
        auto p = create();
        d = fill(*p, sampleCurve(5000));
    }
    const auto before = QFileInfo(path()).lastModified();
    EXPECT_EQ(asAStranger(dir.path(),
                          [&] {
                              auto p = Project::open(path());
                              if (!p) return 50;
                              return !(*p)->readOnly() +
                                     !(*p)->readOnlyReason().contains("cannot be written") * 2 +
                                     !((*p)->load()->front() == d) * 4 +
                                     !((*p)->check().problems.isEmpty()) * 8;
                          }),
              0);
    EXPECT_EQ(QFileInfo(path()).lastModified(), before);
    EXPECT_EQ(QDir(dir.path()).entryList(QDir::Files), QStringList{"p.anvil"});
}

TEST_F(ProjectFile, OpensFromAReadOnlyFolderEvenAfterACrash) {
    { create(); }
    const pid_t child = fork();
    if (child == 0) {
        auto p = Project::open(path());
        fill(**p, sampleCurve(1000));
        kill(getpid(), SIGKILL);
    }
    waitpid(child, nullptr, 0);
    ASSERT_GT(QFileInfo(path("p.anvil-wal")).size(), 0);
    for (const char* name : {"p.anvil", "p.anvil-wal", "p.anvil-shm"})
        chmod(path(name).toLocal8Bit().constData(), 0444);
    EXPECT_EQ(asAStranger(dir.path(),
                          [&] {
                              auto p = Project::open(path());
                              return p ? static_cast<int>((*p)->load()->size()) : 50;
                          }),
              1)
        << "the study that is only in the write-ahead log is seen";
}

TEST_F(ProjectFile, WhatIsNoProjectIsASentence) {
    EXPECT_NE(Project::open(path("none.anvil")).error().message.find("There is no file"), std::string::npos);
    QFile text(path("text.anvil"));
    ASSERT_TRUE(text.open(QIODevice::WriteOnly));
    text.write("Time,Force\n");
    text.close();
    EXPECT_EQ(Project::open(path("text.anvil")).error().message,
              "text.anvil is not a project of this program.");
    EXPECT_FALSE(Project::open(dir.path()));
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", "other");
        db.setDatabaseName(path("other.anvil"));
        ASSERT_TRUE(db.open());
        QSqlQuery(db).exec("CREATE TABLE cats (name TEXT)");
    }
    QSqlDatabase::removeDatabase("other");
    EXPECT_EQ(Project::open(path("other.anvil")).error().message,
              "other.anvil is not a project of this program.");
    EXPECT_FALSE(Project::create(path("text.anvil"))) << "nothing is written over";
    EXPECT_FALSE(Project::create(dir.filePath("no/such/folder/p.anvil")));
}

TEST_F(ProjectFile, ANewerFileIsLeftAlone) {
    { create(); }
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", "newer");
        db.setDatabaseName(path());
        ASSERT_TRUE(db.open());
        QSqlQuery(db).exec(QStringLiteral("PRAGMA user_version = %1").arg(schemaVersion() + 1));
    }
    QSqlDatabase::removeDatabase("newer");
    EXPECT_NE(Project::open(path()).error().message.find("made by a newer version"), std::string::npos);
}

/// A project as version 1 of the program wrote it.
const QString version1 = QStringLiteral(TEST_DATA "/projects/version-1.anvil");

TEST_F(ProjectFile, AnOlderFileIsBroughtUpToDateAndKept) {
    ASSERT_TRUE(QFile::copy(version1, path()));
    QFile(path()).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    {
        auto p = Project::open(path());
        ASSERT_TRUE(p) << p.error().message;
        const auto data = (*p)->load();
        ASSERT_TRUE(data);
        ASSERT_EQ(data->at(0).pulls.size(), 2u);
        EXPECT_TRUE((*p)->curve(data->at(0).pulls[1].curve));
        EXPECT_TRUE((*p)->check().problems.isEmpty());
        auto specimen = data->at(0).specimens[0];
        specimen.x = 0.12;
        EXPECT_TRUE((*p)->write("place", [&](Writer& w) {
            w.update("specimen", specimen.id, {{"x_m", 0.12}});
        }));
    }
    auto again = Project::open(path());
    EXPECT_EQ((*again)->load()->at(0).specimens[0].x, 0.12);
    QFile old(version1), kept(path("p.version-1.anvil"));
    ASSERT_TRUE(kept.exists());
    const auto version = [](const QString& file) {
        int v = -1;
        {
            auto db = QSqlDatabase::addDatabase("QSQLITE", "look");
            db.setDatabaseName(file);
            db.open();
            QSqlQuery q(db);
            if (q.exec("PRAGMA user_version") && q.next()) v = q.value(0).toInt();
        }
        QSqlDatabase::removeDatabase("look");
        return v;
    };
    EXPECT_EQ(version(kept.fileName()), 1);
    EXPECT_EQ(version(path()), schemaVersion());
}

TEST_F(ProjectFile, AFileOfVersionTwoKeepsItsRigsAndOutcomes) {
    ASSERT_TRUE(QFile::copy(QStringLiteral(TEST_DATA "/projects/version-2.anvil"), path()));
    QFile(path()).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    auto p = Project::open(path());
    ASSERT_TRUE(p) << p.error().message;
    EXPECT_TRUE(QFile::exists(path("p.version-2.anvil")));
    const auto data = (*p)->load();
    ASSERT_EQ(data->at(0).pulls.size(), 2u);
    const auto& pull = data->at(0).pulls.back();
    EXPECT_EQ(pull.operatorName, "Ines");
    EXPECT_EQ(pull.outcome.where, "at the tuck");
    ASSERT_EQ(pull.outcome.marks.size(), 1u);
    EXPECT_EQ((*p)->setups().value().size(), 1u);
    EXPECT_TRUE((*p)->curve(pull.curve));
    EXPECT_FALSE((*p)->hasMoreChannels(pull.curve).value());
    EXPECT_TRUE((*p)->check().problems.isEmpty());
}

/// What was one text in version 5 is fields now, and every number is what it was.
TEST_F(ProjectFile, AFileOfVersionFiveKeepsWhatBroke) {
    ASSERT_TRUE(QFile::copy(QStringLiteral(TEST_DATA "/projects/version-5.anvil"), path()));
    QFile(path()).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    auto p = Project::open(path());
    ASSERT_TRUE(p) << p.error().message;
    EXPECT_TRUE(QFile::exists(path("p.version-5.anvil")));
    const auto data = (*p)->load();
    ASSERT_TRUE(data) << data.error().message;
    const auto& s = data->at(0);
    EXPECT_EQ(s.study.goal.need, 2000);
    EXPECT_EQ(s.study.goal.margin, 0.12);
    EXPECT_EQ(s.study.goal.part, "the splice");
    ASSERT_EQ(s.pulls.size(), 5U);
    const auto& o = s.pulls[0].outcome;
    EXPECT_EQ(o.part, "the splice");
    EXPECT_EQ(o.mode, "drew out");
    EXPECT_EQ(o.end, 2);
    EXPECT_EQ(o.where, "");
    EXPECT_EQ(o.limit, domain::Limit::broke);
    EXPECT_EQ(o.marks, (std::vector<domain::Mark>{{1.5, ""}, {2, "creak"}}));
    EXPECT_EQ(s.pulls[1].outcome.part, "Net wire");
    EXPECT_EQ(s.pulls[1].outcome.mode, "broke outside the splice, near the drum");
    EXPECT_EQ(s.pulls[1].outcome.end, 1);
    EXPECT_EQ(s.pulls[1].outcome.where, "end 1: at the second tuck") << "what else was noted stays";
    EXPECT_EQ(s.pulls[2].outcome.part, "");
    EXPECT_EQ(s.pulls[2].outcome.limit, domain::Limit::toppedOut);
    EXPECT_EQ(s.pulls[2].standing, domain::Standing::atLeast);
    EXPECT_EQ(s.pulls[3].outcome.where, "by the drum");
    EXPECT_EQ(s.pulls[4].outcome.part, "the splice");
    EXPECT_EQ(s.pulls[4].outcome.mode, "");
    for (std::size_t i = 1; i < 5; ++i)
        EXPECT_EQ(s.pulls[i].typed->value, 1800 + 100 * static_cast<double>(i));
    const auto raw = (*p)->curve(s.pulls[0].curve);
    ASSERT_TRUE(raw);
    ASSERT_EQ(raw->load.size(), 400U);
    for (std::size_t k = 50; k < 350; ++k)
        EXPECT_EQ(raw->load[k], (static_cast<double>(k) - 50) * 8);
    EXPECT_TRUE((*p)->check().problems.isEmpty());
}

TEST_F(ProjectFile, OutcomesSurviveTheirJson) {
    domain::Outcome o;
    EXPECT_EQ(outcomeFromJson(outcomeToJson(o)), o);
    o.where = "at the \"tuck\"";
    o.part = "the splice";
    o.mode = "drew out, then tore";
    o.end = 2;
    o.limit = domain::Limit::outOfTravel;
    o.afterwards = "bent";
    o.whileUnloading = true;
    o.shares = {{"let go", 0.6}, {"tore", 0.4}};
    o.marks = {{1.25, "creak"}};
    o.phases = {{"set", "down", "held", {}, 3.5}, {"reset", "", "", {}, {}}};
    for (const auto& [typed, dimension] : {std::pair{"12345.5 N", quantity::Dimension::force},
                                           {">0.12 m", quantity::Dimension::length},
                                           {"4…5 N·m", quantity::Dimension::torque},
                                           {"12 ± 1 kN", quantity::Dimension::force},
                                           {"90 °", quantity::Dimension::angle}})
        o.phases[0].readings.push_back(*quantity::parseEntry(typed, dimension));
    o.entered.fields = {{"height", "1.2 m"}};
    o.entered.steps = {{100, 0.3, true}, {150, {}, false}};
    o.entered.gauge = {{1777900000, 0.0142}};
    o.entered.unloadedFrom = 1777900000;
    EXPECT_EQ(outcomeFromJson(outcomeToJson(o)), o);
    const auto earlier =
        outcomeFromJson(R"({"phases": [{"name": "set", "force_n": 400, "travel_m": 0.12}]})");
    ASSERT_EQ(earlier->phases[0].readings.size(), 2U) << "one force and one way, as it once was";
    EXPECT_EQ(earlier->phases[0].readings[0].si, 400);
    EXPECT_EQ(earlier->phases[0].readings[1].si, 0.12);
    EXPECT_EQ(outcomeFromJson("").value(), domain::Outcome{}) << "nothing was noted";
}

/// What is stored is not trusted: what cannot be is an error, never a usual value.
TEST(StoredJson, WhatCannotBeIsASentence) {
    for (const char* broken :
         {"{", "[]", "{\"phases\": [{\"readings\": [4, {\"measures\": \"x\"}]}]}", "{\"shares\": 4}",
          "{\"entered\": {\"steps\": [1]}}", "{\"entered\": {\"gauge\": [[]]}}",
          "{\"entered\": {\"fields\": [[\"a\"]]}}", "{\"shares\": [{\"share\": 1e301}]}", "{\"where\": 7}"})
        EXPECT_FALSE(outcomeFromJson(broken)) << broken;
    for (const char* broken :
         {"nonsense", "{\"steps_done\": [[]]}", "{\"steps_done\": [[\"a\"]]}", "{\"window\": [1]}",
          "{\"replicates\": 1.5}", "{\"replicates\": 1e12}", "{\"squares\": {}}", "{\"direction\": \"up\"}",
          "{\"seed\": \"x\"}", "{\"seed\": 4}", "{\"run_order\": [4]}", "{\"squares\": [{\"option\": -1}]}"})
        EXPECT_FALSE(planFromJson(broken)) << broken;
    for (const char* broken : {"{}", "[1]", "[{\"readings_m\": [\"1\"]}]"})
        EXPECT_FALSE(pieceFromJson(broken)) << broken;
    for (const char* broken : {"not json", "{\"peak_s\": \"nothing\"}", "{\"rig_limit_n\": \"5 kN\"}"})
        EXPECT_FALSE(settingsFromJson(broken)) << broken;
    EXPECT_EQ(planFromJson("{}").value().plan, domain::Plan{});
    EXPECT_EQ(planFromJson("{}").value().goal, domain::Goal{});
    EXPECT_EQ(settingsFromJson("").value(), curve::ReadingSettings{});
    EXPECT_TRUE(pieceFromJson("[]").value() == PieceTexts{});
}

TEST(StoredFiles, ALengthThatLiesIsFound) {
    auto file = ImportedFile::pack("log.csv", "1,2,3\n");
    EXPECT_EQ(file.unpack().value(), "1,2,3\n");
    for (const qint64 lie : {0LL, -1LL, 5LL, 7LL, 1LL << 60}) {
        auto other = file;
        other.bytes = lie;
        EXPECT_FALSE(other.unpack()) << lie;
    }
    auto other = file;
    other.digest[3] = other.digest[3] == QLatin1Char('0') ? QLatin1Char('1') : QLatin1Char('0');
    EXPECT_FALSE(other.unpack());
}

TEST_F(ProjectFile, AnOlderFileOpenedForLookingStaysAsItIs) {
    ASSERT_TRUE(QFile::copy(version1, path()));
    const auto bytes = [](const QString& name) {
        QFile f(name);
        f.open(QIODevice::ReadOnly);
        return f.readAll();
    };
    const auto before = bytes(path());
    {
        auto p = Project::open(path(), Project::Access::readOnly);
        ASSERT_TRUE(p) << p.error().message;
        EXPECT_EQ((*p)->load()->at(0).pulls.size(), 2u);
        EXPECT_FALSE((*p)->write("no", [](Writer&) {}));
    }
    EXPECT_EQ(bytes(path()), before);
    EXPECT_FALSE(QFile::exists(path("p.version-1.anvil")));
}

TEST_F(ProjectFile, ADamagedChunkIsFoundAndNotRead) {
    Id curve = 0;
    {
        auto p = create();
        curve = fill(*p, sampleCurve(1000)).pulls[0].curve;
    }
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", "damage");
        db.setDatabaseName(path());
        ASSERT_TRUE(db.open());
        QSqlQuery q(db);
        ASSERT_TRUE(q.exec("UPDATE chunk SET data = zeroblob(length(data)) WHERE channel = 1"));
    }
    QSqlDatabase::removeDatabase("damage");
    auto p = Project::open(path());
    ASSERT_TRUE(p);
    EXPECT_FALSE((*p)->curve(curve));
    EXPECT_EQ((*p)->check().problems.size(), 1);
}

TEST_F(ProjectFile, AFailedChangeLeavesNothingBehind) {
    auto p = create();
    const auto d = fill(*p, sampleCurve(100));
    const auto before = p->journal().value().size();
    EXPECT_FALSE(p->write("Half", [](Writer& w) {
        w.insert("study", toRow(domain::Study{}));
        w.insert("pull", {{"specimen", 987654}}); // misses what it needs
    }));
    EXPECT_FALSE(p->write("Nowhere", [](Writer& w) { w.update("pull", 987654, {{"note", "x"}}); }));
    EXPECT_FALSE(p->write("Evil", [](Writer& w) { w.insert("journal", {{"what", "x"}}); }));
    EXPECT_EQ(p->load()->size(), 1U);
    EXPECT_EQ(p->load()->front(), d);
    EXPECT_EQ(p->journal().value().size(), before);
}

TEST_F(ProjectFile, JournalHoldsBeforeAndAfter) {
    auto p = create();
    p->setWho("Ash");
    p->setClock([] { return QDateTime(QDate(2026, 5, 4), QTime(9, 0), Qt::UTC); });
    const auto d = fill(*p, sampleCurve(100));
    const auto entry = p->write("Note", [&](Writer& w) {
        w.update("pull", d.pulls[0].id, {{"note", "new"}});
    });
    ASSERT_TRUE(entry);
    const auto j = p->journalEntry(*entry);
    ASSERT_TRUE(j);
    EXPECT_EQ(j->who, "Ash");
    EXPECT_EQ(j->at.left(19), "2026-05-04T09:00:00");
    ASSERT_EQ(j->changes.size(), 1);
    EXPECT_EQ(j->changes[0].toObject()["before"].toObject()["note"], "two\nlines");
    EXPECT_EQ(j->changes[0].toObject()["after"].toObject()["note"], "new");
    EXPECT_EQ(*p->write("Same",
                        [&](Writer& w) {
                            w.update("pull", d.pulls[0].id, {{"note", "new"}});
                        }),
              0)
        << "no change, no journal row";
}

TEST_F(ProjectFile, SameFileIsKeptOnce) {
    auto p = create();
    Id a = 0, b = 0, c = 0;
    ASSERT_TRUE(p->write("Files", [&](Writer& w) {
        a = w.addFile(ImportedFile::pack("one.csv", "abc"));
        b = w.addFile(ImportedFile::pack("two.csv", "abc"));
        c = w.addFile(ImportedFile::pack("three.csv", "abd"));
        w.insert("study", toRow(domain::Study{}));
    }));
    EXPECT_EQ(a, b);
    EXPECT_NE(a, c);
    EXPECT_EQ(*p->importedFile(c)->unpack(), "abd");
    EXPECT_EQ(p->importedFile(a)->name, "one.csv");
    EXPECT_EQ(p->importedFiles().value().size(), 2U);
    EXPECT_FALSE(p->importedFile(99));
    auto damaged = *p->importedFile(a);
    damaged.packed[damaged.packed.size() - 1] = static_cast<char>(~damaged.packed[damaged.packed.size() - 1]);
    EXPECT_FALSE(damaged.unpack());
}

TEST(Settings, JsonRoundTrip) {
    curve::ReadingSettings s;
    EXPECT_EQ(settingsFromJson(settingsToJson(s)), s);
    s.rigLimit = 1234.5678901234567;
    s.calibratedTo = 1000.1;
    s.breakPoint = curve::Override{0.1, false};
    s.peak = curve::Override{0, true};
    EXPECT_EQ(settingsFromJson(settingsToJson(s)), s);
}

TEST_F(ProjectFile, TellsWhatTouchedAPull) {
    auto p = Project::create(path());
    ASSERT_TRUE(p);
    EXPECT_EQ((*p)->lastChange(), "");
    (*p)->setClock([] { return QDateTime::fromString("2026-05-04T09:00:00", Qt::ISODate); });
    const auto data = fill(**p, sampleCurve(10));
    auto pull = data.pulls[0];
    for (const char* note : {"one", "two", "three"}) {
        auto after = pull;
        after.note = note;
        ASSERT_TRUE((*p)->write(note, [&](Writer& w) { w.change(pull, after); }));
        pull = after;
    }
    auto option = data.options[0];
    option.name = "Renamed";
    ASSERT_TRUE((*p)->write("name", [&](Writer& w) { w.change(data.options[0], option); }));
    EXPECT_EQ((*p)->lastChange().left(10), "2026-05-04");
    const auto history = (*p)->historyOfPull(pull.id, 3);
    ASSERT_EQ(history.size(), 3U);
    EXPECT_EQ(history[0].what, "three");
    EXPECT_EQ((*p)->historyOfPull(pull.id, 10).back().what, "Fill");
    EXPECT_TRUE((*p)->historyOfPull(pull.id + 99, 3).empty());
    EXPECT_TRUE((*p)->historyOfPull(pull.id / 10, 3).empty()) << "a part of a number is another one";
}

} // namespace

int main(int argc, char** argv) {
    testing::InitGoogleTest(&argc, argv);
    QCoreApplication application(argc, argv);
    return RUN_ALL_TESTS();
}
