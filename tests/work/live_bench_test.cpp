#include "wait.h"
#include <QCoreApplication>
#include <QTemporaryDir>
#include <anvil/link/rig_server.h>
#include <anvil/work/live_bench.h>
#include <anvil/work/open_project.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::work;

namespace {

struct LiveRig : testing::Test {
    QTemporaryDir dir;
    std::unique_ptr<OpenProject> project;
    Id specimen = 0;
    LiveBench bench;
    rig::Setup setup;

    void SetUp() override {
        project = std::move(*OpenProject::create(dir.filePath("p.anvil")));
        study::Study s;
        s.title = "One";
        const auto study = *project->addStudy(s);
        ASSERT_TRUE(project->addOption(study, "Pin"));
        ASSERT_TRUE(project->addCondition(study, "Dry"));
        ASSERT_TRUE(project->planReplicates(study, 1));
        ASSERT_TRUE(project->makePieces(study, ""));
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
    study::Pull blank() const {
        study::Pull p;
        p.specimen = specimen;
        return p;
    }
};

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
    EXPECT_EQ(pull.recording, study::Recording::done);
    const auto& readings = project->readings(project->studies()[0].study.id);
    ASSERT_TRUE(readings.byPull.contains(pull.id));
    EXPECT_NEAR(readings.byPull.at(pull.id).peak.force, server.rig().truth().peak, 25);
    EXPECT_TRUE(project->file().check().problems.isEmpty());
}

TEST_F(LiveRig, AsksARigThatAnswers) {
    link::RigServer server(quick(), true);
    setup.address = server.listenTcp(0)->toStdString();
    setup.protocol = rig::Protocol::answers;
    setup.forceQuery = "MEAS:FORC?";
    setup.displacementQuery = "MEAS:DISP?";
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().perSecond > 20; }));
    EXPECT_TRUE(bench.live().displacement);
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
    EXPECT_EQ(project->studies()[0].pulls[0].recording, study::Recording::interrupted);
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
    EXPECT_LT(std::abs(bench.live().force), 50);
}

TEST_F(LiveRig, ZeroTakesTheOffsetAway) {
    auto options = quick();
    options.logger.zeroOffset = 40;
    link::RigServer server(options, false);
    setup.address = server.listenTcp(0)->toStdString();
    ASSERT_TRUE(bench.connectTo(setup));
    ASSERT_TRUE(runUntil([&] { return bench.live().offZero; }));
    EXPECT_NEAR(bench.live().force, 40, 8);
    ASSERT_TRUE(runUntil([&] { return bench.live().time > 2; }) || true);
    bench.zero();
    EXPECT_TRUE(runUntil([&] { return std::abs(bench.live().force) < 5 && bench.live().zeroedAt >= 0; }));
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
