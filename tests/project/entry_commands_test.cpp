// Commands for results that are no curve, and for pictures.
#include <QTemporaryDir>
#include <anvil/plan/next.h>
#include <anvil/project/board_commands.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/open_project.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/pull_commands.h>
#include <anvil/project/rig_commands.h>
#include <anvil/project/study_commands.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/words/stands.h>
#include <cmath>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::project;

namespace {

const quantity::Unit* si(quantity::Dimension d) { return &quantity::siUnit(d); }

struct Entries : testing::Test {
    QTemporaryDir dir;
    std::unique_ptr<OpenProject> p;
    Id study = 0;

    void SetUp() override {
        p = std::move(*OpenProject::create(dir.filePath("p.anvil")));
        domain::Study s;
        s.title = "Pegs";
        study = *project::addStudy(*p, s);
        ASSERT_TRUE(project::addOption(*p, study, "Round"));
        ASSERT_TRUE(project::addCondition(*p, study, "Loam"));
        ASSERT_TRUE(project::planReplicates(*p, study, 2));
        ASSERT_TRUE(project::makePieces(*p, study, ""));
    }
    const domain::StudyData& data() const { return *p->study(study); }
    Id piece(std::size_t i = 0) const { return data().specimens[i].id; }
    double value(Id pull, const char* metric) const {
        const auto v = results::valueOf(data(), *data().pull(pull), nullptr, domain::metric(metric)).value;
        return v ? v->value : NAN;
    }
    void reopen() {
        p.reset();
        p = std::move(*OpenProject::open(dir.filePath("p.anvil")));
    }
};

TEST_F(Entries, AMethodBringsItsMetricAndDirectionAndOneUndoTakesBoth) {
    ASSERT_TRUE(project::setMethod(*p, study, "sag"));
    EXPECT_EQ(data().study.goal.metric, domain::metric("sag"));
    EXPECT_EQ(data().study.goal.sense, domain::Sense::less);
    ASSERT_TRUE(project::setMethod(*p, study, "axial-pull"));
    EXPECT_EQ(data().study.goal.metric, domain::metric("peak"));
    EXPECT_EQ(data().study.goal.sense, domain::Sense::more);
    ASSERT_TRUE(p->undo());
    EXPECT_EQ(data().study.goal.metric, domain::metric("sag"));
    EXPECT_EQ(data().study.plan.method, "sag");
    // What decides stays where the new method tells it too.
    ASSERT_TRUE(project::setMethod(*p, study, "axial-pull"));
    ASSERT_TRUE(
        project::changeGoal(*p, study, "x", [](domain::Goal& g) { g.metric = domain::metric("stiffness"); }));
    ASSERT_TRUE(project::setMethod(*p, study, "compression"));
    EXPECT_EQ(data().study.goal.metric, domain::metric("stiffness"));
    EXPECT_FALSE(project::setMethod(*p, 99, "sag"));
}

TEST_F(Entries, AFormMakesAPullAndCanBeFilledInAgain) {
    ASSERT_TRUE(project::setMethod(*p, study, "torque"));
    FilledForm e;
    e.specimen = piece();
    e.fields = {{"breakaway", "4 N·m"}, {"running", "1 N·m"}};
    e.unitOf = si;
    e.part = "";
    const auto made = project::addEntry(*p, e);
    ASSERT_TRUE(made) << made.error().message;
    e.pull = *made;
    e.fields[0].text = ">5 N·m";
    ASSERT_TRUE(project::addEntry(*p, e));
    ASSERT_EQ(data().pulls.size(), 1U);
    EXPECT_EQ(data().pulls[0].standing, domain::Standing::atLeast);
    EXPECT_EQ(data().pulls[0].outcome.entered.fields[0].text, ">5 N·m");
    EXPECT_TRUE(data().pulls[0].note.empty()) << "the note is the tester's";
    EXPECT_NEAR(value(data().pulls[0].id, "running"), 1, 1e-12);
    ASSERT_TRUE(p->undo());
    EXPECT_EQ(data().pulls[0].standing, domain::Standing::counts);
    const auto before = data();
    e.fields[0].text = "heavy";
    EXPECT_FALSE(project::addEntry(*p, e));
    e.specimen = 999;
    EXPECT_FALSE(project::addEntry(*p, e));
    EXPECT_EQ(data(), before) << "nothing lost";
    reopen();
    EXPECT_EQ(data(), before);
}

TEST_F(Entries, AFailureElsewhereIsABound) {
    ASSERT_TRUE(project::setMethod(*p, study, "holding"));
    FilledForm e;
    e.specimen = piece();
    e.fields = {{"moves", "900 N"}};
    e.unitOf = si;
    e.part = "the grip";
    ASSERT_TRUE(project::addEntry(*p, e));
    EXPECT_EQ(data().pulls[0].standing, domain::Standing::counts) << "what follows is not stored";
    EXPECT_EQ(results::standingOf(data(), data().pulls[0], nullptr), domain::Standing::atLeast);
    EXPECT_EQ(words::reasonOf(data(), data().pulls[0], nullptr), "Not the piece but the grip failed.")
        << "of the parts that are offered the first is asked about where nobody said one";
    ASSERT_TRUE(p->changeStudy(study, "part", [](domain::Study& s) { s.goal.part = "the rope"; }));
    EXPECT_EQ(results::standingOf(data(), data().pulls[0], nullptr), domain::Standing::atLeast);
    EXPECT_EQ(words::reasonOf(data(), data().pulls[0], nullptr), "Not the rope but the grip failed.");
    ASSERT_TRUE(project::setStanding(*p, data().pulls[0].id, domain::Standing::counts, ""));
    EXPECT_EQ(results::standingOf(data(), data().pulls[0], nullptr), domain::Standing::counts)
        << "the tester said so";
}

TEST_F(Entries, WhatIsReadIsNotWhatThePieceFeels) {
    domain::RigReach reach;
    reach.ratio = 20;
    reach.limit = 50e3;
    ASSERT_TRUE(project::tellReach(*p, study, reach));
    TypedPull typed;
    typed.specimen = piece();
    typed.text = "48 lb";
    const auto refused = project::addTypedPull(*p, typed);
    ASSERT_FALSE(refused) << "nobody said where it was read";
    EXPECT_NE(refused.error().message.find("20.00 ×"), std::string::npos) << refused.error().message;
    ASSERT_TRUE(project::setReadAt(*p, study, "display"));
    const auto made = project::addTypedPull(*p, typed);
    ASSERT_TRUE(made) << made.error().message;
    constexpr double lbf = 4.4482216152605;
    const auto& pull = *data().pull(*made);
    EXPECT_NEAR(pull.typed->value, 48 * lbf, 1e-9) << "what was read is kept";
    EXPECT_EQ(pull.typed->asTyped, "48 lbf");
    const auto value = results::valueOf(data(), pull, nullptr, domain::metric("peak"));
    ASSERT_TRUE(value.value);
    EXPECT_NEAR(value.value->value, 960 * lbf, 1e-6);
    reopen();
    EXPECT_NEAR(results::valueOf(data(), data().pulls[0], nullptr, domain::metric("peak")).value->value,
                960 * lbf, 1e-6);
    EXPECT_FALSE(project::setReadAt(*p, study, "somewhere"));
}

TEST_F(Entries, ARigThatNoStudyNamesStandsBetweenToo) {
    rig::Setup lever;
    lever.name = "Long arm";
    lever.path = {{rig::RatioPart::Kind::lever, 1, 0.1, 0, 0, 0}};
    ASSERT_TRUE(project::saveRig(*p, lever));
    ASSERT_TRUE(data().study.plan.rig.empty());
    TypedPull typed;
    typed.specimen = piece();
    typed.text = "24 lb";
    const auto refused = project::addTypedPull(*p, typed);
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("\"Long arm\""), std::string::npos) << refused.error().message;
    EXPECT_NE(refused.error().message.find("10.00 ×"), std::string::npos) << refused.error().message;
    ASSERT_TRUE(project::setReadAt(*p, study, "piece"));
    ASSERT_TRUE(project::addTypedPull(*p, typed));
    EXPECT_FALSE(data().pulls[0].outcome.path) << "the tester's word";
    ASSERT_TRUE(project::setReadAt(*p, study, "display"));
    lever.path.clear(); // taken out again: nothing lies between any more
    ASSERT_TRUE(project::saveRig(*p, lever));
    typed.specimen = piece(1);
    ASSERT_TRUE(project::addTypedPull(*p, typed));
    EXPECT_FALSE(data().pulls[1].outcome.path);
}

