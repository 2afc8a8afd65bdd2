#include "store/disks.h"
#include "typed_columns.h"
#include "wait.h"
#include <QCoreApplication>
#include <QElapsedTimer>
#include <QTcpServer>
#include <QTcpSocket>
#include <QTemporaryDir>
#include <QTimer>
#include <algorithm>
#include <anvil/link/rig_server.h>
#include <anvil/project/board_commands.h>
#include <anvil/project/open_project.h>
#include <anvil/project/plan_commands.h>
#include <anvil/results/values.h>
#include <anvil/station/live_bench.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::station;
using namespace anvil::project;

namespace {

struct LiveRig : testing::Test {
    QTemporaryDir dir;
    std::unique_ptr<OpenProject> project;
    Id specimen = 0;
    LiveBench bench;
    rig::Setup setup;

    void SetUp() override {
        project = std::move(*OpenProject::create(dir.filePath("p.anvil")));
        domain::Study s;
        s.title = "One";
        const auto study = *project::addStudy(*project, s);
        ASSERT_TRUE(project::addOption(*project, study, "Pin"));
        ASSERT_TRUE(project::addCondition(*project, study, "Dry"));
        ASSERT_TRUE(project::planReplicates(*project, study, 1));
        ASSERT_TRUE(project::makePieces(*project, study, ""));
        specimen = project->studies()[0].specimens[0].id;
        setup.name = "Virtual";
        setup.layout = rig::simulatedLayout();
        setup.onArm = "!pull";
    }
    static sim::RigOptions quick() {
        sim::RigOptions o;
        o.logger.speed = 0.01;
        o.logger.noise = 1;
        return o;
    }
    /// Connects to a rig that shows this load and records one pull from it until it ends; what was kept.
    const domain::StudyData& recordOne(link::RigServer& server, quantity::Dimension load, double perSecond,
                                       int heardMs = 0) {
        server.show(load);
        setup.address = server.listenTcp(0)->toStdString();
        setup.layout = rig::simulatedLayout(load);
        EXPECT_TRUE(bench.connectTo(setup));
        EXPECT_TRUE(runUntil([&] { return bench.live().perSecond > perSecond; }));
        QElapsedTimer heard;
        heard.start();
        EXPECT_TRUE(runUntil([&] { return heard.elapsed() >= heardMs; }));
        bench.arm(project->file(), blank(), {});
        EXPECT_TRUE(runUntil([&] { return bench.live().recorder == rig::RecorderState::done; }, 20000));
        EXPECT_TRUE(runUntil([&] { return bench.live().saved; }));
        bench.reset();
        EXPECT_TRUE(project->reload());
        return project->studies()[0];
    }
    domain::Pull blank() const {
        domain::Pull p;
        p.specimen = specimen;
        return p;
    }
};

/// The first commits fail, the last one works: the pull is known by then, so that it can be judged.
TEST_F(LiveRig, APullIsKnownWhoseFirstCommitFailed) {
    link::RigServer server(quick(), false);
    setup.address = server.listenTcp(0)->toStdString();
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().perSecond > 50; }));
    {
        const FileLimit limit(1);
        bench.arm(project->file(), blank(), {});
        ASSERT_TRUE(runUntil([&] { return !bench.live().trouble.isEmpty(); }, 20000));
        EXPECT_EQ(bench.live().pull, 0);
        EXPECT_FALSE(bench.live().saved);
    }
    bench.reset();
    EXPECT_NE(bench.live().pull, 0);
    EXPECT_TRUE(project->reload());
    ASSERT_EQ(project->studies()[0].pulls.size(), 1U);
    EXPECT_EQ(project->studies()[0].pulls[0].id, bench.live().pull);
}

