#include <QSqlDatabase>
#include <QSqlQuery>
#include <QTemporaryDir>
#include <anvil/plan/replication.h>
#include <anvil/project/board_commands.h>
#include <anvil/project/open_project.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/practice.h>
#include <anvil/project/pull_commands.h>
#include <anvil/project/study_commands.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/sim/specimen.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::project;

namespace {

struct Bench : testing::Test {
    QTemporaryDir dir;
    std::unique_ptr<OpenProject> p;
    Id study = 0, option = 0, other = 0, condition = 0, wet = 0, pull = 0, specimen = 0;
    int changes = 0;

    void SetUp() override {
        p = std::move(*OpenProject::create(dir.filePath("p.anvil")));
        domain::Study s;
        s.title = "One";
        study = *project::addStudy(*p, s);
        option = *project::addOption(*p, study, "Pin");
        other = *project::addOption(*p, study, "Bolt");
        condition = *project::addCondition(*p, study, "Dry");
        wet = *project::addCondition(*p, study, "Wet");
        const auto bench = sim::typicalBench(sim::Model::pullOut, 3);
        ASSERT_TRUE(p->run("Pull", [&](store::Writer& w) {
            domain::Specimen piece{0, study, option, condition, 1, "A1-1", ""};
            specimen = w.add(piece);
            domain::Pull made;
            made.specimen = specimen;
            made.curve = w.addCurve(sim::pull(bench.specimen, bench.logger, 3).curve);
            pull = w.add(made);
        }));
        QObject::connect(p.get(), &OpenProject::changed, [this] { ++changes; });
    }
    const domain::Pull& now() const { return *p->study(study)->pull(pull); }
    double peak() { return p->readings(study).byPull.at(pull).peak.load; }
};

using Commands = Bench;

TEST_F(Commands, AStandingNeedsAReason) {
    const auto no = project::setStanding(*p, pull, domain::Standing::aside, "   ");
    ASSERT_FALSE(no);
    EXPECT_NE(no.error().message.find("Say why"), std::string::npos);
    EXPECT_EQ(now().standing, domain::Standing::counts);
    ASSERT_TRUE(project::setStanding(*p, pull, domain::Standing::aside, "jaw slipped"));
    EXPECT_EQ(now().standing, domain::Standing::aside);
    EXPECT_EQ(now().reason, "jaw slipped");
    ASSERT_TRUE(project::setStanding(*p, pull, domain::Standing::counts, ""));
    EXPECT_EQ(now().reason, "");
}

TEST_F(Commands, UndoAndRedoGoBackToOpeningAndAddJournalRows) {
    const auto before = *p->study(study);
    const auto rows = p->file().journal().value().size();
    ASSERT_TRUE(project::setStanding(*p, pull, domain::Standing::voided, "zeroed under load"));
    ASSERT_TRUE(p->changePull(pull, "note", [](domain::Pull& x) { x.note = "battery"; }));
    const auto after = *p->study(study);
    EXPECT_EQ(p->undoText(), "note");
    ASSERT_TRUE(p->undo());
    ASSERT_TRUE(p->undo());
    EXPECT_EQ(*p->study(study), before);
    ASSERT_TRUE(p->redo());
    ASSERT_TRUE(p->redo());
    EXPECT_EQ(*p->study(study), after);
    EXPECT_FALSE(p->canRedo());
    EXPECT_EQ(p->file().journal().value().size(), rows + 6);
    EXPECT_NE(p->file().journal(1).value().front().undoes, 0);
    while (p->canUndo())
        ASSERT_TRUE(p->undo());
    EXPECT_TRUE(p->studies().empty()) << "undo reaches back to opening";
    while (p->canRedo())
        ASSERT_TRUE(p->redo());
    EXPECT_EQ(*p->study(study), after) << "ids and all, curves included";
    EXPECT_TRUE(p->readCurve(pull));
}

TEST_F(Commands, ANewCommandForgetsWhatWasUndone) {
    ASSERT_TRUE(p->changePull(pull, "one", [](domain::Pull& x) { x.note = "one"; }));
    ASSERT_TRUE(p->undo());
    ASSERT_TRUE(p->changePull(pull, "two", [](domain::Pull& x) { x.note = "two"; }));
    EXPECT_FALSE(p->canRedo());
    ASSERT_TRUE(p->undo());
    EXPECT_EQ(now().note, "");
}

TEST_F(Commands, ALandmarkMovedByHandChangesTheReadingAndNothingElse) {
    const double found = peak();
    const auto raw = *p->file().curve(now().curve);
    const double t = p->readings(study).byPull.at(pull).peak.time;
    ASSERT_TRUE(project::setLandmark(*p, pull, Handle::peak, curve::Override{t - 1, false}));
    EXPECT_LT(peak(), found);
    EXPECT_TRUE(p->readings(study).byPull.at(pull).peak.byHand);
    EXPECT_EQ(*p->file().curve(now().curve), raw) << "raw samples never change";
    EXPECT_NEAR(*p->verdict(study, domain::metric("peak")).groups[0].summary.mean, peak(), 1e-9)
        << "the verdict follows";
    ASSERT_TRUE(project::setLandmark(*p, pull, Handle::peak, std::nullopt));
    EXPECT_EQ(peak(), found);
    ASSERT_TRUE(project::setLandmark(*p, pull, Handle::fitFrom, curve::Override{t - 2, false}));
    EXPECT_TRUE(now().settings.fitFrom && now().settings.fitTo) << "a line has two ends";
    ASSERT_TRUE(project::setLandmark(*p, pull, Handle::fitTo, std::nullopt));
    EXPECT_FALSE(now().settings.fitFrom || now().settings.fitTo);
    EXPECT_FALSE(project::setLandmark(*p, pull + 99, Handle::peak, curve::Override{1, false}));
}

TEST_F(Commands, NamesAreNeededAndUnique) {
    EXPECT_EQ(project::addOption(*p, study, "  ").error().message, "An option needs a name.");
    EXPECT_EQ(project::addOption(*p, study, " pin ").error().message, "There is an option \"pin\" already.");
    EXPECT_EQ(project::addCondition(*p, study, "WET").error().message,
              "There is a condition \"WET\" already.");
    EXPECT_FALSE(p->changeOption(option, "x", [](domain::Option& x) { x.name = " "; }));
}

TEST_F(Commands, WhatWasPulledCannotBeTakenAway) {
    EXPECT_NE(project::removeOption(*p, option).error().message.find("has pulls"), std::string::npos);
    EXPECT_FALSE(project::removeCondition(*p, condition));
    EXPECT_TRUE(project::removeOption(*p, other));
    EXPECT_TRUE(project::removeCondition(*p, wet));
    EXPECT_FALSE(project::removeOption(*p, other)) << "not there any more";
    ASSERT_TRUE(p->undo());
    EXPECT_EQ(p->study(study)->conditions.size(), 2U);
}

TEST_F(Commands, AMislabelledPieceMovesToItsSquare) {
    ASSERT_TRUE(project::moveSpecimen(*p, specimen, other, wet));
    EXPECT_EQ(p->study(study)->specimen(specimen)->option, other);
    const auto& v = p->verdict(study, domain::metric("peak"));
    ASSERT_EQ(v.groups.size(), 1U);
    EXPECT_EQ(v.groups[0].option, other);
    EXPECT_EQ(v.groups[0].condition, wet);
}

TEST_F(Commands, EveryCommandTellsTheWindowOnce) {
    changes = 0;
    ASSERT_TRUE(p->changePull(pull, "one", [](domain::Pull& x) { x.note = "one"; }));
    EXPECT_EQ(changes, 1);
    ASSERT_TRUE(p->undo());
    EXPECT_EQ(changes, 2);
}

TEST_F(Commands, ReopenedProjectReadsTheSame) {
    const double before = peak();
    ASSERT_TRUE(project::setLandmark(*p, pull, Handle::breakPoint, curve::Override{0, true}));
    p.reset();
    p = std::move(*OpenProject::open(dir.filePath("p.anvil")));
    EXPECT_EQ(peak(), before);
    EXPECT_FALSE(p->readings(study).byPull.at(pull).breakPoint);
    EXPECT_FALSE(p->canUndo()) << "undo reaches back to opening";
    EXPECT_EQ(p->readCurve(9999).error().message, "This result was typed in: it has no curve.");
}

TEST_F(Commands, SeveralAreTakenBackTogetherOrNotAtAll) {
    p->together([&] {
        ASSERT_TRUE(project::addOption(*p, study, "Hook"));
        ASSERT_TRUE(project::addOption(*p, study, "Clip"));
    });
    const auto entries = p->file().journal(2).value();
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", "damage"); // the first of both, as a bad block does
        db.setDatabaseName(p->file().path());
        ASSERT_TRUE(db.open());
        QSqlQuery query(db);
        ASSERT_TRUE(query.exec(
            QString("UPDATE journal SET changes = 'x' || changes WHERE id = %1").arg(entries.back().id)));
    }
    QSqlDatabase::removeDatabase("damage");
    EXPECT_FALSE(p->undo());
    EXPECT_EQ(*p->study(study), p->file().load()->front()) << "the screen shows what is in the file";
    EXPECT_EQ(p->study(study)->options.size(), 4U);
    EXPECT_TRUE(p->canUndo());
}

