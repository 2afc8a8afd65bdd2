#include "disks.h"
#include "one_piece.h"

#include "fields.h"
#include <QDir>
#include <QElapsedTimer>
#include <QFile>
#include <QFileInfo>
#include <QProcess>
#include <QSqlDatabase>
#include <QSqlQuery>
#include <QTemporaryDir>
#include <QThread>
#include <anvil/store/recording.h>
#include <cmath>
#include <csignal>
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <random>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace anvil;
using namespace anvil::store;

namespace {

struct RecordingFile : testing::Test {
    QTemporaryDir dir;
    QString path = dir.filePath("p.anvil");

    /// A project with one piece; returns its specimen.
    Id make() const { return makeOnePiece(path); }
    static rig::Sample sample(int i) { return {i * 0.001, std::sin(i * 0.01) * 100, i * 1e-6, true}; }
    /// Samples come in one by one, those before `to` from `from` on.
    static void feed(PullRecording& r, int from, int to) {
        for (int i = from; i < to; ++i) {
            const auto s = sample(i);
            r.append(std::span(&s, 1));
        }
    }
    /// The first so many come in and are committed.
    static void feedAndCommit(PullRecording& r, int to) {
        feed(r, 0, to);
        while (r.committed() < static_cast<std::size_t>(to))
            QThread::msleep(5);
    }
};

TEST_F(RecordingFile, SamplesArriveWholeInOneCurve) {
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    Id pull = 0;
    {
        domain::Pull blank;
        blank.specimen = specimen;
        blank.operatorName = "Ines";
        PullRecording r(*p, blank);
        r.begin();
        for (int i = 0; i < 3000; ++i) {
            const auto s = sample(i);
            r.append(std::span(&s, 1));
            if (i % 500 == 0) QThread::msleep(120);
        }
        r.end(rig::Ending::broke);
        while (!r.finished())
            QThread::msleep(5);
        EXPECT_EQ(r.committed(), 3000U);
        EXPECT_TRUE(r.error().isEmpty()) << r.error().toStdString();
        pull = r.pull();
    }
    const auto loaded = p->load();
    const auto* got = (*loaded)[0].pull(pull);
    ASSERT_TRUE(got);
    EXPECT_EQ(got->recording, domain::Recording::done);
    EXPECT_EQ(got->operatorName, "Ines");
    const auto curve = *p->curve(got->curve);
    ASSERT_EQ(curve.load.size(), 3000U);
    for (int i = 0; i < 3000; ++i)
        EXPECT_EQ(curve.load[static_cast<std::size_t>(i)], sample(i).load);
    EXPECT_EQ(curve.travel.size(), 3000U);
    EXPECT_TRUE(p->check().problems.isEmpty()) << p->check().problems.join("\n").toStdString();
}

TEST_F(RecordingFile, FurtherChannelsAndDevicesBesideAreLaidOnOneClock) {
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    {
        PullRecording r(*p, blank, {{{"leg 1", "N"}, {"air", "K"}}, {{{"cell B", "N"}}, {{"silent", "N"}}}});
        r.begin();
        rig::Sample early{-0.05, 0, std::nullopt, true, {-0.05 * 7}};
        r.appendSide(0, std::span(&early, 1)); // before the main device has sent anything
        QThread::msleep(150);
        for (int i = 0; i < 2000; ++i) {
            auto s = sample(i);
            s.others = {2.0 * i, 293.0 + i};
            r.append(std::span(&s, 1));
            if (i % 20 == 0) { // a slower device, out of step
                rig::Sample b{i * 0.001 + 0.0031, 0, std::nullopt, true, {(i * 0.001 + 0.0031) * 7}};
                r.appendSide(0, std::span(&b, 1));
            }
            if (i % 500 == 0) QThread::msleep(120);
        }
        r.end(rig::Ending::stopped);
    }
    const auto pull = (*p->load())[0].pulls[0];
    const auto curve = *p->curve(pull.curve);
    ASSERT_EQ(curve.others.size(), 3U) << "a device that said nothing has no channel";
    EXPECT_EQ(curve.others[0].name, "leg 1");
    EXPECT_EQ(curve.others[1].unit, "K");
    EXPECT_EQ(curve.others[2].name, "cell B");
    for (std::size_t i = 0; i < 2000; ++i) {
        EXPECT_EQ(curve.others[0].values[i], 2.0 * static_cast<double>(i));
        EXPECT_EQ(curve.others[1].values[i], 293.0 + static_cast<double>(i));
        if (curve.time[i] < 1.98) {
            EXPECT_NEAR(curve.others[2].values[i], 7 * curve.time[i], 1e-9);
        }
    }
    const auto beside = p->curvesBeside(pull.curve).value();
    ASSERT_EQ(beside.size(), 1U);
    const auto raw = *p->ownSamples(beside[0]);
    EXPECT_EQ(raw.time.size(), 101U) << "its own samples, as they came";
    EXPECT_EQ(raw.time.front(), -0.05);
    EXPECT_TRUE(raw.load.empty());
    EXPECT_TRUE(p->check().problems.isEmpty()) << p->check().problems.join('\n').toStdString();
}

/// What is read through at the end is what reading everything at once gives, in few chunks or many.
TEST_F(RecordingFile, TheSummaryIsThatOfTheWholeCurve) {
    const auto specimen = make();
    const auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    {
        PullRecording r(*p, blank, {{{"leg 1", "N"}}, {{{"cell B", "N"}}}});
        for (int k = 0; k < 12; ++k) {
            std::vector<rig::Sample> main, side;
            for (int i = k * 301; i < (k + 1) * 301; ++i) {
                auto s = sample(i);
                s.others[0] = i * 0.25;
                main.push_back(s);
                if (i % 3 == 0) side.push_back(s);
            }
            r.append(main);
            r.appendSide(0, side);
            while (r.committed() < static_cast<std::size_t>(k + 1) * 301)
                QThread::msleep(1);
        }
        const auto running = p->summarize((*p->load())[0].pulls[0].curve);
        ASSERT_TRUE(running);
        EXPECT_GT((*running)[0].chunks, 12U * 3) << "many small ones";
        r.end(rig::Ending::broke);
    }
    const auto curve = (*p->load())[0].pulls[0].curve;
    const auto found = p->summarize(curve);
    ASSERT_TRUE(found) << found.error().message;
    ASSERT_EQ(found->size(), 2U);
    for (const auto& summary : *found) {
        const auto whole = *p->ownSamples(summary.curve);
        EXPECT_EQ(summary.digest, digest(whole));
        EXPECT_EQ(summary.samples, whole.time.size());
        EXPECT_EQ(summary.pyramid.levels(), curve::Pyramid(whole.load).levels());
        EXPECT_EQ(summary.chunks, summary.channels) << "laid together";
    }
    EXPECT_EQ((*found)[0].channels, 4U);
    EXPECT_EQ((*found)[1].channels, 2U) << "a device beside has no force";
    EXPECT_TRUE((*found)[1].pyramid.levels().empty());
    const auto none = p->summarize(curve + 99);
    ASSERT_FALSE(none);
    EXPECT_NE(none.error().message.find("There is no curve"), std::string::npos) << none.error().message;
}

/// The system gives the number of a thread that has ended to the next one; connections must not follow it.
TEST_F(RecordingFile, ManyThreadsAfterOneAnotherMayRead) {
    const auto specimen = make();
    const auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    {
        PullRecording r(*p, blank);
        const auto s = sample(1);
        r.append(std::span(&s, 1));
    }
    const auto curve = (*p->load())[0].pulls[0].curve;
    for (int i = 0; i < 5; ++i) {
        std::size_t read = 0, summed = 0;
        std::thread([&] {
            if (const auto c = p->curve(curve)) read = c->load.size();
            if (const auto c = p->summarize(curve)) summed = c->at(0).samples;
        }).join();
        EXPECT_EQ(read, 1U) << "thread " << i;
        EXPECT_EQ(summed, 1U) << "thread " << i;
    }
}

TEST_F(RecordingFile, NothingRecordedLeavesNoPull) {
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    { PullRecording never(*p, blank); }
    {
        PullRecording empty(*p, blank);
        empty.begin();
        empty.end(rig::Ending::stopped);
    }
    EXPECT_TRUE((*p->load())[0].pulls.empty());
}

TEST_F(RecordingFile, ALostLinkIsMarked) {
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    {
        PullRecording r(*p, blank);
        r.begin();
        const auto s = sample(1);
        r.append(std::span(&s, 1));
        r.end(rig::Ending::linkLost);
    }
    ASSERT_EQ((*p->load())[0].pulls.size(), 1U);
    EXPECT_EQ((*p->load())[0].pulls[0].recording, domain::Recording::interrupted);
}

TEST_F(RecordingFile, AFileThatTakesNoMoreIsASentence) {
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen + 99; // no such piece: the foreign key refuses the commit
    PullRecording r(*p, blank);
    r.begin();
    const auto s = sample(1);
    r.append(std::span(&s, 1));
    r.end(rig::Ending::broke);
    while (!r.finished())
        QThread::msleep(5);
    EXPECT_TRUE(r.error().contains("Nothing was changed")) << r.error().toStdString();
    EXPECT_EQ(r.committed(), 0U);
    EXPECT_TRUE((*p->load())[0].pulls.empty());
}

TEST_F(RecordingFile, WhatAFullDiskRefusedIsKeptAndSavedOnceThereIsRoom) {
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    PullRecording r(*p, blank);
    r.begin();
    feedAndCommit(r, 1000);
    std::vector<rig::Sample> many;
    for (int i = 1000; i < 60000; ++i)
        many.push_back(sample(i));
    {
        const FileLimit limit(QFileInfo(path + "-wal").size() + 16384);
        r.append(many);
        for (int i = 0; i < 400 && r.error().isEmpty(); ++i)
            QThread::msleep(10);
        EXPECT_TRUE(r.error().contains("Nothing was changed")) << r.error().toStdString();
        EXPECT_EQ(r.committed(), 1000U) << "what was saved before stays";
        EXPECT_FALSE(r.whole());
    }
    r.end(rig::Ending::cannotSave);
    while (!r.finished())
        QThread::msleep(5);
    EXPECT_EQ(r.committed(), 60000U);
    EXPECT_TRUE(r.whole());
    const auto loaded = p->load();
    ASSERT_EQ((*loaded)[0].pulls.size(), 1U);
    EXPECT_EQ((*loaded)[0].pulls[0].recording, domain::Recording::interrupted);
    const auto curve = *p->curve((*loaded)[0].pulls[0].curve);
    ASSERT_EQ(curve.load.size(), 60000U);
    for (int i = 0; i < 60000; i += 997)
        EXPECT_EQ(curve.load[static_cast<std::size_t>(i)], sample(i).load);
    EXPECT_TRUE(p->check().problems.isEmpty());
}

/// Another program that has the file to itself for a while, such as a backup.
struct Held {
    QString name = QStringLiteral("held");
    explicit Held(const QString& path) {
        auto db = QSqlDatabase::addDatabase("QSQLITE", name);
        db.setDatabaseName(path);
        EXPECT_TRUE(db.open());
        QSqlQuery q(db);
        EXPECT_TRUE(q.exec("BEGIN IMMEDIATE"));
    }
    ~Held() { release(); }
    void release() {
        if (name.isEmpty()) return;
        QSqlDatabase::database(name).close();
        QSqlDatabase::removeDatabase(name);
        name.clear();
    }
};

TEST_F(RecordingFile, AProjectThatIsHeldForAWhileGetsTheRecordingAfterwards) {
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    PullRecording r(*p, blank);
    r.begin();
    feedAndCommit(r, 1000);
    {
        Held held(path);
        feed(r, 1000, 5000);
        for (int i = 0; i < 1500 && r.error().isEmpty(); ++i)
            QThread::msleep(10);
        EXPECT_FALSE(r.error().isEmpty()) << "it is said";
        EXPECT_TRUE(r.taped()) << "and lies beside the project meanwhile";
        feed(r, 5000, 8000);
    }
    feed(r, 8000, 10000);
    r.end(rig::Ending::broke);
    for (int i = 0; i < 1000 && !r.whole(); ++i)
        QThread::msleep(10);
    EXPECT_TRUE(r.whole());
    EXPECT_TRUE(r.error().isEmpty()) << r.error().toStdString();
    const auto loaded = p->load();
    EXPECT_EQ((*loaded)[0].pulls[0].recording, domain::Recording::done);
    const auto curve = *p->curve((*loaded)[0].pulls[0].curve);
    ASSERT_EQ(curve.load.size(), 10000U);
    for (int i = 0; i < 10000; i += 97)
        EXPECT_EQ(curve.load[static_cast<std::size_t>(i)], sample(i).load);
    EXPECT_TRUE(tapesOf(path).empty());
}

TEST_F(RecordingFile, WhatTheProjectNeverTookIsOnTheTapeAndComesInWhenItIsOpened) {
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    {
        PullRecording r(*p, blank);
        r.begin();
        feedAndCommit(r, 500);
        Held held(path);
        feed(r, 500, 3000);
        r.end(rig::Ending::broke);
        r.close();
        EXPECT_FALSE(r.whole());
        EXPECT_TRUE(r.taped()) << "what is said of the tape is true";
    }
    EXPECT_EQ(tapesOf(path).size(), 1U);
    p.reset();
    p = std::move(*Project::open(path));
    const auto loaded = p->load();
    ASSERT_EQ((*loaded)[0].pulls.size(), 1U);
    EXPECT_EQ((*loaded)[0].pulls[0].recording, domain::Recording::interrupted);
    EXPECT_EQ(p->curve((*loaded)[0].pulls[0].curve)->load.size(), 3000U);
    EXPECT_EQ(p->brokenOff(), 1);
    EXPECT_TRUE(tapesOf(path).empty());
}

TEST_F(RecordingFile, AFullDiskEndsInASavedPullAndASentence) {
    // A loop file system where root allows; elsewhere a file that cannot grow, which looks the same from
    // inside.
    SmallDisk disk(dir, 8);
    if (disk.mounted) path = disk.at + "/p.anvil";
    const auto specimen = make();
    std::unique_ptr<FileLimit> limit;
    auto p = std::move(*Project::open(path));
    if (!disk.mounted) limit = std::make_unique<FileLimit>(QFileInfo(path).size() + (4 << 20));
    domain::Pull blank;
    blank.specimen = specimen;
    std::size_t committed = 0;
    QString error;
    {
        PullRecording r(*p, blank);
        r.begin();
        for (int i = 0; i < 600000 && r.error().isEmpty(); ++i) { // 14 MB of samples onto 8
            const auto s = sample(i);
            r.append(std::span(&s, 1));
            if (i % 20000 == 0) QThread::msleep(110);
        }
        for (int k = 0; k < 50 && r.error().isEmpty(); ++k)
            QThread::msleep(20);
        error = r.error();
        committed = r.committed();
        r.end(rig::Ending::cannotSave);
    }
    fmt::print("disk full ({}): {} samples saved, then: {}\n",
               disk.mounted ? "loop file system" : "file limit", committed, error.toUtf8().constData());
    EXPECT_FALSE(error.isEmpty()) << "it is said";
    EXPECT_GT(committed, 10000U);
    p.reset();
    limit.reset();
    const auto again = Project::open(path); // a full disk must not keep the project shut
    ASSERT_TRUE(again) << again.error().message;
    const auto loaded = (*again)->load();
    ASSERT_EQ((*loaded)[0].pulls.size(), 1U);
    const auto& pull = (*loaded)[0].pulls[0];
    const auto raw = (*again)->curve(pull.curve);
    ASSERT_TRUE(raw) << raw.error().message;
    ASSERT_GE(raw->load.size(), committed) << "what was said to be safe is there";
    for (std::size_t i = 0; i < raw->load.size(); ++i)
        ASSERT_EQ(raw->load[i], sample(static_cast<int>(i)).load);
    for (const auto& problem : (*again)->check().problems)
        ADD_FAILURE() << problem.toStdString();
}

/// Somebody else fills the disk to the last byte just after the project was opened.
TEST_F(RecordingFile, ADiskThatIsFullFromTheStartIsASentence) {
    SmallDisk disk(dir, 8);
    if (disk.mounted) path = disk.at + "/p.anvil";
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    QFile filler(disk.at + "/filler");
    std::unique_ptr<FileLimit> limit; // where no file system of its own may be mounted
    if (disk.mounted) {
        disk.fill(filler);
    } else {
        limit = std::make_unique<FileLimit>(1);
    }
    domain::Pull blank;
    blank.specimen = specimen;
    {
        std::vector<rig::Sample> all;
        for (int i = 0; i < 60000; ++i)
            all.push_back(sample(i));
        PullRecording r(*p, blank);
        r.append(all); // in one piece: once a commit has failed nothing more is taken
        for (int k = 0; k < 250 && r.error().isEmpty(); ++k)
            QThread::msleep(20);
        EXPECT_TRUE(r.error().contains("Nothing was changed")) << r.error().toStdString();
        EXPECT_TRUE(!disk.mounted || r.error().contains("full")) << r.error().toStdString();
        filler.remove();
        limit.reset();
        r.end(rig::Ending::cannotSave); // and there is room again
    }
    ASSERT_EQ((*p->load())[0].pulls.size(), 1U);
    const auto raw = p->curve((*p->load())[0].pulls[0].curve);
    ASSERT_TRUE(raw);
    EXPECT_EQ(raw->load.size(), 60000U);
    EXPECT_TRUE(p->check().problems.isEmpty());
}

TEST_F(RecordingFile, AVanishedDriveIsASentenceAndWhatWasSavedIsThere) {
    SmallDisk disk(dir, 32);
    if (disk.mounted) path = disk.at + "/p.anvil";
    const auto specimen = make();
    auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    std::size_t committed = 0;
    {
        PullRecording r(*p, blank);
        r.begin();
        for (int i = 0; i < 3000; ++i) {
            const auto s = sample(i);
            r.append(std::span(&s, 1));
        }
        while (r.committed() < 3000)
            QThread::msleep(5);
        committed = r.committed();
        // The drive takes nothing more: mounted for reading only, as the kernel does when one fails, or no
        // room.
        std::unique_ptr<FileLimit> limit;
        if (disk.mounted)
            ASSERT_EQ(QProcess::execute("sh", {"-c", "mount -o remount,ro,force " + disk.at +
                                                         " 2>/dev/null || umount -l " + disk.at}),
                      0);
        else
            limit = std::make_unique<FileLimit>(1);
        for (int i = 3000; i < 6000; ++i) {
            const auto s = sample(i);
            r.append(std::span(&s, 1));
        }
        for (int k = 0; k < 100 && r.error().isEmpty() && r.committed() < 6000; ++k)
            QThread::msleep(20);
        EXPECT_TRUE(!r.error().isEmpty() || r.committed() == 6000U) << "either it is safe or it is said";
        committed = r.committed();
        r.end(rig::Ending::cannotSave);
    }
    p.reset();
    if (disk.mounted)
        QProcess::execute("sh", {"-c", "mount -o remount,rw " + disk.at + " 2>/dev/null || mount -o loop " +
                                           disk.image + " " + disk.at + " 2>/dev/null"});
    const auto again = Project::open(path);
    ASSERT_TRUE(again) << again.error().message;
    ASSERT_EQ((*(*again)->load())[0].pulls.size(), 1U);
    const auto raw = (*again)->curve((*(*again)->load())[0].pulls[0].curve);
    ASSERT_TRUE(raw);
    EXPECT_GE(raw->load.size(), committed);
}

TEST_F(RecordingFile, ADamagedRecordingDoesNotKeepTheProjectShut) {
    const auto specimen = make();
    Id curve = 0;
    {
        auto p = std::move(*Project::open(path));
        ASSERT_TRUE(p->write("half a recording", [&](Writer& w) {
            domain::Pull pull;
            pull.specimen = specimen;
            pull.curve = curve = w.beginCurve({{0}, {5}, {}});
            pull.recording = domain::Recording::running;
            w.insert("pull", toRow(pull));
            w.appendSamples(curve, 0, {{0, 1, 2}, {5, 6, 7}, {}});
        }));
    }
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", "damage");
        db.setDatabaseName(path);
        ASSERT_TRUE(db.open());
        QSqlQuery q(db);
        ASSERT_TRUE(q.exec("UPDATE chunk SET checksum = checksum + 1"));
        db.close();
    }
    QSqlDatabase::removeDatabase("damage");
    const auto p = Project::open(path);
    ASSERT_TRUE(p) << p.error().message;
    EXPECT_EQ((*(*p)->load())[0].pulls[0].recording, domain::Recording::interrupted);
    EXPECT_FALSE((*p)->check().problems.isEmpty()) << "and it is said";
}