/// Nothing of it can be written: that is what is said, not that it is saved.
TEST_F(LiveRig, APullThatCannotBeSavedIsNotSaid) {
    link::RigServer server(quick(), false);
    setup.address = server.listenTcp(0)->toStdString();
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().perSecond > 50; }));
    const FileLimit limit(1);
    bench.arm(project->file(), blank(), {});
    ASSERT_TRUE(runUntil([&] { return !bench.live().trouble.isEmpty(); }, 20000));
    bench.reset();
    EXPECT_EQ(bench.live().pull, 0);
    EXPECT_FALSE(bench.live().saved);
    EXPECT_FALSE(bench.live().trouble.isEmpty());
}

/// A rig that only sends loads and remembers what it was told.
struct ToldRig {
    QTcpServer server;
    QTcpSocket* line = nullptr;
    QByteArray told;
    QTimer sends;
    int n = 0;
    ToldRig() {
        EXPECT_TRUE(server.listen(QHostAddress::LocalHost));
        QObject::connect(&server, &QTcpServer::newConnection, [this] {
            line = server.nextPendingConnection();
            QObject::connect(line, &QIODevice::readyRead, [this] { told += line->readAll(); });
        });
        QObject::connect(&sends, &QTimer::timeout, [this] {
            if (line && line->isOpen())
                line->write(QByteArray::number(n * 0.01) + ',' +
                            QByteArray::number(n < 100 ? 0 : 5 * (n - 100)) + ",0\n");
            ++n;
        });
        sends.start(10);
    }
    QString address() const { return QStringLiteral("tcp:127.0.0.1:%1").arg(server.serverPort()); }
};

TEST_F(LiveRig, ARigIsToldToStopBeforeItsLinkIsClosed) {
    ToldRig rig;
    setup.address = rig.address().toStdString();
    setup.onStop = "HALT";
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().fresh; }));
    bench.arm(project->file(), blank(), {});
    ASSERT_TRUE(runUntil([&] { return bench.live().recorder == rig::RecorderState::loading; }, 20000));
    bench.halt();
    EXPECT_TRUE(runUntil([&] { return rig.told.count("HALT\n") == 1; })) << rig.told.toStdString();
    EXPECT_EQ(bench.live().recorder, rig::RecorderState::done);
    bench.disconnectRig(); // whatever state it is in
    EXPECT_TRUE(runUntil([&] { return rig.told.count("HALT\n") == 2; })) << rig.told.toStdString();
}

TEST_F(LiveRig, ARigThatIsGoneBeforeItIsToldIsLeftInPeace) {
    for (int again = 0; again < 5; ++again) {
        auto rig = std::make_unique<ToldRig>();
        setup.address = rig->address().toStdString();
        setup.onStop = "HALT";
        ASSERT_TRUE(bench.connectTo(setup));
        ASSERT_TRUE(runUntil([&] { return bench.live().fresh; }));
        rig.reset();
        if (again % 2) bench.halt();
        bench.disconnectRig();
        EXPECT_EQ(bench.live().link, LinkState::none);
    }
}

TEST_F(LiveRig, RecordsAPullFromAWire) {
    link::RigServer server(quick(), false);
    setup.address = server.listenTcp(0)->toStdString();
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().perSecond > 50; }));
    EXPECT_EQ(bench.live().link, LinkState::connected);
    EXPECT_FALSE(bench.lines().isEmpty());
    bench.arm(project->file(), blank(), {});
    ASSERT_TRUE(runUntil([&] { return bench.live().recorder == rig::RecorderState::done; }, 20000));
    EXPECT_EQ(*bench.live().ending, rig::Ending::broke);
    ASSERT_TRUE(runUntil([&] { return bench.live().saved; }));
    EXPECT_GT(bench.trace().size(), 20U);
    bench.reset();
    ASSERT_TRUE(project->reload());
    ASSERT_EQ(project->studies()[0].pulls.size(), 1U);
    const auto& pull = project->studies()[0].pulls[0];
    EXPECT_EQ(pull.recording, domain::Recording::done);
    const auto& readings = project->readings(project->studies()[0].study.id);
    ASSERT_TRUE(readings.byPull.contains(pull.id));
    EXPECT_NEAR(readings.byPull.at(pull.id).peak.load, server.rig().truth().peak, 25);
    EXPECT_TRUE(project->file().check().problems.isEmpty());
}