TEST_F(Commands, TogetherIsOneUndo) {
    p->together([&] {
        ASSERT_TRUE(project::addOption(*p, study, "Hook"));
        ASSERT_TRUE(project::addOption(*p, study, "Clip"));
        ASSERT_TRUE(project::planReplicates(*p, study, 4));
    });
    EXPECT_EQ(p->study(study)->options.size(), 4U);
    ASSERT_TRUE(p->undo());
    EXPECT_EQ(p->study(study)->options.size(), 2U);
    EXPECT_EQ(p->study(study)->study.plan.replicates, 0);
    ASSERT_TRUE(p->redo());
    EXPECT_EQ(p->study(study)->options.size(), 4U);
    EXPECT_EQ(p->study(study)->study.plan.replicates, 4);
    ASSERT_TRUE(project::addOption(*p, study, "Ring"));
    ASSERT_TRUE(p->undo());
    EXPECT_EQ(p->study(study)->options.size(), 4U) << "what came after stands alone";
}

TEST_F(Commands, AFollowUpTakesOnlyWhatWasLeftOpen) {
    ASSERT_TRUE(project::changeGoal(*p, study, "c", [&](domain::Goal& goal) { goal.control = option; }));
    const auto made = project::followUpStudy(*p, study, "Again", {{option, wet}, {other, condition}}, 4);
    ASSERT_TRUE(made);
    const auto& again = *p->study(*made);
    ASSERT_EQ(again.options.size(), 2U);
    ASSERT_EQ(again.conditions.size(), 2U);
    EXPECT_EQ(again.option(again.study.goal.control)->name, "Pin");
    EXPECT_EQ(plan::totals(again).replicates, 8) << "two squares of four";
    EXPECT_EQ(again.study.plan.replicatesOf(again.options[0].id, again.conditions[0].id), 0);
    EXPECT_EQ(again.study.plan.replicatesOf(again.options[0].id, again.conditions[1].id), 4);
    EXPECT_FALSE(project::followUpStudy(*p, study, " ", {{option, wet}}, 3));
    EXPECT_FALSE(project::followUpStudy(*p, study, "Nothing", {}, 3));
    EXPECT_EQ(p->study(study)->options.size(), 2U) << "the first is as it was";
}

