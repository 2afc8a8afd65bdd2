// Readings that are kept in the file, and curves read by several threads.
#include <QCoreApplication>
#include <QSqlDatabase>
#include <QSqlQuery>
#include <QTemporaryDir>
#include <QThread>
#include <anvil/project/board_commands.h>
#include <anvil/project/import.h>
#include <anvil/project/pull_commands.h>
#include <anvil/project/sample_check.h>
#include <anvil/sim/specimen.h>
#include <anvil/words/stands.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::project;

namespace {

struct Kept : testing::Test {
    QTemporaryDir dir;
    QString path = dir.filePath("p.anvil");
    Id study = 0;

    void SetUp() override {
        auto p = std::move(*OpenProject::create(path));
        domain::Study s;
        s.title = "Many";
        study = *addStudy(*p, s);
        const auto option = *addOption(*p, study, "Pin"), condition = *addCondition(*p, study, "Dry");
        ASSERT_TRUE(p->run("Pulls", [&](store::Writer& w) {
            for (std::uint64_t seed = 1; seed <= 40; ++seed) {
                const auto bench = sim::typicalBench(sim::Model::brittleBond, seed);
                domain::Specimen piece{
                    0, study, option, condition, static_cast<int>(seed), "A1-" + std::to_string(seed), ""};
                domain::Pull pull;
                pull.specimen = w.add(piece);
                pull.curve = w.addCurve(sim::pull(bench.specimen, bench.logger, seed).curve);
                w.add(pull);
            }
        }));
    }
    std::unique_ptr<OpenProject> open(bool keeps = true) {
        auto p = std::move(*OpenProject::open(path));
        if (keeps) p->useKeptReadings();
        return p;
    }
    void sql(const QString& statement) {
        {
            auto db = QSqlDatabase::addDatabase("QSQLITE", "poke");
            db.setDatabaseName(path);
            ASSERT_TRUE(db.open());
            EXPECT_TRUE(QSqlQuery(db).exec(statement));
        }
        QSqlDatabase::removeDatabase("poke");
    }
};

TEST_F(Kept, WhatWasReadOnceIsNotReadAgain) {
    std::map<Id, curve::Reading> first;
    {
        auto p = open();
        EXPECT_EQ(p->unread(study).size(), 40U);
        EXPECT_TRUE(p->keptCurves().empty());
        first = p->readings(study).byPull;
        EXPECT_TRUE(p->unread(study).empty());
    }
    auto p = open();
    EXPECT_TRUE(p->unread(study).empty());
    EXPECT_EQ(p->keptCurves().size(), 40U);
    EXPECT_EQ(p->readings(study).byPull, first) << "to the last bit";
    EXPECT_EQ(open(false)->unread(study).size(), 40U) << "unless it is asked for, everything is read anew";
    EXPECT_EQ(open(false)->readings(study).byPull, first);
}

TEST_F(Kept, AChangedSettingIsReadAnewAndKept) {
    Id pull = 0;
    {
        auto p = open();
        (void)p->readings(study);
        pull = p->study(study)->pulls[3].id;
        auto settings = p->study(study)->pulls[3].settings;
        settings.rigLimit = 10;
        ASSERT_TRUE(setReadingSettings(*p, pull, settings, "limit"));
        EXPECT_EQ(p->unread(study).size(), 1U);
        EXPECT_TRUE(p->readings(study).byPull.at(pull).offScale);
    }
    auto p = open();
    EXPECT_TRUE(p->unread(study).empty());
    EXPECT_TRUE(p->readings(study).byPull.at(pull).offScale);
    ASSERT_TRUE(p->undo().has_value());
}

TEST_F(Kept, SeveralThreadsReadTheSame) {
    auto p = open(false);
    const auto all = p->unread(study);
    auto together = readCurves(p->file(), all);
    ASSERT_EQ(together.size(), all.size());
    std::sort(together.begin(), together.end(),
              [](const auto& a, const auto& b) { return a.what.pull < b.what.pull; });
    for (std::size_t i = 0; i < all.size(); ++i) {
        EXPECT_EQ(together[i].what.pull, all[i].pull);
        EXPECT_EQ(*together[i].reading, curve::read(*p->file().curve(all[i].curve), all[i].settings).value());
    }
    const auto some = readCurves(p->file(), all, [](std::size_t) { return false; });
    EXPECT_LT(some.size(), all.size() + 1);
    p->take(some);
    EXPECT_EQ(p->unread(study).size(), all.size() - some.size()) << "what was read until then is taken";
}

/// A kept reading is shown at once; that its samples are damaged is found behind it, and then it counts no
/// more.
TEST_F(Kept, DamageBehindAKeptReadingIsFound) {
    Id curve = 0, pull = 0;
    {
        auto p = open();
        (void)p->readings(study);
        curve = p->study(study)->pulls[7].curve;
        pull = p->study(study)->pulls[7].id;
    }
    sql(QStringLiteral("UPDATE chunk SET data = zeroblob(length(data)) WHERE curve = %1").arg(curve));
    auto p = open();
    EXPECT_TRUE(p->readings(study).byPull.contains(pull));
    int changes = 0;
    QObject::connect(p.get(), &OpenProject::changed, [&] { ++changes; });
    bool finished = false;
    {
        SampleCheck check(p->file(), p->keptCurves());
        QObject::connect(&check, &SampleCheck::damaged, p.get(), [&](long long damaged, const QString& why) {
            EXPECT_EQ(damaged, curve);
            p->doubt(damaged, why.toStdString());
        });
        QObject::connect(&check, &SampleCheck::finished, p.get(), [&] { finished = true; });
        check.begin();
        for (int i = 0; i < 6000 && !finished; ++i) {
            QCoreApplication::processEvents();
            QThread::msleep(10);
        }
    }
    EXPECT_TRUE(finished);
    EXPECT_EQ(changes, 1);
    EXPECT_FALSE(p->readings(study).byPull.contains(pull));
    EXPECT_TRUE(p->readings(study).unreadable.contains(pull));
    EXPECT_EQ(p->readings(study).byPull.size(), 39U);
    p.reset();
    EXPECT_EQ(open()->unread(study).size(), 1U) << "and it is kept no longer";
}

/// A file of version 7, which kept no readings: every number is what the same logs give today.
TEST(OldReadings, AFileOfVersionSevenReadsAsItsLogsDo) {
    QTemporaryDir dir;
    const auto path = dir.filePath("p.anvil");
    ASSERT_TRUE(QFile::copy(QStringLiteral(TEST_DATA "/projects/version-7.anvil"), path));
    QFile(path).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    const auto old = OpenProject::open(path);
    ASSERT_TRUE(old) << old.error().message;
    EXPECT_TRUE(QFile::exists(dir.filePath("p.version-7.anvil")));
    (*old)->useKeptReadings();
    auto fresh = std::move(*OpenProject::create(dir.filePath("fresh.anvil")));
    ImportChoices choices;
    choices.rigLimit = 4200;
    const auto plan = lookAt({QStringLiteral(DEMO_LOGS "/saddle-clamps_salt-soaked_1.tsv"),
                              QStringLiteral(DEMO_LOGS "/wedge-socket_salt-soaked.csv")},
                             choices, {});
    auto done = importRuns(fresh->file(), {}, plan);
    ASSERT_TRUE(done);
    EXPECT_EQ(done->read.size(), 4U) << "what was looked at need not be read again";
    ASSERT_TRUE(fresh->adopt(done->journal, done->what, std::move(done->read)));
    const auto &was = (*old)->studies()[0], &is = fresh->studies()[0];
    EXPECT_TRUE(fresh->unread(is.study.id).empty());
    ASSERT_EQ(was.pulls.size(), 4U);
    ASSERT_EQ(is.pulls.size(), 4U);
    for (std::size_t i = 0; i < 4; ++i) {
        EXPECT_EQ(was.specimens[i].label, is.specimens[i].label);
        const auto& then = (*old)->readings(was.study.id).byPull.at(was.pulls[i].id);
        EXPECT_EQ(then, fresh->readings(is.study.id).byPull.at(is.pulls[i].id));
        EXPECT_EQ(then,
                  curve::read(*(*old)->file().curve(was.pulls[i].curve), was.pulls[i].settings).value());
        EXPECT_GT(then.peak.load, 2000);
    }
    EXPECT_TRUE((*old)->file().check().problems.isEmpty());
}

TEST_F(Kept, WhatIsBeingRecordedIsNotTakenForTheWholeAfterwards) {
    auto p = std::move(*OpenProject::open(path));
    const auto before = p->readings(study).byPull.size();
    curve::Curve half, whole;
    for (int i = 0; i < 400; ++i) {
        for (auto* c : {&half, &whole})
            if (c == &whole || i < 200) {
                c->time.push_back(i * 0.01);
                c->load.push_back(i < 20 ? 0 : 10.0 * (i - 19));
            }
    }
    Id pull = 0;
    ASSERT_TRUE(p->file().write("Recording", [&](store::Writer& w) {
        domain::Pull growing;
        growing.specimen = p->study(study)->specimens[0].id;
        growing.curve = w.addCurve(half);
        growing.recording = domain::Recording::running;
        pull = w.add(growing);
    }));
    ASSERT_TRUE(p->reload());
    EXPECT_EQ(p->readings(study).byPull.size(), before) << "half a curve is not read";
    const auto drawn = p->readCurve(pull);
    ASSERT_TRUE(drawn);
    EXPECT_NEAR((*drawn)->reading.peak.load, 1800, 1e-6);
    ASSERT_TRUE(p->file().write("Recorded", [&](store::Writer& w) {
        auto done = *p->study(study)->pull(pull);
        auto after = done;
        after.curve = w.addCurve(whole);
        after.recording = domain::Recording::done;
        w.change(done, after);
    }));
    ASSERT_TRUE(p->reload());
    EXPECT_NEAR(p->readings(study).byPull.at(pull).peak.load, 3800, 1e-6);
    EXPECT_NEAR((*p->readCurve(pull))->reading.peak.load, 3800, 1e-6);
}

TEST_F(Kept, WhatWasInterruptedCountsNowhereUntilSomebodySaysWhatItIs) {
    auto p = std::move(*OpenProject::open(path));
    const auto pull = p->study(study)->pulls[0].id;
    ASSERT_TRUE(p->file().write("Cut", [&](store::Writer& w) {
        w.update("pull", pull, {{"recording", "interrupted"}});
    }));
    ASSERT_TRUE(p->reload());
    const auto& data = *p->study(study);
    const auto* reading = p->readings(study).find(pull);
    EXPECT_EQ(results::standingOf(data, *data.pull(pull), reading), domain::Standing::notRead);
    EXPECT_NE(words::reasonOf(data, *data.pull(pull), reading).find("waits for a decision"),
              std::string::npos);
    EXPECT_FALSE(results::valueOf(data, *data.pull(pull), reading, domain::metric("peak")).value);
}

} // namespace