/// A scale that says in words that it can show no more: the pull is kept, and known as a bound.
TEST_F(LiveRig, AScaleThatOverloadsGivesABound) {
    QTcpServer scale;
    ASSERT_TRUE(scale.listen(QHostAddress::LocalHost));
    QTcpSocket* wire = nullptr;
    QObject::connect(&scale, &QTcpServer::newConnection, [&] { wire = scale.nextPendingConnection(); });
    QTimer pace;
    int line = 0, pullFrom = -1;
    QObject::connect(&pace, &QTimer::timeout, [&] {
        if (!wire) return;
        const int at = pullFrom < 0 ? -1 : line - pullFrom;
        ++line;
        const double kg = at < 0 ? 0 : at < 100 ? at * 0.6 : at < 140 ? 60 : 0;
        wire->write(
            at >= 100 && at < 140
                ? QByteArray("ST,GS, ------ kg\r\n")
                : QByteArray("ST,GS,+" + QByteArray::number(kg + 0.01 * (line % 2), 'f', 2) + "kg\r\n"));
        if (line % 7 == 0) wire->write("Battery: 87 %\r\n"); // not a load, whatever its number
    });
    pace.start(10);
    setup.onArm.clear();
    setup.layout = *rig::guessLayout(
        std::vector<std::string>{"ST,GS,+0.01kg", "ST,GS,+0.00kg", "Battery: 87 %", "ST,GS,+0.01kg"});
    setup.address = QStringLiteral("tcp:127.0.0.1:%1").arg(scale.serverPort()).toStdString();
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().perSecond > 50; }));
    bench.arm(project->file(), blank(), {});
    ASSERT_TRUE(runUntil([&] { return bench.live().recorder == rig::RecorderState::armed; }));
    pullFrom = line + 30;
    ASSERT_TRUE(runUntil([&] { return bench.live().recorder == rig::RecorderState::done; }, 20000));
    EXPECT_TRUE(bench.live().overload);
    ASSERT_TRUE(runUntil([&] { return bench.live().saved; }));
    bench.reset();
    ASSERT_TRUE(project->reload());
    const auto& pull = project->studies()[0].pulls.at(0);
    EXPECT_EQ(pull.recording, domain::Recording::done);
    const auto& readings = project->readings(project->studies()[0].study.id);
    EXPECT_NEAR(readings.byPull.at(pull.id).peak.load, 59.4 * 9.80665, 0.2);
}

TEST_F(LiveRig, SeveralCellsAndDevicesAreRecordedTogether) {
    auto options = quick();
    options.legs = {0.5, 0.3};
    link::RigServer main(options, false);
    auto other = quick();
    other.seed = 9;
    other.logger.zeroOffset = 30;
    link::RigServer beside(other, false);
    beside.obey("!skew 0.01"); // runs a hundredth fast
    setup.address = main.listenTcp(0)->toStdString();
    for (const char* leg : {"leg 1", "leg 2"})
        setup.layout.columns.push_back({leg, rig::Role::load, "N", false, 400.0, {}, ""});
    setup.sides.push_back({"Anchor", beside.listenTcp(0)->toStdString(), rig::simulatedLayout()});
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] {
        const auto l = bench.live();
        return l.channels.size() == 4 && l.channels[0].fresh && l.channels[2].fresh && l.perSecond > 50;
    }));
    EXPECT_EQ(bench.live().channels[2].name, "Anchor: force");
    EXPECT_EQ(bench.live().channels[3].unit, "m");
    ASSERT_TRUE(runUntil([&] { return std::abs(bench.live().channels[2].value - 30) < 5; }));
    bench.zero();
    ASSERT_TRUE(runUntil([&] { return std::abs(bench.live().channels[2].value) < 6; }))
        << "all cells are zeroed";
    bench.arm(project->file(), blank(), {});
    ASSERT_TRUE(runUntil([&] { return bench.live().recorder == rig::RecorderState::loading; }, 20000));
    bool over = false;
    ASSERT_TRUE(runUntil(
        [&] {
            over = over || bench.live().channels[0].overLimit;
            return bench.live().recorder == rig::RecorderState::done;
        },
        20000));
    EXPECT_TRUE(over) << "half of the load is beyond 400 N";
    ASSERT_TRUE(runUntil([&] { return bench.live().saved; }));
    bench.reset();
    ASSERT_TRUE(project->reload());
    const auto curve = *project->file().curve(project->studies()[0].pulls[0].curve);
    ASSERT_EQ(curve.others.size(), 4U);
    double worst = 0;
    for (std::size_t i = 0; i < curve.load.size(); ++i)
        worst = std::max(worst, std::abs(curve.others[0].values[i] - 0.5 * curve.load[i]));
    EXPECT_LT(worst, 60) << "the leg is read at the same instants as the whole";
    EXPECT_TRUE(project->file().check().problems.isEmpty());
    ASSERT_TRUE(runUntil([&] { return bench.live().channels[2].skew.has_value(); }, 15000));
    EXPECT_NEAR(*bench.live().channels[2].skew, 0.01, 0.003);
}