/// A pressure gauge on a ram of 12.3 cm²: 2300 psi are 15 857 941 Pa, and times the area 19 505 N.
TEST_F(Entries, APressureReadOnARamIsKeptAndTheLoadFollows) {
    rig::Setup press;
    press.name = "Press";
    press.shows = quantity::Dimension::stress;
    press.path = {{rig::RatioPart::Kind::ram, 12.3e-4, 0, 0.1e-4, 0, 0}};
    ASSERT_TRUE(project::saveRig(*p, press));
    TypedPull typed;
    typed.specimen = piece();
    typed.text = "2300 psi";
    EXPECT_FALSE(project::addTypedPull(*p, typed)) << "nobody said where it was read";
    ASSERT_TRUE(project::setReadAt(*p, study, "display"));
    EXPECT_EQ(project::typedIn(*p, data()), quantity::Dimension::stress);
    const auto made = project::addTypedPull(*p, typed);
    ASSERT_TRUE(made) << made.error().message;
    const auto& pull = *data().pull(*made);
    EXPECT_EQ(pull.typed->asTyped, "2300 psi");
    EXPECT_NEAR(pull.typed->value, 2300 * 6894.757293168361, 1e-3) << "what was read, in pascals";
    EXPECT_NEAR(value(*made, "peak"), 2300 * 6894.757293168361 * 12.3e-4, 1e-6);
    typed.specimen = piece(1);
    typed.text = "2250"; // in what was typed before
    typed.fallback = p->unitSpoken(study, quantity::Dimension::stress);
    ASSERT_TRUE(typed.fallback);
    const auto second = project::addTypedPull(*p, typed);
    ASSERT_TRUE(second) << second.error().message;
    EXPECT_NEAR(value(*second, "peak"), 2250 * 6894.757293168361 * 12.3e-4, 1e-6);
    typed.text = "11.2 kN";
    EXPECT_FALSE(project::addTypedPull(*p, typed)) << "no pressure";
    // The doubt of the area is that of the load: 0.1 of 12.3 cm².
    const auto& groups = p->verdict(study, domain::metric("peak")).groups;
    ASSERT_EQ(groups.size(), 1U);
    EXPECT_NEAR(groups[0].values[0].doubt, value(*made, "peak") * 0.1 / 12.3, 1e-3);
    reopen();
    EXPECT_NEAR(value(data().pulls[0].id, "peak"), 2300 * 6894.757293168361 * 12.3e-4, 1e-6);
    press.path[0].a = 20e-4; // what was felt then does not change with the rig
    ASSERT_TRUE(project::saveRig(*p, press));
    EXPECT_NEAR(value(data().pulls[0].id, "peak"), 2300 * 6894.757293168361 * 12.3e-4, 1e-6);
}