/// Records in a child process that is killed at a random instant; the child tells of every sample through a
/// pipe before it hands it to the recording.
TEST_F(RecordingFile, AKillLosesAtMostAQuarterOfASecond) {
    const auto specimen = make();
    std::mt19937 random(7);
    const int kills =
        qEnvironmentVariableIntValue("ANVIL_KILLS") > 0 ? qEnvironmentVariableIntValue("ANVIL_KILLS") : 10;
    double worst = 0;
    std::size_t pullsBefore = 0;
    for (int k = 0; k < kills; ++k) {
        int pipes[2];
        ASSERT_EQ(pipe(pipes), 0);
        const auto child = fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            ::close(pipes[0]);
            auto p = Project::open(path);
            if (!p) _exit(3);
            domain::Pull blank;
            blank.specimen = specimen;
            PullRecording r(**p, blank);
            r.begin();
            for (int i = 0;; ++i) {
                const auto s = sample(i);
                if (::write(pipes[1], &i, sizeof i) != sizeof i) _exit(4);
                r.append(std::span(&s, 1));
                ::usleep(900);
            }
        }
        ::close(pipes[1]);
        // Wait for the first sample, then let it run for a while.
        int last = -1, got = 0;
        ASSERT_EQ(::read(pipes[0], &last, sizeof last), static_cast<ssize_t>(sizeof last));
        QElapsedTimer since;
        since.start();
        const auto until = std::uniform_int_distribution<int>(150, 700)(random);
        std::vector<std::pair<int, qint64>> emitted;
        while (since.elapsed() < until &&
               ::read(pipes[0], &got, sizeof got) == static_cast<ssize_t>(sizeof got))
            emitted.emplace_back(got, since.nsecsElapsed());
        const auto killedAt = since.nsecsElapsed();
        ASSERT_EQ(::kill(child, SIGKILL), 0);
        ::close(pipes[0]);
        ASSERT_EQ(::waitpid(child, nullptr, 0), child);
        auto p = Project::open(path);
        ASSERT_TRUE(p) << p.error().message;
        EXPECT_FALSE((*p)->readOnly()) << (*p)->readOnlyReason().toStdString();
        EXPECT_TRUE((*p)->check().problems.isEmpty()) << (*p)->check().problems.join("\n").toStdString();
        const auto loaded = (*p)->load();
        std::size_t samples = 0;
        if ((*loaded)[0].pulls.size() > pullsBefore) {
            const auto& pull = (*loaded)[0].pulls.back();
            EXPECT_EQ(pull.recording, domain::Recording::interrupted);
            const auto curve = (*p)->curve(pull.curve);
            ASSERT_TRUE(curve) << curve.error().message;
            samples = curve->load.size();
            for (std::size_t i = 0; i < samples; ++i)
                ASSERT_EQ(curve->load[i], sample(static_cast<int>(i)).load) << "the first ones, unbroken";
        }
        pullsBefore = (*loaded)[0].pulls.size();
        // The first one missing, and how long before the kill it had been emitted.
        for (const auto& [i, at] : emitted)
            if (static_cast<std::size_t>(i) >= samples) {
                worst = std::max(worst, static_cast<double>(killedAt - at) * 1e-9);
                break;
            }
    }
    fmt::print("[ measured ] {} kills: at most {:.0f} ms lost\n", kills, 1000 * worst);
    EXPECT_LE(worst, 0.25);
}

} // namespace