TEST_F(LiveRig, ATorqueAgainstAngleIsRecordedAndRead) {
    auto options = quick();
    options.logger.speed = 0.02;
    link::RigServer server(options, false);
    const auto id = recordOne(server, quantity::Dimension::torque, 50).study.id;
    ASSERT_TRUE(project::setMethod(*project, id, "torque"));
    const auto& data = *project->study(id);
    ASSERT_EQ(data.pulls.size(), 1U);
    const auto& r = project->readings(data.study.id).byPull.at(data.pulls[0].id);
    EXPECT_EQ(r.loadKind, quantity::Dimension::torque);
    ASSERT_TRUE(r.breakaway);
    const double greatest = server.rig().truth().peak / 100;
    EXPECT_NEAR(r.peak.load, greatest, 0.02 * greatest);
    auto pulled = data;
    pulled.study.plan.method = "axial-pull";
    EXPECT_EQ(results::valueOf(pulled, data.pulls[0], &r, domain::metric("peak")).whyNot,
              "its curve is of torque, not of force");
    EXPECT_TRUE(results::valueOf(data, data.pulls[0], &r, domain::metric("breakaway")).value);
    const auto again = *project->file().curve(data.pulls[0].curve);
    EXPECT_EQ(again.loadKind, quantity::Dimension::torque);
    EXPECT_EQ(again.travelKind, quantity::Dimension::angle);
    double within = 0; // a quarter turn since the load departed
    for (auto i = r.departure; i < again.load.size(); ++i)
        if (again.travel[i] - again.travel[r.departure] <= 1.5707963267948966)
            within = std::max(within, again.load[i] - r.baseline);
    EXPECT_NEAR(*r.breakaway, within, 1e-9 * greatest);
    EXPECT_LT(*r.breakaway, greatest) << "which comes later";
    EXPECT_TRUE(project->file().check().problems.isEmpty());
}

TEST_F(LiveRig, ABurstOfADropKeepsWhatCameBeforeIt) {
    auto options = quick();
    options.logger.rate = 25000;
    options.logger.speed = 1; // over in a few hundredths of a second
    options.logger.noise = 2;
    link::RigServer server(options, false);
    const auto id = recordOne(server, quantity::Dimension::acceleration, 20000, 600).study.id;
    ASSERT_TRUE(project::setMethod(*project, id, "drop"));
    const auto& data = *project->study(id);
    ASSERT_EQ(data.pulls.size(), 1U);
    const auto curve = *project->file().curve(data.pulls[0].curve);
    const auto top =
        static_cast<std::size_t>(std::max_element(curve.load.begin(), curve.load.end()) - curve.load.begin());
    EXPECT_GT(curve.time[top] - curve.time.front(), 0.9) << "from before it was let go";
    EXPECT_NEAR(curve.load[top], server.rig().truth().peak / 100 * 9.80665, 0.02 * curve.load[top]);
    std::size_t gaps = 0;
    for (std::size_t i = 1; i < curve.time.size(); ++i)
        gaps += curve.time[i] - curve.time[i - 1] > 1.5 / 25000;
    EXPECT_EQ(gaps, 0U);
    const auto& r = project->readings(data.study.id).byPull.at(data.pulls[0].id);
    EXPECT_TRUE(results::valueOf(data, data.pulls[0], &r, domain::metric("peak_deceleration")).value);
}