/// A dial with bare divisions and a table; straight chords for three points.
TEST_F(Entries, ADialsTableServesWhatIsTypedAndBeyondItIsAGuess) {
    rig::Setup dial;
    dial.name = "Dial";
    dial.shows = quantity::Dimension::ratio;
    ASSERT_TRUE(project::saveRig(*p, dial));
    ASSERT_TRUE(project::setReadAt(*p, study, "display"));
    TypedPull typed;
    typed.specimen = piece();
    typed.text = "15";
    const auto none = project::addTypedPull(*p, typed);
    ASSERT_FALSE(none) << "no table says what a division is";
    EXPECT_NE(none.error().message.find("table"), std::string::npos) << none.error().message;
    dial.calibration.points = {{0, 0}, {10, 1000}, {20, 2500}};
    ASSERT_TRUE(project::saveRig(*p, dial));
    const auto inside = project::addTypedPull(*p, typed);
    ASSERT_TRUE(inside) << inside.error().message;
    EXPECT_NEAR(value(*inside, "peak"), 1750, 1e-9);
    typed.specimen = piece(1);
    typed.text = "24";
    const auto beyond = project::addTypedPull(*p, typed);
    ASSERT_TRUE(beyond);
    const auto v = results::valueOf(data(), *data().pull(*beyond), nullptr, domain::metric("peak"));
    EXPECT_NEAR(v.value->value, 2500 + 4 * 150, 1e-9) << "the last chord goes on";
    EXPECT_TRUE(v.guess);
    EXPECT_FALSE(results::valueOf(data(), *data().pull(*inside), nullptr, domain::metric("peak")).guess);
}