TEST_F(Commands, RemediesMakeSquaresAlike) {
    ASSERT_TRUE(project::changePlan(*p, study, "odd", [&](domain::Plan& plan) {
        auto& s = plan.squareFor(option, wet);
        s.method = "shear";
        s.connector = "chain";
        s.speed = 0.01;
    }));
    for (const char* rule : {"method", "connector", "planned speed"})
        ASSERT_TRUE(project::applyRemedy(*p, study, rule)) << rule;
    const auto* s = p->study(study)->study.plan.square(option, wet);
    EXPECT_TRUE(s->method.empty() && s->connector.empty() && !s->speed);
    EXPECT_FALSE(project::applyRemedy(*p, study, "no such rule"));
}

TEST_F(Commands, OfTwoJointsOnlyTheOneThatFailedCounts) {
    Id second = 0;
    ASSERT_TRUE(p->run("Other end", [&](store::Writer& w) {
        domain::Pull made;
        made.specimen = specimen;
        made.typed = domain::TypedValue{domain::metric("peak"), peak() * 1.5, 0, "x"};
        second = w.add(made);
    }));
    ASSERT_TRUE(project::applyRemedy(*p, study, "joints"));
    EXPECT_EQ(now().standing, domain::Standing::counts) << "the weaker end failed";
    EXPECT_EQ(p->study(study)->pull(second)->standing, domain::Standing::atLeast);
    EXPECT_FALSE(p->study(study)->pull(second)->reason.empty());
}