TEST_F(LiveRig, AsksARigThatAnswers) {
    link::RigServer server(quick(), true);
    setup.address = server.listenTcp(0)->toStdString();
    setup.protocol = rig::Protocol::answers;
    setup.forceQuery = "MEAS:FORC?";
    setup.displacementQuery = "MEAS:DISP?";
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().perSecond > 20; }));
    EXPECT_TRUE(bench.live().travel);
}

TEST_F(LiveRig, AsksSeveralRigsAtOnceAndKeepsWhatAllOfThemAnswer) {
    auto options = quick();
    options.legs = {0.5, 0.3};
    link::RigServer main(options, true);
    auto other = quick();
    other.logger.zeroOffset = 30;
    link::RigServer beside(other, true);
    setup.address = main.listenTcp(0)->toStdString();
    setup.protocol = rig::Protocol::answers;
    EXPECT_FALSE(bench.connectTo(setup)) << "nothing to ask it for";
    setup.forceQuery = "MEAS:FORC?";
    setup.asked = *rig::columnsFrom("leg 1 [N] = MEAS:FORC2?, leg 2 [kN] = MEAS:FORC3?");
    setup.asked[0].calibration.points = {{-5000, -5000}, {100, 100}};
    setup.sides.push_back({"Anchor",
                           beside.listenTcp(0)->toStdString(),
                           {',', '.', *rig::columnsFrom("load [N] = MEAS:FORC?, way [mm] = MEAS:DISP?"), 0}});
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] {
        const auto l = bench.live();
        return l.channels.size() == 4 && l.channels[1].fresh && l.channels[2].fresh && l.perSecond > 10;
    }));
    EXPECT_EQ(bench.live().channels[2].name, "Anchor: load");
    EXPECT_NEAR(bench.live().channels[2].value, 30, 8);
    EXPECT_TRUE(bench.live().channels[0].inside);
    ASSERT_FALSE(bench.sideLines(0).isEmpty());
    EXPECT_TRUE(bench.sideLines(0).back().contains("E") || bench.sideLines(0).back().contains("e"));
    bench.arm(project->file(), blank(), {});
    ASSERT_TRUE(runUntil([&] { return bench.live().load > 800; }, 20000));
    EXPECT_TRUE(runUntil([&] { return !bench.live().channels[0].inside; })) << "beyond its table";
    EXPECT_TRUE(runUntil([&] { return bench.live().beyondTable == QStringList{"leg 1"}; }));
    ASSERT_TRUE(runUntil([&] { return bench.live().recorder == rig::RecorderState::done; }, 20000));
    ASSERT_TRUE(runUntil([&] { return bench.live().saved; }));
    bench.reset();
    ASSERT_TRUE(project->reload());
    const auto curve = *project->file().curve(project->studies()[0].pulls.at(0).curve);
    ASSERT_EQ(curve.others.size(), 4U);
    const auto top =
        static_cast<std::size_t>(std::max_element(curve.load.begin(), curve.load.end()) - curve.load.begin());
    EXPECT_NEAR(curve.others[0].values[top] / curve.load[top], 0.5, 0.05);
    EXPECT_NEAR(curve.others[1].values[top] / curve.load[top], 0.3, 0.05) << "asked in kN, said in N";
}