TEST_F(Entries, AFormTakesAPressureForItsLoadAndItsOtherFieldsAsTheyAre) {
    ASSERT_TRUE(project::setMethod(*p, study, "three-point-bend"));
    rig::Setup press;
    press.name = "Press";
    press.shows = quantity::Dimension::stress;
    press.path = {{rig::RatioPart::Kind::ram, 10e-4, 0, 0, 0, 0}};
    ASSERT_TRUE(project::saveRig(*p, press));
    ASSERT_TRUE(project::setReadAt(*p, study, "display"));
    FilledForm form;
    form.specimen = piece();
    form.fields = {{"peak", "12 bar"}, {"deflection_at_peak", "8 mm"}};
    form.unitOf = si;
    const auto made = project::addEntry(*p, form);
    ASSERT_TRUE(made) << made.error().message;
    EXPECT_EQ(data().pull(*made)->outcome.entered.fields[0].text, "12 bar");
    EXPECT_NEAR(value(*made, "peak"), 1200, 1e-9);
}

/// "More than 4 N·m to break away" does not make the running torque a bound, whichever decides.
TEST_F(Entries, ABoundOnOneEntryLeavesTheOthersAsTheyWereTyped) {
    ASSERT_TRUE(project::setMethod(*p, study, "torque"));
    FilledForm e;
    e.specimen = piece();
    e.fields = {{"breakaway", ">4 N·m"}, {"running", "1.2 N·m"}};
    e.unitOf = si;
    const auto made = project::addEntry(*p, e);
    ASSERT_TRUE(made) << made.error().message;
    const auto state = [&](const char* metric) {
        return results::valueOf(data(), *data().pull(*made), nullptr, domain::metric(metric)).value->bound;
    };
    for (const char* decides : {"breakaway", "running"}) {
        ASSERT_TRUE(project::changeGoal(*p, study, "x",
                                        [&](domain::Goal& g) { g.metric = domain::metric(decides); }));
        EXPECT_EQ(state("breakaway"), stats::Bound::above) << decides;
        EXPECT_EQ(state("running"), stats::Bound::exact) << decides;
    }
    // What the tester says of the pull holds for all of it.
    ASSERT_TRUE(project::setStanding(*p, *made, domain::Standing::atLeast, "the wrench slipped off"));
    EXPECT_EQ(state("running"), stats::Bound::above);
}