TEST_F(Commands, TheSpreadToExpectSaysWhereItComesFrom) {
    EXPECT_EQ(p->expectedSpread(study).from, "a usual guess") << "one pull has no spread";
    ASSERT_TRUE(p->changeOption(option, "kind", [](domain::Option& x) { x.kind = "rivet"; }));
    EXPECT_EQ(p->expectedSpread(study).from, "usual for a rivet");
    EXPECT_EQ(p->expectedSpread(study + 99).cv, 0.12);
}

TEST_F(Bench, ThePracticeScoreTellsGoodFromBad) {
    const auto made = project::addPracticeStudy(*p, 5);
    ASSERT_TRUE(made);
    auto data = *p->study(*made);
    results::Readings readings;
    results::Verdict none;
    EXPECT_TRUE(practiceScore(data, readings, none).empty()) << "nothing was pulled";
    for (const auto& s : data.specimens) {
        domain::Pull pull;
        pull.id = 1000 + s.id;
        pull.specimen = s.id;
        pull.practice = true;
        pull.outcome.part = "Pin";
        pull.outcome.mode = "snapped";
        const double strength = practiceStrength(5, data.option(s.option)->position);
        pull.typed = domain::TypedValue{domain::metric("peak"), strength + s.replicate, 0, ""};
        auto& r = readings.byPull[pull.id];
        r.noise = 1;
        r.peak.load = strength;
        r.slack = 0.001;
        r.loadRate = 300;
        data.pulls.push_back(pull);
    }
    const auto verdict = [&] { return results::evaluate(data, readings, {}); };
    auto score = practiceScore(data, readings, verdict());
    ASSERT_EQ(score.size(), 6U);
    for (const auto& line : score)
        EXPECT_TRUE(line.starts_with("\u2713")) << line;
    readings.byPull.begin()->second.baseline = 500;
    readings.byPull.rbegin()->second.slack = 0.02;
    data.pulls[3].outcome.part = "the grip";
    for (auto& [id, r] : readings.byPull)
        r.loadRate = id % 2 ? 300 : 900;
    score = practiceScore(data, readings, verdict());
    EXPECT_EQ(score[0], "\u2717 14 of 15 pulls were zeroed before the load came on.");
    EXPECT_EQ(score[1], "\u2717 The slack was taken up in 14 of 15.");
    EXPECT_TRUE(score[2].starts_with("\u2717")) << score[2];
    EXPECT_EQ(score[3], "\u2717 What broke was told right in 14 of 15: it is always the pin here.");
    for (auto& pull : data.pulls) // the other way round: the strongest reads weakest
        pull.typed->value = 5000 - pull.typed->value;
    score = practiceScore(data, readings, verdict());
    EXPECT_TRUE(score[5].starts_with("\u2717 The verdict is wrong")) << score[5];
}

} // namespace
