// The order of things at the rig with a rig that is really there: what is built of a pull, what is told of
// it.
#include "wait.h"

#include <QTemporaryDir>
#include <anvil/link/rig_server.h>
#include <anvil/project/board_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/pull_commands.h>
#include <anvil/project/rig_commands.h>
#include <anvil/station/pull_run.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::station;
using domain::Id;

namespace {

TEST(PullFor, HoldsWhatIsKnownWhenItBegins) {
    domain::StudyData study;
    domain::Specimen piece;
    piece.id = 7;
    Station station;
    station.setupId = 3;
    station.setup.name = "Winch";
    station.setup.rigLimit = 4000;
    station.setup.cellLimit = 1000;
    station.setup.path = {{rig::RatioPart::Kind::plain, 2, 1, 0, 0, 0}};
    const auto pull = pullFor(study, piece, station, {"2026-05-04T09:00:00", "Ines"});
    ASSERT_TRUE(pull);
    EXPECT_EQ(pull->specimen, 7);
    EXPECT_EQ(pull->setup, 3);
    EXPECT_EQ(pull->operatorName, "Ines");
    EXPECT_EQ(pull->performedAt, "2026-05-04T09:00:00");
    EXPECT_EQ(pull->settings.rigLimit, 2000) << "the cell ends first";
    EXPECT_FALSE(pull->practice);
    station.setup.practice = true;
    EXPECT_NE(pullFor(study, piece, station, {}).error().message.find("virtual bench"), std::string::npos);
    study.study.plan.practice = true;
    EXPECT_TRUE(pullFor(study, piece, station, {})->practice);
    station.setup.practice = false;
    EXPECT_NE(pullFor(study, piece, station, {}).error().message.find("practice study"), std::string::npos);
    station.setup.holdSeconds = 30;
    EXPECT_EQ(recorderFor(station.setup).holdSeconds, 30);
    EXPECT_EQ(recorderFor(station.setup).limit, 2000);
}

struct AtTheBench : testing::Test {
    QTemporaryDir dir;
    std::unique_ptr<project::OpenProject> project;
    Id studyId = 0;
    LiveBench bench;
    Station station;
    qint64 clock = 0; ///< moved by hand: nothing here waits for the guard between two keys
    std::vector<Event> events;

    void SetUp() override {
        project = std::move(*project::OpenProject::create(dir.filePath("p.anvil")));
        domain::Study s;
        s.title = "One";
        studyId = *project::addStudy(*project, s);
        ASSERT_TRUE(project::addOption(*project, studyId, "Pin"));
        ASSERT_TRUE(project::addCondition(*project, studyId, "Dry"));
        ASSERT_TRUE(project::planReplicates(*project, studyId, 2));
        ASSERT_TRUE(project::makePieces(*project, studyId, ""));
        station.setup.name = "Virtual";
        station.setup.layout = rig::simulatedLayout();
        station.setup.onArm = "!pull";
    }
    const domain::StudyData& study() { return *project->study(studyId); }
    qint64 later() { return clock += PullFlow::guardMs + 1; }
    bool until(PullRun& run, PullStep step) {
        return runUntil([&] {
            for (auto& e : run.follow(later()))
                events.push_back(std::move(e));
            return run.flow().step() == step;
        });
    }
    bool heard(Event::Kind kind) const {
        return std::any_of(events.begin(), events.end(), [&](const Event& e) { return e.kind == kind; });
    }
};

TEST_F(AtTheBench, OnePieceAfterTheOtherUntilNoneIsLeft) {
    sim::RigOptions quick;
    quick.logger.speed = 0.01;
    quick.logger.noise = 1;
    link::RigServer server(quick, false);
    station.setup.address = server.listenTcp(0)->toStdString();
    station.setupId = *project::saveRig(*project, station.setup);
    PullRun run(bench);
    run.studyChanged(study(), station, later());
    EXPECT_EQ(run.flow().step(), PullStep::noRig);
    EXPECT_EQ(run.piece(), study().specimens[0].id);
    ASSERT_TRUE(bench.connectTo(station.setup));
    ASSERT_TRUE(until(run, PullStep::safety));
    while (run.flow().step() == PullStep::safety)
        (void)run.space(study(), station, later());
    ASSERT_EQ(run.flow().step(), PullStep::zero);
    for (std::size_t k = 0; k < 2; ++k) {
        if (run.flow().step() == PullStep::zero) {
            EXPECT_EQ(run.space(study(), station, later()), PullAction::nothing) << "so is zeroing";
            ASSERT_TRUE(until(run, PullStep::ready));
        }
        if (k == 0) { // another piece first, and round again
            EXPECT_EQ(run.digit(9, study(), station, later()), PullAction::nothing)
                << "that is the run's affair";
            EXPECT_EQ(run.piece(), study().specimens[1].id);
            EXPECT_EQ(run.digit(9, study(), station, later()), PullAction::nothing);
            EXPECT_EQ(run.piece(), study().specimens[0].id);
        }
        ASSERT_EQ(run.space(study(), station, later()), PullAction::arm);
        const auto piece = run.piece();
        ASSERT_TRUE(run.arm(project->file(), study(), station, {"2026-05-04T09:00:00", "Ines"}));
        events.clear();
        ASSERT_TRUE(until(run, PullStep::part));
        EXPECT_TRUE(heard(Event::Kind::armed));
        EXPECT_TRUE(heard(Event::Kind::broke));
        EXPECT_TRUE(heard(Event::Kind::saved));
        EXPECT_TRUE(heard(Event::Kind::ended));
        EXPECT_FALSE(heard(Event::Kind::trouble));
        ASSERT_TRUE(project->reload());
        ASSERT_TRUE(run.pull());
        EXPECT_EQ(study().pull(run.pull())->specimen, piece);
        while (run.flow().step() != PullStep::accept)
            (void)run.digit(1, study(), station, later());
        run.propose(study(), project->readings(studyId).find(run.pull()));
        ASSERT_EQ(run.space(study(), station, later()), PullAction::accept);
        ASSERT_TRUE(project::judge(*project, run.pull(), run.judgement()));
        EXPECT_EQ(study().pull(run.pull())->outcome.part, run.flow().part());
        run.accepted(study(), station, later());
        EXPECT_EQ(run.pull(), 0);
    }
    EXPECT_EQ(study().pulls.size(), 2U);
    EXPECT_NE(study().pulls[0].specimen, study().pulls[1].specimen);
    EXPECT_EQ(run.flow().step(), PullStep::finished);
    EXPECT_EQ(run.arm(project->file(), study(), station, {}).error().message,
              "No piece is left to be pulled.");
}

} // namespace