TEST_F(Entries, ALadderIsSafeAfterEveryStep) {
    ASSERT_TRUE(project::setMethod(*p, study, "step-ladder"));
    const auto step = [&](double load, bool held) {
        return project::addLadderStep(*p, piece(), {load, {}, held}, "2026-05-04T09:00:00", "Ines");
    };
    const auto pull = step(100, true);
    ASSERT_TRUE(pull);
    ASSERT_TRUE(step(150, true));
    reopen();
    ASSERT_EQ(data().pulls.size(), 1U) << "as if the program had been killed here";
    EXPECT_EQ(data().pulls[0].outcome.entered.steps.size(), 2U);
    EXPECT_EQ(plan::nextOnLadder(data())->id, piece()) << "the one begun comes first";
    EXPECT_FALSE(step(-5, true));
    ASSERT_TRUE(step(200, false));
    EXPECT_NE(step(250, true).error().message.find("let go already"), std::string::npos);
    EXPECT_EQ(data().pulls[0].standing, domain::Standing::between);
    EXPECT_EQ(plan::nextOnLadder(data())->id, piece(1));
    ASSERT_TRUE(project::takeBackLadderStep(*p, *pull));
    EXPECT_EQ(data().pulls[0].standing, domain::Standing::atLeast);
    ASSERT_TRUE(project::takeBackLadderStep(*p, *pull));
    ASSERT_TRUE(project::takeBackLadderStep(*p, *pull));
    EXPECT_TRUE(data().pulls.empty()) << "with its first step the pull goes too";
    EXPECT_FALSE(project::takeBackLadderStep(*p, *pull));
    EXPECT_FALSE(project::addLadderStep(*p, 999, {100, {}, true}, "", ""));
}

TEST_F(Entries, AnotherPartsFailureLeavesOnlyWhatWasHeld) {
    ASSERT_TRUE(project::setMethod(*p, study, "step-ladder"));
    const auto step = [&](Id piece, double load, bool held) {
        return *project::addLadderStep(*p, piece, {load, {}, held}, "", "");
    };
    step(piece(), 100, true);
    const auto held = step(piece(), 150, false), nothing = step(piece(1), 100, false);
    ASSERT_TRUE(project::ladderBroke(*p, held, "the grip"));
    ASSERT_TRUE(project::ladderBroke(*p, nothing, "the grip"));
    EXPECT_EQ(data().pull(held)->standing, domain::Standing::atLeast);
    EXPECT_EQ(value(held, "holding"), 100);
    EXPECT_EQ(data().pull(nothing)->standing, domain::Standing::aside);
    EXPECT_FALSE(data().pull(nothing)->reason.empty());
    ASSERT_TRUE(p->undo());
    EXPECT_EQ(data().pull(nothing)->standing, domain::Standing::atMost);
    ASSERT_TRUE(project::ladderBroke(*p, nothing, "the piece"));
    EXPECT_EQ(data().pull(nothing)->standing, domain::Standing::atMost)
        << "the part asked for: it failed at the first step";
    EXPECT_FALSE(project::ladderBroke(*p, 99, "the piece"));
}

TEST_F(Entries, GaugesGrowReadingByReading) {
    ASSERT_TRUE(project::setMethod(*p, study, "creep"));
    const auto read = [&](double at, double value, bool unloaded = false) {
        return project::addGaugeReading(*p, piece(), {at, value}, unloaded, "Ines");
    };
    EXPECT_FALSE(read(1000, 0.010, true)) << "nothing to recover from yet";
    ASSERT_TRUE(read(1000, 0.010));
    EXPECT_EQ(data().pulls[0].standing, domain::Standing::notRead);
    EXPECT_FALSE(read(1000, 0.011)) << "not later than the one before";
    ASSERT_TRUE(read(2000, 0.011));
    EXPECT_EQ(data().pulls[0].standing, domain::Standing::counts);
    ASSERT_TRUE(read(3000, 0.0105, true));
    EXPECT_EQ(data().pulls.size(), 1U);
    EXPECT_NEAR(value(data().pulls[0].id, "creep"), 0.001, 1e-12);
    EXPECT_EQ(*data().pulls[0].outcome.entered.unloadedFrom, 3000);
    EXPECT_FALSE(project::addLadderStep(*p, piece(), {100, {}, true}, "", ""))
        << "it has a result of another kind";
}

