// Rigs that a plan names, limits that were told of imported curves, and limits that proved wrong.
#include <QFile>
#include <QTemporaryDir>
#include <anvil/project/board_commands.h>
#include <anvil/project/import.h>
#include <anvil/project/rig_commands.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::project;

namespace {

struct Rigs : testing::Test {
    QTemporaryDir dir;
    QString path = dir.filePath("p.anvil");
    std::unique_ptr<OpenProject> p = std::move(*OpenProject::create(path));
    Id study = 0;

    void import(std::optional<double> limit) {
        ImportChoices choices;
        choices.rigLimit = limit;
        const auto plan = lookAt({QStringLiteral(DEMO_LOGS "/wedge-socket_salt-soaked.csv")}, choices, {});
        auto done = importRuns(p->file(), {}, plan);
        ASSERT_TRUE(done) << done.error().message;
        ASSERT_TRUE(p->adopt(done->journal, done->what, std::move(done->read)));
        study = p->studies().back().study.id;
    }
    const domain::StudyData& data() const { return *p->study(study); }
    rig::Setup winch() const {
        rig::Setup s;
        s.name = "Winch";
        s.address = "tcp:127.0.0.1:4711";
        s.rigLimit = 9000;
        return s;
    }
};

TEST_F(Rigs, ALimitToldAtAnImportIsARig) {
    import(4200);
    const auto rigs = p->rigs();
    ASSERT_EQ(rigs.size(), 1U);
    const auto& [id, rig] = rigs[0];
    EXPECT_EQ(rig.rigLimit, 4200);
    EXPECT_TRUE(rig.address.empty());
    EXPECT_TRUE(onlyTold(*p, rig));
    EXPECT_FALSE(onlyTold(*p, winch()));
    EXPECT_EQ(data().study.plan.rig, rig.name) << "and the plan names it";
    EXPECT_EQ(data().reach.limit, 4200);
    for (const auto& pull : data().pulls) {
        EXPECT_EQ(pull.setup, id);
        EXPECT_FALSE(recordedHere(*p, pull));
    }
    ASSERT_TRUE(p->undo());
    EXPECT_TRUE(p->rigs().empty()) << "it came with the import and goes with it";
}

TEST_F(Rigs, WithoutALimitThereIsNone) {
    import({});
    EXPECT_TRUE(p->rigs().empty());
    EXPECT_EQ(data().study.plan.rig, "");
    ASSERT_TRUE(setImportedLimit(*p, study, 4200));
    EXPECT_TRUE(p->readings(study).byPull.at(data().pulls[0].id).offScale);
    EXPECT_EQ(p->setupOf(data().pulls[0].setup)->rigLimit, 4200);
    ASSERT_TRUE(setImportedLimit(*p, study, 9000));
    EXPECT_FALSE(p->readings(study).byPull.at(data().pulls[0].id).offScale) << "corrected, so it counts";
    EXPECT_EQ(p->rigs().size(), 1U) << "another version of the same rig";
    ASSERT_TRUE(setImportedLimit(*p, study, {}));
    EXPECT_EQ(data().pulls[0].setup, 0);
    EXPECT_EQ(data().pulls[0].settings.rigLimit, std::nullopt);
}

/// What was recorded keeps the limit of its own set-up, until somebody says that this one was wrong.
TEST_F(Rigs, ARecordedPullKeepsItsOwnLimit) {
    import(4200);
    const auto setup = *saveRig(*p, winch());
    const auto recorded = data().pulls[1].id;
    ASSERT_TRUE(p->changePull(recorded, "recorded", [&](domain::Pull& pull) {
        pull.setup = setup;
        pull.settings.rigLimit = 9000;
    }));
    EXPECT_TRUE(recordedHere(*p, *data().pull(recorded)));
    ASSERT_TRUE(setImportedLimit(*p, study, 5000));
    EXPECT_EQ(data().pulls[0].settings.rigLimit, 5000);
    EXPECT_EQ(data().pull(recorded)->settings.rigLimit, 9000);
    EXPECT_EQ(data().pull(recorded)->setup, setup);
    ASSERT_TRUE(correctLimit(*p, study, setup, 4200));
    EXPECT_EQ(data().pull(recorded)->settings.rigLimit, 4200);
    EXPECT_EQ(data().pulls[0].settings.rigLimit, 5000);
    EXPECT_EQ(p->setupOf(setup)->rigLimit, 9000) << "the set-up stays as it was recorded";
    EXPECT_FALSE(correctLimit(*p, study, 0, 4200));
    EXPECT_FALSE(correctLimit(*p, study, setup + 99, 4200));
}

TEST_F(Rigs, APlanNamesItsRig) {
    domain::Study s;
    s.title = "Pegs";
    study = *addStudy(*p, s);
    EXPECT_EQ(data().reach, domain::RigReach{});
    EXPECT_NE(planRig(*p, study, "Winch").error().message.find("no rig \"Winch\""), std::string::npos);
    ASSERT_TRUE(tellReach(*p, study, {5000, 2000, 2, 0.3}));
    EXPECT_EQ(data().study.plan.rig, "Rig");
    EXPECT_EQ(data().reach, (domain::RigReach{5000, 2000, 2, 0.3}));
    ASSERT_TRUE(tellReach(*p, study, {6000, 2000, 2, 0.3}));
    ASSERT_EQ(p->rigs().size(), 1U);
    EXPECT_EQ(rig::limitOf(p->rigs().front().second), 4000) << "the cell ends first";
    const auto other = *addStudy(*p, s);
    ASSERT_TRUE(tellReach(*p, other, {700, {}, 1, {}}));
    EXPECT_EQ(p->study(other)->study.plan.rig, "Rig 2") << "nobody's rig is changed behind them";
    EXPECT_EQ(data().reach.limit, 6000);
    ASSERT_TRUE(saveRig(*p, winch()));
    ASSERT_TRUE(planRig(*p, study, "Winch"));
    EXPECT_EQ(data().reach.limit, 9000);
    EXPECT_NE(tellReach(*p, study, {1, {}, 1, {}}).error().message.find("with its connection"),
              std::string::npos);
    ASSERT_TRUE(planRig(*p, study, ""));
    EXPECT_EQ(data().reach, domain::RigReach{});
    p.reset();
    p = std::move(*OpenProject::open(path));
    EXPECT_EQ(p->study(other)->reach.limit, 700);
}

/// What a rig can do was typed into the plan in older files: it becomes a rig, and the plan names it.
TEST_F(Rigs, APlanOfVersionSevenGetsItsRig) {
    p.reset();
    QFile::remove(path);
    ASSERT_TRUE(QFile::copy(QStringLiteral(TEST_DATA "/projects/version-7-demo.anvil"), path));
    QFile(path).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    p = std::move(*OpenProject::open(path));
    ASSERT_EQ(p->studies().size(), 3U);
    EXPECT_EQ(p->studies()[0].reach, (domain::RigReach{5000, {}, 1, 0.06}));
    EXPECT_EQ(p->studies()[1].reach, (domain::RigReach{5000, {}, 1, {}}));
    EXPECT_EQ(p->studies()[2].reach, (domain::RigReach{1000, {}, 1, {}}));
    EXPECT_EQ(p->rigs().size(), 3U);
    for (const auto& pull : p->studies()[0].pulls)
        EXPECT_EQ(pull.settings.rigLimit, 5000) << "what a pull was read against stays";
    EXPECT_TRUE(p->file().check().problems.isEmpty());
}

} // namespace
