#include "one_piece.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QTemporaryDir>
#include <QThread>
#include <anvil/store/recording.h>
#include <anvil/store/tape.h>
#include <cmath>
#include <csignal>
#include <gtest/gtest.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace anvil;
using namespace anvil::store;

namespace {

rig::Sample sample(int i) { return {i * 0.001, std::sin(i * 0.01) * 100, i * 1e-6, true, {2.0 * i}}; }

std::vector<rig::Sample> samples(int from, int to) {
    std::vector<rig::Sample> out;
    for (int i = from; i < to; ++i)
        out.push_back(sample(i));
    return out;
}

std::size_t count(const std::vector<Stretch>& stream) {
    std::size_t n = 0;
    for (const auto& stretch : stream)
        n += stretch.samples.size();
    return n;
}

struct TapeFiles : testing::Test {
    QTemporaryDir dir;
    QString path = dir.filePath("p.anvil");
    TapeHeader header{{{"specimen", 7}, {"note", "höher"}},
                      {{{"leg 1", "N"}, {"air", "K"}},
                       {{{"cell B", "N"}}},
                       quantity::Dimension::torque,
                       quantity::Dimension::angle}};

    /// A project with one piece; returns its specimen.
    Id make() const { return makeOnePiece(path); }
    /// Runs `child` in a process of its own, which kills itself; what it did to its memory is lost.
    template <class Child> static void dies(const Child& child) {
        const auto pid = fork();
        ASSERT_GE(pid, 0);
        if (pid == 0) {
            child();
            ::kill(::getpid(), SIGKILL);
        }
        int status = 0;
        ASSERT_EQ(::waitpid(pid, &status, 0), pid);
        ASSERT_TRUE(WIFSIGNALED(status)) << "it came to the point where it was to die";
    }
    QStringList leftBeside() const { return QDir(dir.path()).entryList({"p.anvil-tape-*"}, QDir::Files); }
};

TEST_F(TapeFiles, GiveEverythingBack) {
    {
        Tape tape(path, header);
        tape.add(0, samples(0, 500));
        tape.begins(0, 41);
        rig::Sample noWay{0.5, -0.0, std::nullopt, true, {1, 2}};
        tape.add(0, std::span(&noWay, 1));
        tape.begins(1, 42);
        tape.add(1, samples(0, 3));
    }
    const auto tapes = tapesOf(path);
    ASSERT_EQ(tapes.size(), 1U);
    EXPECT_EQ(tapes[0].size(), 1) << "the other side was not needed";
    const auto got = readTape(tapes[0]);
    ASSERT_TRUE(got) << got.error().message;
    EXPECT_EQ(got->header.pull, header.pull);
    EXPECT_EQ(got->header.channels.others, header.channels.others);
    EXPECT_EQ(got->header.channels.sides, header.channels.sides);
    EXPECT_EQ(got->header.channels.load, quantity::Dimension::torque);
    EXPECT_EQ(got->header.channels.travel, quantity::Dimension::angle);
    EXPECT_EQ(got->header.curves, (std::vector<Id>{41, 42}));
    ASSERT_EQ(got->streams.size(), 2U);
    ASSERT_EQ(got->streams[0].size(), 1U) << "one stretch without a hole";
    const auto& main = got->streams[0][0].samples;
    ASSERT_EQ(main.size(), 501U);
    for (int i = 0; i < 500; ++i) {
        const auto& s = main[static_cast<std::size_t>(i)];
        EXPECT_EQ(s.time, sample(i).time);
        EXPECT_EQ(s.load, sample(i).load);
        EXPECT_EQ(s.travel, sample(i).travel);
        EXPECT_EQ(s.others[0], sample(i).others[0]);
    }
    EXPECT_FALSE(main.back().travel);
    EXPECT_TRUE(std::signbit(main.back().load)) << "to the bit";
    EXPECT_EQ(main.back().others[1], 2);
    EXPECT_EQ(count(got->streams[1]), 3U);
}

TEST_F(TapeFiles, NothingRecordedMakesNone) {
    { const Tape tape(path, header); }
    EXPECT_TRUE(tapesOf(path).empty());
    {
        Tape tape(path, header);
        tape.add(0, {});
        tape.begins(0, 1);
        tape.done();
    }
    EXPECT_TRUE(leftBeside().isEmpty());
}

/// Whatever has not been committed is on one of the sides, and both stay small.
TEST_F(TapeFiles, SidesAreWipedOnceTheProjectHoldsThem) {
    constexpr std::size_t side = 20000;
    constexpr int batch = 100;
    qint64 most = 0;
    std::size_t wiped = 0;
    {
        Tape tape(path, header, side);
        for (int i = 0; i < 60; ++i) {
            tape.add(0, samples(i * batch, (i + 1) * batch));
            const auto all = static_cast<std::size_t>(i + 1) * batch;
            std::vector<Stretch> on;
            for (std::size_t until = 0; until < all;
                 until = on.empty() ? 0 : on.back().first + on.back().samples.size()) {
                QThread::msleep(1);
                if (const auto tapes = tapesOf(path); !tapes.empty())
                    if (const auto got = readTape(tapes[0])) on = got->streams[0];
            }
            const std::size_t held = i >= 5 ? static_cast<std::size_t>(i - 5) * batch : 0;
            EXPECT_EQ(on.size(), 1U) << "no hole between the sides";
            EXPECT_LE(on[0].first, held) << "nothing is wiped that is not in the project";
            tape.committed({held, 0});
            wiped = std::max(wiped, on[0].first);
            for (const auto& name : leftBeside())
                most = std::max(most, QFileInfo(dir.filePath(name)).size());
        }
    }
    EXPECT_GT(wiped, 3000U) << "of 6000";
    EXPECT_LT(most, qint64(2 * side));
    const auto got = readTape(tapesOf(path).at(0));
    ASSERT_TRUE(got);
    const auto& last = got->streams[0].back();
    EXPECT_EQ(last.first + last.samples.size(), 6000U) << "the destructor takes down what came last";
    EXPECT_EQ(last.samples.back().load, sample(5999).load);
}

TEST_F(TapeFiles, NothingIsWipedThatTheProjectDoesNotHold) {
    {
        Tape tape(path, header, 5000);
        for (int i = 0; i < 20; ++i) {
            tape.add(0, samples(i * 100, (i + 1) * 100));
            tape.add(1, samples(i, i + 1));
            tape.committed({2000, 0}); // the device beside is behind
            QThread::msleep(Tape::gatherMs);
        }
    }
    const auto got = readTape(tapesOf(path).at(0));
    ASSERT_TRUE(got);
    EXPECT_EQ(count(got->streams[1]), 20U);
}

/// Torn off or damaged anywhere, what comes before is there, exactly, and nothing else.
TEST_F(TapeFiles, TornOrDamagedGivesWhatComesBefore) {
    {
        Tape tape(path, header);
        for (int i = 0; i < 5; ++i)
            tape.add(0, samples(i * 10, (i + 1) * 10));
    }
    const auto file = tapesOf(path).at(0).at(0);
    QFile whole(file);
    ASSERT_TRUE(whole.open(QIODevice::ReadOnly));
    const auto bytes = whole.readAll();
    whole.close();
    const auto read = [&](const QByteArray& content) {
        QFile f(file);
        EXPECT_TRUE(f.open(QIODevice::WriteOnly | QIODevice::Truncate));
        f.write(content);
        f.close();
        return readTape({file});
    };
    const auto exact = [](const Expected<TapeContent>& got) {
        if (!got) return std::size_t{0};
        std::size_t n = 0;
        for (const auto& stretch : got->streams[0])
            for (const auto& s : stretch.samples)
                EXPECT_EQ(s.load, sample(static_cast<int>(n++)).load);
        return n;
    };
    std::size_t before = 0;
    for (qsizetype length = 0; length <= bytes.size(); length += 7) {
        const auto n = exact(read(bytes.left(length)));
        EXPECT_GE(n, before);
        EXPECT_EQ(n % 10, 0U);
        before = n;
    }
    EXPECT_EQ(exact(read(bytes)), 50U);
    for (qsizetype at = 0; at < bytes.size(); at += 5) {
        auto damaged = bytes;
        damaged[at] = static_cast<char>(damaged[at] ^ 0x40);
        EXPECT_LT(exact(read(damaged)), 50U) << "byte " << at;
    }
}

/// The writing thread is held up as by a slow disk; the samples arrive meanwhile, then the program dies.
TEST_F(TapeFiles, AKillLosesNothingThatTheDiskWasTooSlowFor) {
    const auto specimen = make();
    for (const bool begun : {true, false}) { // killed after the first commit, and before it
        dies([&] {
            auto p = std::move(*Project::open(path));
            domain::Pull blank;
            blank.specimen = specimen;
            blank.note = begun ? "begun" : "not begun";
            RecordedChannels channels{{{"leg 1", "N"}}, {{{"cell B", "N"}}, {{"cell C", "N"}}}};
            PullRecording r(*p, blank, channels);
            r.begin();
            if (begun) {
                r.append(samples(0, 1000));
                r.appendSide(1, samples(0, 10));
                while (r.committed() < 1000)
                    QThread::msleep(1);
            }
            std::atomic<bool> held = false;
            std::thread slow([&] {
                (void)p->write("", [&](Writer&) {
                    held = true;
                    QThread::sleep(60);
                });
            });
            while (!held)
                QThread::msleep(1);
            r.append(samples(begun ? 1000 : 0, 3000));
            r.appendSide(0, samples(0, 20));
            r.appendSide(1, samples(begun ? 10 : 0, 30));
            QThread::msleep(250);
            if (r.committed() != (begun ? 1000U : 0U)) _exit(1);
            ::kill(::getpid(), SIGKILL);
        });
        ASSERT_EQ(leftBeside().size(), 1);
        {
            const auto looking = Project::open(path, Project::Access::readOnly);
            ASSERT_TRUE(looking);
            EXPECT_EQ(leftBeside().size(), 1) << "who only looks leaves it";
            const auto notes = (*looking)->tapeNotes();
            ASSERT_EQ(notes.size(), 1);
            EXPECT_TRUE(notes[0].contains("broke off")) << "and can tell";
        }
        const auto p = Project::open(path);
        ASSERT_TRUE(p) << p.error().message;
        EXPECT_TRUE(leftBeside().isEmpty());
        const auto pulls = (*(*p)->load())[0].pulls;
        ASSERT_EQ(pulls.size(), begun ? 1U : 2U);
        const auto& pull = pulls.back();
        EXPECT_EQ(pull.recording, domain::Recording::interrupted);
        EXPECT_EQ(pull.note, begun ? "begun" : "not begun");
        const auto own = *(*p)->ownSamples(pull.curve);
        ASSERT_EQ(own.load.size(), 3000U);
        ASSERT_EQ(own.travel.size(), 3000U);
        for (int i = 0; i < 3000; ++i) {
            const auto at = static_cast<std::size_t>(i);
            ASSERT_EQ(own.time[at], sample(i).time);
            ASSERT_EQ(own.load[at], sample(i).load);
            ASSERT_EQ(own.travel[at], *sample(i).travel);
            ASSERT_EQ(own.others[0].values[at], sample(i).others[0]);
        }
        const auto beside = (*p)->curvesBeside(pull.curve).value();
        ASSERT_EQ(beside.size(), 2U);
        std::map<std::string, std::size_t> sizes;
        for (const auto id : beside) {
            const auto side = *(*p)->ownSamples(id);
            sizes[side.others.at(0).name] = side.time.size();
        }
        EXPECT_EQ(sizes, (std::map<std::string, std::size_t>{{"cell B", 20}, {"cell C", 30}}));
        for (const auto& problem : (*p)->check().problems)
            ADD_FAILURE() << problem.toStdString();
    }
}

TEST_F(TapeFiles, AnOrderlyEndLeavesNone) {
    const auto specimen = make();
    const auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    {
        PullRecording r(*p, blank);
        r.begin();
        r.append(samples(0, 100));
        while (leftBeside().isEmpty())
            QThread::msleep(1);
        r.end(rig::Ending::broke);
    }
    EXPECT_TRUE(leftBeside().isEmpty());
}

TEST_F(TapeFiles, ATapeThatIsBeingWrittenIsNoTrouble) {
    const auto specimen = make();
    const auto p = std::move(*Project::open(path));
    domain::Pull blank;
    blank.specimen = specimen;
    PullRecording r(*p, blank);
    r.append(samples(0, 100));
    while (r.committed() < 100 || leftBeside().isEmpty())
        QThread::msleep(1);
    const auto looking = Project::open(path, Project::Access::readOnly);
    ASSERT_TRUE(looking);
    EXPECT_TRUE((*looking)->tapeNotes().isEmpty());
    EXPECT_TRUE(p->tapeNotes().isEmpty());
}

TEST_F(TapeFiles, ATapeWhoseSamplesAreAllInTheProjectChangesNothing) {
    const auto specimen = make();
    dies([&] {
        auto p = std::move(*Project::open(path));
        domain::Pull blank;
        blank.specimen = specimen;
        PullRecording r(*p, blank);
        r.append(samples(0, 100));
        while (r.committed() < 100)
            QThread::msleep(1);
        ::kill(::getpid(), SIGKILL);
    });
    const auto tape = leftBeside();
    ASSERT_EQ(tape.size(), 1);
    const auto kept = dir.filePath("kept");
    ASSERT_TRUE(QFile::copy(dir.filePath(tape[0]), kept));
    for (int time = 0; time < 2; ++time) { // the second time as if it had come back from somewhere
        const auto p = std::move(*Project::open(path));
        const auto pulls = (*p->load())[0].pulls;
        ASSERT_EQ(pulls.size(), 1U);
        EXPECT_EQ(p->curve(pulls[0].curve)->load.size(), 100U);
        EXPECT_TRUE(leftBeside().isEmpty());
        EXPECT_TRUE(p->tapeNotes().isEmpty());
        EXPECT_TRUE(p->check().problems.isEmpty());
        QFile::copy(kept, dir.filePath(tape[0]));
    }
}

/// What cannot be brought in is left where it lies, and said.
TEST_F(TapeFiles, WhatFitsNowhereIsLeftAndSaid) {
    const auto specimen = make();
    {
        Tape tape(path, {{{"specimen", static_cast<qint64>(specimen + 99)}}, {}}); // no such piece
        tape.add(0, samples(0, 10));
    }
    QFile garbage(path + "-tape-0123456789abcdefa");
    ASSERT_TRUE(garbage.open(QIODevice::WriteOnly));
    garbage.write(QByteArray(5000, '\x7f'));
    garbage.close();
    const auto p = Project::open(path);
    ASSERT_TRUE(p) << p.error().message;
    EXPECT_FALSE((*p)->readOnly());
    EXPECT_EQ(leftBeside().size(), 2);
    EXPECT_TRUE((*(*p)->load())[0].pulls.empty());
    const auto notes = (*p)->tapeNotes();
    ASSERT_EQ(notes.size(), 2);
    for (const auto& note : notes)
        EXPECT_TRUE(note.contains("could not be brought into the project")) << note.toStdString();
    EXPECT_TRUE((*p)->check().problems.isEmpty()) << "the project itself is whole";
}

/// The samples of a pull that has been ended without its tape are never changed afterwards.
TEST_F(TapeFiles, AnEndedPullIsLeftAsItIs) {
    const auto specimen = make();
    Id curve = 0;
    {
        const auto p = std::move(*Project::open(path));
        domain::Pull blank;
        blank.specimen = specimen;
        PullRecording r(*p, blank);
        r.append(samples(0, 100));
        r.end(rig::Ending::broke);
        while (!r.finished())
            QThread::msleep(1);
        curve = (*p->load())[0].pulls[0].curve;
    }
    {
        Tape tape(path, {{{"specimen", static_cast<qint64>(specimen)}}, {}});
        tape.begins(0, curve);
        tape.add(0, samples(0, 200));
    }
    const auto p = std::move(*Project::open(path));
    ASSERT_EQ((*p->load())[0].pulls.size(), 1U);
    EXPECT_EQ(p->curve(curve)->load.size(), 100U);
    EXPECT_EQ(p->tapeNotes().size(), 1);
    EXPECT_EQ(leftBeside().size(), 1);
}

} // namespace