TEST_F(Entries, WhatTheTesterSaidOfAPullOutlivesTheNextReading) {
    ASSERT_TRUE(project::setMethod(*p, study, "creep"));
    const auto read = [&](double at, double value) {
        return *project::addGaugeReading(*p, piece(), {at, value}, false, "Ines");
    };
    read(1000, 0.010);
    const auto pull = read(2000, 0.011);
    EXPECT_FALSE(results::notesOf(data(), *data().pull(pull)).empty());
    ASSERT_TRUE(p->changePull(pull, "note", [](domain::Pull& x) { x.note = "in the shade by mistake"; }));
    ASSERT_TRUE(project::setStanding(*p, pull, domain::Standing::aside, "in the shade"));
    read(3000, 0.012);
    EXPECT_EQ(data().pull(pull)->note, "in the shade by mistake");
    EXPECT_EQ(data().pull(pull)->standing, domain::Standing::aside);
    EXPECT_EQ(data().pull(pull)->reason, "in the shade");
    EXPECT_NEAR(value(pull, "creep"), 0.002, 1e-12) << "the number goes on";
}

/// Kept from the program of then: every kind of entry, with the number it showed.
TEST(OldEntries, AFileOfVersionSixKeepsItsNumbers) {
    QTemporaryDir dir;
    const auto path = dir.filePath("p.anvil");
    ASSERT_TRUE(QFile::copy(QStringLiteral(TEST_DATA "/projects/version-6.anvil"), path));
    QFile(path).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    auto p = OpenProject::open(path);
    ASSERT_TRUE(p) << p.error().message;
    using stats::Bound;
    const struct {
        Id pull;
        const char* metric;
        Bound bound;
        double value, upper;
    } then[] = {
        {1, "breakaway", Bound::exact, 4.2, 4.2},
        {2, "breakaway", Bound::above, 9, 9},
        {3, "breakaway", Bound::between, 3, 4},
        {4, "breakaway", Bound::above, 5, 5},
        {1, "running", Bound::exact, 1.1, 1.1},
        {5, "sag", Bound::exact, 0.014, 0.014},
        {6, "sag", Bound::exact, 0.015, 0.015},
        {7, "energy", Bound::exact, 7.649187, 7.649187},
        {8, "energy", Bound::exact, 6.00986379049, 6.00986379049},
        {9, "energy", Bound::above, 11.76798, 11.76798},
        {10, "peak_deceleration", Bound::exact, 833.56525, 833.56525},
        {11, "peak_deceleration", Bound::above, 1961.33, 1961.33},
        {12, "holding", Bound::exact, 1800, 1800},
        {13, "holding", Bound::above, 2000, 2000},
        {14, "success_rate", Bound::exact, 0.7, 0.7},
        {15, "rating", Bound::exact, 3.5, 3.5},
        {16, "holding", Bound::between, 100, 120},
        {17, "holding", Bound::above, 100, 100},
        {18, "holding", Bound::below, 100, 100},
        {19, "moment", Bound::between, 50, 60},
        {20, "moment", Bound::above, 50, 50},
        {21, "creep", Bound::exact, 0.0025, 0.0025},
    };
    for (const auto& was : then)
        for (const auto& s : (*p)->studies())
            if (const auto* pull = s.pull(was.pull)) {
                SCOPED_TRACE(was.pull);
                const auto now = results::valueOf(s, *pull, nullptr, domain::metric(was.metric)).value;
                ASSERT_TRUE(now);
                EXPECT_EQ(now->bound, was.bound);
                EXPECT_NEAR(now->value, was.value, 1e-9 * was.value);
                EXPECT_NEAR(now->bound == Bound::between ? now->upper : was.upper, was.upper,
                            1e-9 * was.upper);
                EXPECT_FALSE(pull->typed) << "what follows is computed";
            }
    for (const auto& [study, metric] : {std::pair{"Hammers", "energy"},
                                        {"Drops", "peak_deceleration"},
                                        {"Tries", "success_rate"},
                                        {"Steps", "holding"}})
        for (const auto& s : (*p)->studies())
            EXPECT_TRUE(s.study.title != study || s.study.goal.metric == domain::metric(metric)) << study;
    const auto& looks = (*p)->studies().at(6);
    ASSERT_EQ(looks.study.title, "Looks");
    EXPECT_EQ(looks.pulls[0].note, "loose") << "the word beside a rating";
    EXPECT_TRUE((*p)->file().check().problems.isEmpty());
}