TEST_F(LiveRig, APullBeyondTheTableStaysMarkedAsAGuess) {
    link::RigServer server(quick(), false);
    setup.calibration.points = {{-500, -500}, {1000, 1000}};
    recordOne(server, quantity::Dimension::force, 50);
    const auto& data = project->studies()[0];
    ASSERT_EQ(data.pulls.size(), 1U);
    EXPECT_NEAR(data.pulls[0].settings.calibratedTo.value_or(0), 1000, 1e-9);
    const auto& r = project->readings(data.study.id);
    EXPECT_TRUE(r.byPull.at(data.pulls[0].id).guessed);
    EXPECT_FALSE(results::needsLook(data.pulls[0], r).empty()) << "somebody should look at it";
}

TEST_F(LiveRig, AnAnswerThatIsLostIsAskedForAnew) {
    link::RigServer server(quick(), true);
    setup.address = server.listenTcp(0)->toStdString();
    setup.protocol = rig::Protocol::answers;
    setup.forceQuery = "MEAS:FORC?";
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().perSecond > 10; }));
    server.obey("!silent 1.5");
    ASSERT_TRUE(runUntil([&] { return !bench.live().fresh; }));
    EXPECT_TRUE(runUntil([&] { return bench.live().fresh && bench.live().perSecond > 10; }));
    EXPECT_EQ(bench.live().link, LinkState::connected) << "it never went away";
}

TEST_F(LiveRig, UnpluggedInMidPullIsSavedAndMarked) {
    link::RigServer server(quick(), false);
    setup.address = server.listenTcp(0)->toStdString();
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().perSecond > 50; }));
    bench.arm(project->file(), blank(), {});
    ASSERT_TRUE(runUntil([&] { return bench.live().recorder == rig::RecorderState::loading; }, 20000));
    server.obey("!unplug 1");
    ASSERT_TRUE(runUntil([&] { return bench.live().recorder == rig::RecorderState::done; }));
    EXPECT_EQ(*bench.live().ending, rig::Ending::linkLost);
    ASSERT_TRUE(runUntil([&] { return bench.live().saved && bench.live().link == LinkState::connected; }))
        << "and the rig is found again";
    bench.reset();
    ASSERT_TRUE(project->reload());
    EXPECT_EQ(project->studies()[0].pulls[0].recording, domain::Recording::interrupted);
}

TEST_F(LiveRig, GarbageAndClockJumpsAreCountedAndDoNoHarm) {
    link::RigServer server(quick(), false);
    setup.address = server.listenTcp(0)->toStdString();
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().perSecond > 50; }));
    server.obey("!garbage 5000");
    server.obey("!clock -1000");
    EXPECT_TRUE(runUntil([&] { return bench.live().noise >= 5000 && bench.live().clockJumps == 1; }));
    const double before = bench.live().time;
    EXPECT_TRUE(runUntil([&] { return bench.live().time > before + 0.2; })) << "time goes on";
    EXPECT_LT(std::abs(bench.live().load), 50);
}

TEST_F(LiveRig, ZeroTakesTheOffsetAway) {
    auto options = quick();
    options.logger.zeroOffset = 40;
    link::RigServer server(options, false);
    setup.address = server.listenTcp(0)->toStdString();
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().offZero; }));
    EXPECT_NEAR(bench.live().load, 40, 8);
    ASSERT_TRUE(runUntil([&] { return bench.live().time > 2; }) || true);
    bench.zero();
    EXPECT_TRUE(runUntil([&] { return std::abs(bench.live().load) < 5 && bench.live().zeroedAt >= 0; }));
}

TEST_F(LiveRig, WhatCannotBeIsASentence) {
    setup.address = "tcp:10.1.2.3:4";
    EXPECT_FALSE(bench.connectTo(setup));
    setup.address = "tcp:127.0.0.1:9";
    setup.path = {{rig::RatioPart::Kind::plain, 0, 1, 0, 0, 0}};
    EXPECT_NE(bench.connectTo(setup).error().message.find("ratio of zero"), std::string::npos);
    setup.path.clear();
    ASSERT_TRUE(bench.connectTo(setup));
    EXPECT_TRUE(runUntil([&] { return bench.live().said.contains("No rig there yet"); }));
    bench.disconnectRig();
    EXPECT_EQ(bench.live().link, LinkState::none);
}

} // namespace