TEST_F(Entries, APictureFindsItsInstant) {
    domain::Pull pull;
    pull.specimen = piece();
    pull.performedAt = "2026-05-04T09:00:00";
    Id id = 0;
    ASSERT_TRUE(p->run("Pull", [&](store::Writer& w) {
        curve::Curve c;
        c.others = {{"leg 1", "N", {}}, {"leg 2", "N", {}}};
        for (int i = 0; i < 2000; ++i) {
            c.time.push_back(50 + 0.01 * i);
            c.load.push_back(i < 500 ? 0 : std::min(0.5 * (i - 500), 400.0));
            c.others[0].values.push_back(0.75 * c.load.back());
            c.others[1].values.push_back(0.25 * c.load.back());
        }
        pull.curve = w.addCurve(c);
        pull.outcome.marks = {{68, "mark 1"}};
        id = w.add(pull);
    }));
    const QDateTime began = QDateTime::fromString("2026-05-04T09:00:00", Qt::ISODate);
    ASSERT_TRUE(project::attach(*p, id, "a.png", "bytes", began.addMSecs(7500)));
    ASSERT_TRUE(project::attach(*p, id, "b.png", "others", began.addDays(1)));
    ASSERT_EQ(data().attachments.size(), 2U);
    EXPECT_NEAR(*data().attachments[0].at, 57.5, 1e-9);
    EXPECT_FALSE(data().attachments[1].at) << "the day after";
    EXPECT_FALSE(project::attach(*p, 999, "c.png", "bytes", began));
    // The same second holds what every leg showed.
    const auto steady = p->steadyAtMarks(id);
    ASSERT_EQ(steady.size(), 1U);
    EXPECT_TRUE(steady[0].still);
    const auto shares = curve::sharesOf(steady[0]);
    ASSERT_EQ(shares.size(), 2U);
    EXPECT_NEAR(shares[0].share, 0.75, 1e-9);
    const auto legs = p->beside(id);
    ASSERT_EQ(legs.size(), 2U);
    EXPECT_EQ(legs[0].values.size(), (*p->readCurve(id))->cleaned.load.size());
    reopen();
    EXPECT_EQ(data().attachments.size(), 2U);
    EXPECT_TRUE(p->file().check().problems.isEmpty());
}

TEST_F(Entries, RigidBarsHaveAStudyOfTheirOwn) {
    const auto first = project::addRigCheckPiece(*p, "Shed winch");
    ASSERT_TRUE(first);
    const auto second = project::addRigCheckPiece(*p, "Shed winch");
    ASSERT_TRUE(second);
    EXPECT_NE(*first, *second);
    EXPECT_EQ(p->studies().size(), 2U);
    EXPECT_TRUE(p->studyOfSpecimen(*second)->study.plan.rigCheck);
    reopen();
    ASSERT_TRUE(project::addRigCheckPiece(*p, "Press"));
    EXPECT_EQ(p->studies().size(), 2U) << "found again";
}

} // namespace
