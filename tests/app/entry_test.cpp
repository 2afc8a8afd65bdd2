// Results that are no curve, pictures, tones and the screen: through the real window.
#include "harness.h"
#include <anvil/pages/page.h>
#include <anvil/pages/write.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/pull_commands.h>
#include <anvil/project/rig_commands.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>

#include "shell/due_watch.h"
#include "shell/ledger.h"
#include "shell/pictures_list.h"
#include "shell/tones.h"
#include "shell/wakefulness.h"
#include "stages/pull/entry_panel.h"
#include "stages/pull/gauge_panel.h"
#include "stages/pull/ladder_panel.h"
#include <QComboBox>
#include <QDBusConnection>
#include <QDropEvent>
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QTableWidget>
#include <set>
#include <thread>

using namespace anvil;
using namespace anvil::app;

namespace {

struct Entering : Window {
    void type(const char* field, const QString& text) {
        auto* edit = child<QLineEdit>(field);
        edit->setFocus();
        retype(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
    }
    const domain::Pull& last() { return study().pulls.back(); }
    domain::Standing standing(const domain::Pull& pull) {
        return results::standingOf(study(), pull, nullptr);
    }
    /// What a pull says of the metric that decides.
    stats::Value value(std::size_t pull) {
        const auto& p = study().pulls.at(pull);
        return results::valueOf(study(), p, nullptr, study().study.goal.metric).value.value();
    }
};

TEST_F(Entering, SagsAreTypedAsTwoHeightsAndRanked) {
    begin("sag");
    EXPECT_EQ(study().study.goal.metric, domain::metric("sag")) << "the method decides what is told";
    EXPECT_EQ(study().study.goal.sense, domain::Sense::less);
    ASSERT_TRUE(window->findChild<EntryPanel*>()->isVisible());
    const char* loaded[] = {"398", "397", "401", "402"};
    for (const char* height : loaded) {
        type("entry-unloaded", "412 mm");
        type("entry-loaded", height);
        type("entry-after", "");
    }
    ASSERT_EQ(study().pulls.size(), 4U);
    EXPECT_NEAR(value(0).value, 0.014, 1e-9);
    const auto facts = visibleTexts(window->findChild<Ledger*>()).join('\n');
    EXPECT_TRUE(facts.contains("Height loaded: 402 mm")) << facts.toStdString();
    EXPECT_TRUE(facts.contains("Sag: 10.00 mm")) << "what follows stands below what was entered";
    const auto& v = session().verdict(domain::metric("sag"));
    ASSERT_EQ(v.groups.size(), 2U);
    EXPECT_NEAR(*v.groups[0].summary.mean, 0.0105, 1e-9) << "what sags least comes first";
    EXPECT_NEAR(*v.groups[1].summary.mean, 0.0145, 1e-9);
    showPage("Answer");
    EXPECT_TRUE(visibleTexts(window->verdict()).filter("has the lowest").size() > 0);
    EXPECT_TRUE(visibleTexts(window->verdict()).filter("14.50 mm").size() > 0);
    EXPECT_EQ(shown<QComboBox>("Ranked by")->count(), 4)
        << "nothing is offered that the method does not tell";
    EXPECT_TRUE(session().project()->file().check().problems.isEmpty());
}

TEST_F(Entering, AFormWithoutPiecesOffersToMakeThem) {
    const auto id = newStudy({"Foot", "Hook"}, {"Dry"});
    ASSERT_TRUE(project::setMethod(*session().project(), id, "load-share"));
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 2));
    window->goTo(Stage::pull);
    settle();
    EXPECT_TRUE(visibleTexts(window.get()).contains("4 pieces are planned, and none is made yet."));
    pressButton("Make 4 pieces");
    settle();
    EXPECT_EQ(study().specimens.size(), 4U);
    EXPECT_TRUE(child<QLineEdit>("entry-leg.1")->isVisible());
}

TEST_F(Entering, AWrongFormIsASentenceAndLosesNothing) {
    begin("sag");
    type("entry-unloaded", "398 mm");
    type("entry-loaded", "412");
    type("entry-after", "");
    EXPECT_TRUE(study().pulls.empty());
    EXPECT_TRUE(window->messageText().contains("swapped")) << window->messageText().toStdString();
    EXPECT_EQ(shown<QLineEdit>("Height loaded")->text(), "412") << "what was typed stays";
}

TEST_F(Entering, ASquareTestedInAnotherWayHasItsOwnForm) {
    begin("sag");
    const auto option = study().options[0].id, condition = study().conditions[0].id;
    ASSERT_TRUE(project::changePlan(*session().project(), study().study.id, "x", [&](domain::Plan& p) {
        p.squareFor(option, condition).method = "torque";
    }));
    settle();
    type("entry-breakaway", "4 N·m");
    type("entry-running", "");
    ASSERT_EQ(study().pulls.size(), 1U) << window->messageText().toStdString();
    EXPECT_EQ(study().specimenAt(last().specimen).option, option);
    EXPECT_EQ(results::valueOf(study(), last(), nullptr, domain::metric("breakaway")).value->value, 4);
    EXPECT_FALSE(results::valueOf(study(), last(), nullptr, domain::metric("sag")).value);
}

TEST_F(Entering, EveryFormTakesItsResult) {
    const struct {
        const char* method;
        std::vector<std::pair<const char*, const char*>> fields;
        domain::Metric metric;
        double value;
    } forms[] = {
        {"torque",
         {{"entry-breakaway", "4.2 N·m"}, {"entry-running", "1.1 N·m"}, {"entry-force", ""}},
         domain::metric("breakaway"),
         4.2},
        {"hammer",
         {{"entry-mass", "2 kg"},
          {"entry-from", "600 mm"},
          {"entry-to", "210 mm"},
          {"entry-free", ""},
          {"entry-arm", ""}},
         domain::metric("energy"),
         2 * 9.80665 * 0.39},
        {"drop",
         {{"entry-height", "1.2 m"}, {"entry-peak", "85 g₀"}, {"entry-hit", ""}},
         domain::metric("peak_deceleration"),
         85 * 9.80665},
        {"attempts", {{"entry-successes", "7"}, {"entry-tries", "10"}}, domain::metric("success_rate"), 0.7},
        {"holding",
         {{"entry-moves", "1.8 kN"}, {"entry-creeps", ""}, {"entry-seconds", ""}},
         domain::metric("holding"),
         1800},
        {"by-eye", {{"entry-rating", "3.5"}}, domain::metric("rating"), 3.5},
    };
    for (const auto& f : forms) {
        SCOPED_TRACE(f.method);
        begin(f.method);
        shown<QLineEdit>("What was seen")->setText("looked at");
        for (const auto& [field, text] : f.fields)
            type(field, text);
        ASSERT_EQ(study().pulls.size(), 1U) << window->messageText().toStdString();
        EXPECT_EQ(study().study.goal.metric, f.metric);
        EXPECT_NEAR(value(0).value, f.value, 1e-9);
        EXPECT_EQ(last().note, "looked at");
        const auto& v = session().verdict(f.metric);
        ASSERT_FALSE(v.groups.empty());
        window->goTo(Stage::report);
        window->goTo(Stage::verdict);
    }
}

TEST_F(Entering, ALadderByGlovesAlone) {
    begin("step-ladder");
    auto* panel = window->findChild<LadderPanel*>();
    ASSERT_TRUE(panel->isVisible());
    EXPECT_TRUE(child<QLabel>("benchSentence")); // of the ladder: it says what is missing
    type("ladderFirst", "100 N");
    type("ladderMore", "50 N");
    const auto press = [&](int k) {
        QTest::qWait(static_cast<int>(LadderPanel::guardMs) + 20);
        QTest::keyClick(panel, static_cast<Qt::Key>(k));
    };
    press(Qt::Key_Space); // 100 held
    QTest::keyClick(panel, Qt::Key_Space);
    ASSERT_EQ(study().pulls.size(), 1U);
    EXPECT_EQ(last().outcome.entered.steps.size(), 1U) << "a bouncing glove is no step";
    EXPECT_EQ(standing(last()), domain::Standing::atLeast) << "safe after every step";
    press(Qt::Key_Space); // 150 held
    press(Qt::Key_Space); // 200 held: no, a mistake
    press(Qt::Key_0);
    EXPECT_EQ(last().outcome.entered.steps.size(), 2U);
    press(Qt::Key_1); // 200 let go
    EXPECT_EQ(standing(last()), domain::Standing::between);
    EXPECT_EQ(value(0).value, 150);
    EXPECT_EQ(value(0).upper, 200);
    press(Qt::Key_Space); // the piece broke
    EXPECT_FALSE(last().outcome.part.empty());
    press(Qt::Key_Space); // next piece
    press(Qt::Key_2);     // enough: it holds this much
    press(Qt::Key_1);     // the third at once
    press(Qt::Key_3);     // and not the part asked for
    ASSERT_EQ(study().pulls.size(), 3U);
    EXPECT_EQ(study().pulls[1].outcome.limit, domain::Limit::stopped);
    EXPECT_EQ(standing(study().pulls[1]), domain::Standing::atLeast);
    EXPECT_EQ(standing(study().pulls[2]), domain::Standing::aside)
        << "another part failed before anything was held: that is no lower bound";
    EXPECT_TRUE(session().project()->file().check().problems.isEmpty());
}

TEST_F(Entering, GaugesAreReadOverDaysAndAskedFor) {
    begin("creep");
    session().setNow(QDateTime(QDate(2026, 5, 4), QTime(9, 0)));
    ASSERT_TRUE(window->findChild<GaugePanel*>()->isVisible());
    type("gaugeEvery", "1 d");
    EXPECT_EQ(study().study.plan.gaugeEvery, 86400);
    for (const char* v : {"10.0 mm", "10.2 mm", "9.8 mm", "10.1 mm"})
        type("gaugeValue", v);
    ASSERT_EQ(study().pulls.size(), 4U);
    EXPECT_EQ(standing(study().pulls[0]), domain::Standing::notRead) << "one reading is no creep";
    EXPECT_TRUE(visibleTexts(window.get()).filter("No gauge is to be read now").size() > 0);
    QStringList said;
    QObject::connect(&session(), &Session::due, &session(), [&](const QString& text) { said << text; });
    session().setNow(QDateTime(QDate(2026, 5, 5), QTime(10, 0)));
    DueWatch(session()).look();
    ASSERT_EQ(said.size(), 1);
    EXPECT_EQ(said[0], "4 gauges are to be read again");
    type("gaugeValue", "11.0 mm");
    EXPECT_EQ(standing(study().pulls[0]), domain::Standing::counts);
    EXPECT_NEAR(value(0).value, 0.001, 1e-9);
    EXPECT_EQ(study().study.goal.metric, domain::metric("creep"));
}

/// What the next number belongs to stands above the field, whatever was done before: random sequences at
/// every page where results are entered (that of single numbers has its own, with unplanned pieces).
struct Turns : Entering {
    std::uint64_t state = 11;
    int pick(int n) {
        state = state * 6364136223846793005ULL + 1442695040888963407ULL;
        return static_cast<int>((state >> 33) % static_cast<std::uint64_t>(n));
    }
    std::string above(const QWidget* panel) {
        return panel->findChild<QLabel*>("nextPiece")
            ->text()
            .section('\n', 0, 0)
            .section(',', 0, 0)
            .section(' ', 0, 0)
            .toStdString();
    }
    /// The pulls that an action made or changed are of the piece that stood above.
    void expectOn(const std::vector<domain::Pull>& before, const std::string& label) {
        for (const auto& pull : study().pulls) {
            const auto at = std::find_if(before.begin(), before.end(),
                                         [&](const domain::Pull& p) { return p.id == pull.id; });
            if (at == before.end() || *at != pull) {
                EXPECT_EQ(study().specimenAt(pull.specimen).label, label);
            }
        }
    }
};

TEST_F(Turns, OfAForm) {
    begin("torque");
    const auto* panel = window->findChild<EntryPanel*>();
    ASSERT_TRUE(panel->isVisible());
    int kept = 0;
    for (int step = 0; step < 40; ++step) {
        const auto label = above(panel);
        const auto before = study().pulls;
        auto* field = child<QLineEdit>("entry-breakaway");
        switch (pick(4)) {
        case 0:
            if (field->isVisible()) child<QPushButton>("entryOther")->click();
            break;
        case 1:
            key(Qt::Key_Z, Qt::ControlModifier);
            settle();
            continue; // what is taken back was of another
        default:
            if (!field->isVisible() || label.empty()) break;
            type("entry-breakaway", QString("4.%1 N\u00b7m").arg(step % 10));
            type("entry-running", "");
        }
        settle();
        kept += study().pulls.size() > before.size();
        expectOn(before, label);
    }
    EXPECT_GT(kept, 4);
}

TEST_F(Turns, OfALadder) {
    begin("step-ladder");
    auto* panel = window->findChild<LadderPanel*>();
    type("ladderFirst", "100 N");
    type("ladderMore", "50 N");
    int letGo = 0;
    for (int step = 0; step < 24; ++step) {
        const auto label = above(panel);
        const auto before = study().pulls;
        if (pick(6) == 0) {
            key(Qt::Key_Z, Qt::ControlModifier);
            settle();
            continue;
        }
        static constexpr Qt::Key keys[] = {Qt::Key_Space, Qt::Key_Space, Qt::Key_1,
                                           Qt::Key_9,     Qt::Key_2,     Qt::Key_0};
        panel->setFocus();
        QTest::qWait(static_cast<int>(LadderPanel::guardMs) + 20);
        QTest::keyClick(panel, keys[pick(6)]);
        settle();
        expectOn(before, label);
        letGo += panel->findChild<QLabel*>("benchSentence")->text().contains("What broke?");
    }
    EXPECT_GT(letGo, 0);
    EXPECT_GT(study().pulls.size(), 1U);
}

TEST_F(Turns, OfGauges) {
    begin("creep");
    auto now = QDateTime(QDate(2026, 5, 4), QTime(9, 0));
    session().setNow(now);
    const auto* panel = window->findChild<GaugePanel*>();
    ASSERT_TRUE(panel->isVisible());
    std::map<std::string, std::size_t> readings;
    for (int step = 0; step < 40; ++step) {
        session().setNow(now = now.addSecs(3600));
        if (pick(3) == 0) {
            auto* table = panel->findChild<QTableWidget*>("gauges");
            if (table->rowCount()) table->selectRow(pick(table->rowCount()));
            settle();
        }
        const auto label = above(panel);
        const auto before = study().pulls;
        if (label.empty()) break;
        if (pick(8) == 0) {
            key(Qt::Key_Z, Qt::ControlModifier);
            settle();
            continue;
        }
        type("gaugeValue", QString("10.%1 mm").arg(step % 10));
        settle();
        expectOn(before, label);
    }
    EXPECT_GT(study().pulls.size(), 2U);
}

TEST_F(Entering, APressureIsTypedAsItStandsOnTheGauge) {
    begin("three-point-bend");
    rig::Setup press;
    press.name = "Press";
    press.shows = quantity::Dimension::stress;
    press.path = {{rig::RatioPart::Kind::ram, 12.3e-4, 0, 0, 0, 0}};
    ASSERT_TRUE(project::saveRig(*session().project(), press));
    settle();
    type("entry-peak", "2300 psi");
    type("entry-deflection_at_peak", "");
    EXPECT_TRUE(study().pulls.empty()) << "asked first";
    EXPECT_TRUE(visibleTexts(window.get()).filter("its display shows a pressure").size() > 0);
    pressButton("Off the display");
    settle();
    type("entry-peak", "2300 psi");
    pressButton("Keep, next piece");
    ASSERT_EQ(study().pulls.size(), 1U) << window->messageText().toStdString();
    EXPECT_NEAR(results::valueOf(study(), last(), nullptr, domain::metric("peak")).value->value, 19505.27,
                0.01);
    const auto facts = visibleTexts(window->findChild<Ledger*>()).join('\n');
    EXPECT_TRUE(facts.contains("123.0 N for each bar")) << facts.toStdString();
    type("entry-peak", "2250"); // in what was typed before
    pressButton("Keep, next piece");
    ASSERT_EQ(study().pulls.size(), 2U) << window->messageText().toStdString();
    EXPECT_EQ(last().outcome.entered.fields[0].text, "2250 psi");
}

TEST_F(Entering, TheStepsOfARatingHaveWords) {
    begin("by-eye");
    auto* words = child<RowEditor>("ratingWords");
    ASSERT_TRUE(words->isVisible());
    typeRows(words, {{"11", "holds"}});
    EXPECT_TRUE(window->messageText().contains("off the scale")) << window->messageText().toStdString();
    EXPECT_TRUE(study().study.plan.ratingWords.empty());
    typeRows(words, {{"5", "needs a hammer"}, {"0", "falls out by hand"}});
    ASSERT_EQ(study().study.plan.ratingWords.size(), 2U);
    EXPECT_EQ(child<QLabel>("ratingScale")->text(), "0   falls out by hand\n5   needs a hammer");
    type("entry-rating", "5");
    ASSERT_EQ(study().pulls.size(), 1U) << window->messageText().toStdString();
    EXPECT_EQ(results::notesOf(study(), last()).front(), "needs a hammer");
    type("entry-rating", "2.5");
    EXPECT_EQ(results::notesOf(study(), last()).front(),
              "between \"falls out by hand\" and \"needs a hammer\"");
    const auto html = qs(pages::toHtml(pages::report(session().source(), {session().units()})));
    EXPECT_TRUE(html.contains("The steps of the scale: 0 = falls out by hand; 5 = needs a hammer."));
    ASSERT_TRUE(session().project()->undo());
    EXPECT_EQ(study().pulls.size(), 1U);
    begin("torque");
    EXPECT_FALSE(child<RowEditor>("ratingWords")->isVisible());
}

TEST_F(Entering, TheFirstNumberMakesThePiecesThatArePlanned) {
    const auto id = newStudy({"Pin", "Bolt"}, {"Dry"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 2));
    window->goTo(Stage::pull);
    settle();
    auto* value = shown<QLineEdit>("What was read");
    ASSERT_TRUE(value->isVisible()) << "no dead end: nothing is made yet";
    EXPECT_GE(value->height(), 48) << "the largest thing on the page";
    EXPECT_EQ(value->placeholderText(), "number with its unit");
    QTest::keyClicks(value, "12 mm");
    QTest::keyClick(value, Qt::Key_Return);
    settle();
    EXPECT_TRUE(study().specimens.empty()) << "a number that is refused makes nothing";
    EXPECT_EQ(value->text(), "12 mm");
    value->clear();
    QTest::keyClicks(value, "4.2 kN");
    QTest::keyClick(value, Qt::Key_Return);
    settle();
    EXPECT_EQ(study().specimens.size(), 4U);
    ASSERT_EQ(study().pulls.size(), 1U);
    EXPECT_EQ(study().pulls[0].typed->value, 4200);
    const auto texts = [&] { return visibleTexts(window.get()).join('\n'); };
    EXPECT_TRUE(texts().contains("A1-1   4200 N")) << "the last entries stand beside it";
    EXPECT_TRUE(texts().contains("1 so far")) << texts().toStdString();
    EXPECT_TRUE(child<PictureView>("soFar")->isVisible());
    EXPECT_TRUE(child<QLabel>("typedPiece")->text().startsWith("A1-2"));
    EXPECT_EQ(value->placeholderText(), "the number") << "its unit stands beside it";
    QTest::keyClicks(value, "4.4");
    QTest::keyClick(value, Qt::Key_Return);
    settle();
    EXPECT_EQ(study().pulls[1].typed->value, 4400) << "4.4 after 4.2 kN is no newtons";
    EXPECT_TRUE(session().project()->undo());
    settle();
    for (auto* b : window->findChildren<QPushButton*>())
        if (b->isVisible() && b->text().startsWith("Take back")) QTest::mouseClick(b, Qt::LeftButton);
    settle();
    EXPECT_TRUE(study().pulls.empty());
    EXPECT_EQ(study().specimens.size(), 4U) << "the pieces stay";
}

TEST_F(Entering, TheHintIsInTheMethodsOwnUnit) {
    const auto id = newStudy({"Rod", "Tube"}, {"Dry"});
    ASSERT_TRUE(project::setMethod(*session().project(), id, "torsion"));
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 2));
    ASSERT_TRUE(project::makePieces(*session().project(), id, ""));
    window->goTo(Stage::pull);
    settle();
    EXPECT_TRUE(child<QLineEdit>("entry-peak")->placeholderText().contains(QString::fromUtf8("N\u00b7m")));
    window->goTo(Stage::question);
    settle();
    EXPECT_EQ(shown<QLineEdit>("What is needed")->placeholderText(), "how much");
}

TEST_F(Entering, TheLedgerIsACardOfFactsThatOpenWhereTheyStand) {
    openDemo();
    session().selectPull(pullOf("B1-2"));
    key(Qt::Key_L, Qt::ControlModifier);
    settle();
    const auto* ledger = child<QWidget>("ledgerPanel");
    const auto texts = [&] { return visibleTexts(const_cast<QWidget*>(ledger)).join('\n'); };
    EXPECT_TRUE(texts().contains("at least 4352 N")) << texts().toStdString();
    EXPECT_TRUE(texts().contains("At least: ")) << "how it stands, with its reason";
    EXPECT_TRUE(texts().contains("Net wire"));
    EXPECT_TRUE(texts().contains("add a note"));
    for (const char* name : {"standing", "whatBroke", "mode"})
        EXPECT_FALSE(child<QComboBox>(name)->isVisible()) << name << ": a form opens when it is asked for";
    EXPECT_FALSE(child<QPlainTextEdit>("note")->isVisible());
    pressButton("add a note");
    ASSERT_TRUE(child<QPlainTextEdit>("note")->isVisible());
    QTest::keyClicks(child<QPlainTextEdit>("note"), "wire was kinked");
    window->board()->setFocus();
    settle();
    EXPECT_TRUE(texts().contains("wire was kinked"));
    session().selectPull(pullOf("B1-3"));
    settle();
    EXPECT_FALSE(child<QPlainTextEdit>("note")->isVisible()) << "another card, closed";
    EXPECT_FALSE(texts().contains("wire was kinked"));
}

TEST_F(Entering, TwoEndsOfAPieceRankEachOther) {
    const auto id = newStudy({"Knot", "Splice"}, {"Dry"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 2));
    ASSERT_TRUE(project::makePieces(*session().project(), id, ""));
    window->goTo(Stage::question);
    planPage("Method");
    settle();
    auto* other = child<QComboBox>("otherEnd");
    EXPECT_FALSE(other->isVisible()) << "one joint has no other end";
    shown<QSpinBox>("Joints each")->setValue(2);
    emit shown<QSpinBox>("Joints each")->editingFinished();
    session().selectSquare(study().options[0].id, study().conditions[0].id);
    settle();
    ASSERT_TRUE(other->isVisible());
    other->setCurrentIndex(other->findText("Splice"));
    emit other->activated(other->currentIndex());
    const auto* square = study().study.plan.square(study().options[0].id, study().conditions[0].id);
    ASSERT_TRUE(square);
    EXPECT_EQ(square->otherEnd, study().options[1].id);
    project::TypedPull typed;
    typed.specimen = study().specimens[0].id;
    typed.text = "4 kN";
    const auto pull = project::addTypedPull(*session().project(), typed);
    ASSERT_TRUE(pull) << pull.error().message;
    session().selectPull(*pull);
    key(Qt::Key_L, Qt::ControlModifier); // the ledger is a drawer, closed while a plan is made
    settle();
    EXPECT_TRUE(visibleTexts(window.get()).contains("add what broke"));
    pressButton("add what broke");
    auto* end = shown<QComboBox>("Which end failed");
    ASSERT_TRUE(end->isVisible());
    end->setCurrentIndex(end->findText("end 2: Splice"));
    emit end->activated(end->currentIndex());
    EXPECT_EQ(study().pulls.back().outcome.end, 2);
    const auto& v = session().verdict(domain::metric("peak"));
    ASSERT_EQ(v.groups.size(), 2U);
    for (const auto& g : v.groups)
        EXPECT_EQ(g.values.at(0).value.bound,
                  g.option == study().options[1].id ? stats::Bound::exact : stats::Bound::above);
    const auto tipsIn = [&](std::size_t option) {
        QStringList out;
        const auto r = window->board()->squareOf(study().options[option].id, study().conditions[0].id);
        for (int x = r.left(); x < r.right(); x += 4)
            if (const auto tip = window->board()->tipAt({x, r.center().y()}); !out.contains(tip)) out << tip;
        return out.join('\n');
    };
    const auto label = qs(study().specimens[0].label);
    EXPECT_TRUE(tipsIn(0).contains(label + ": at least")) << tipsIn(0).toStdString();
    EXPECT_TRUE(tipsIn(1).contains(label + ": counts, at the other end of a piece of Knot"))
        << tipsIn(1).toStdString();
    ASSERT_TRUE(session().project()->undo());
    ASSERT_TRUE(session().project()->undo());
    ASSERT_TRUE(session().project()->undo());
    EXPECT_FALSE(tipsIn(1).contains("other end"));
    square = study().study.plan.square(study().options[0].id, study().conditions[0].id);
    EXPECT_TRUE(!square || !square->otherEnd);
}

TEST_F(Entering, PhasesOfAPull) {
    openDemo();
    session().selectPull(study().pulls.front().id);
    typeRows(child<RowEditor>("phases"), {{"set", "down", "400 N", "12 N·m", "", "held"},
                                          {"pulled", "straight up", "", "", "", "came out"}});
    settle();
    const auto* pull = study().pull(session().pull());
    ASSERT_EQ(pull->outcome.phases.size(), 2U) << window->messageText().toStdString();
    EXPECT_EQ(pull->outcome.phases[0].readings.at(0).si, 400);
    EXPECT_EQ(pull->outcome.phases[0].readings.at(1).si, 12);
    EXPECT_EQ(pull->outcome.phases[1].outcome, "came out");
    while (session().project()->canUndo())
        ASSERT_TRUE(session().project()->undo());
    EXPECT_TRUE(study().pull(session().pull())->outcome.phases.empty());
}

TEST_F(Entering, APictureDroppedOnTheWindowStaysWithItsPull) {
    openDemo();
    session().selectPull(study().pulls.front().id);
    const auto path = dir.filePath("the break.png");
    QImage picture(64, 48, QImage::Format_RGB32);
    picture.fill(Qt::red);
    ASSERT_TRUE(picture.save(path));
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter(QPoint(200, 200), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window.get(), &enter);
    EXPECT_TRUE(enter.isAccepted());
    QDropEvent drop(QPointF(200, 200), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window.get(), &drop);
    ASSERT_EQ(study().attachments.size(), 1U) << window->messageText().toStdString();
    EXPECT_EQ(study().attachments[0].pull, session().pull());
    EXPECT_EQ(study().attachments[0].name, "the break.png");
    auto* list = child<QListWidget>("pictures");
    EXPECT_EQ(list->count(), 1);
    EXPECT_FALSE(list->item(0)->icon().isNull());
    const auto file = session().project()->file().importedFile(study().attachments[0].file);
    QFile original(path);
    ASSERT_TRUE(original.open(QIODevice::ReadOnly));
    EXPECT_EQ(*file->unpack(), original.readAll()) << "kept as it is";
    child<QPushButton>("removePicture")->click();
    EXPECT_TRUE(study().attachments.empty());
    session().project()->undo();
    EXPECT_EQ(study().attachments.size(), 1U);
    EXPECT_FALSE(project::attach(*session().project(), session().pull(), "nothing.png", {}, {}));
    const auto odd = project::attach(*session().project(), session().pull(), "../../etc/x.png", "abc", {});
    ASSERT_TRUE(odd);
    EXPECT_EQ(study().attachments.back().name, "x.png") << "only a name, never a path";
}

TEST(Tones, AreDistinctAndDoNotClick) {
    std::set<std::vector<std::int16_t>> all;
    for (const auto tone :
         {Tone::armed, Tone::look, Tone::nearLimit, Tone::broke, Tone::saved, Tone::notSaved}) {
        const auto s = samplesOf(tone);
        ASSERT_GT(s.size(), 1000U);
        EXPECT_LT(s.size(), static_cast<std::size_t>(toneRate)) << "shorter than a second";
        EXPECT_LT(std::abs(s.front()), 50);
        EXPECT_LT(std::abs(s.back()), 200);
        int most = 0, jump = 0;
        for (std::size_t i = 1; i < s.size(); ++i) {
            most = std::max(most, std::abs(static_cast<int>(s[i])));
            jump = std::max(jump, std::abs(s[i] - s[i - 1]));
        }
        EXPECT_GT(most, 10000) << "loud enough";
        EXPECT_LT(jump, 5000) << "no step in it";
        all.insert(s);
    }
    EXPECT_EQ(all.size(), 6U);
}

/// Stands in for the desktop.
class ScreenSaver : public QObject {
    Q_OBJECT
    Q_CLASSINFO("D-Bus Interface", "org.freedesktop.ScreenSaver")
public:
    QStringList calls;
public slots:
    uint Inhibit(const QString& who,
                 const QString& why) { // NOLINT(readability-identifier-naming): the desktop's name
        calls << who + ": " + why;
        return 7;
    }
    void UnInhibit(uint cookie) { calls << QString::number(cookie); } // NOLINT(readability-identifier-naming)
};

TEST(Wakefulness, AsksTheDesktopOnceAndLetsGoAgain) {
    QProcess daemon;
    daemon.start("dbus-daemon", {"--session", "--nofork", "--print-address"});
    ASSERT_TRUE(daemon.waitForStarted());
    ASSERT_TRUE(daemon.waitForReadyRead());
    const auto address = QString::fromUtf8(daemon.readLine()).trimmed();
    auto desktop = QDBusConnection::connectToBus(address, "desktop");
    ASSERT_TRUE(desktop.isConnected()) << address.toStdString();
    ScreenSaver saver;
    ASSERT_TRUE(
        desktop.registerObject("/org/freedesktop/ScreenSaver", &saver, QDBusConnection::ExportAllSlots));
    ASSERT_TRUE(desktop.registerService("org.freedesktop.ScreenSaver"));
    {
        // The call waits for its answer, which this thread has to give: another thread asks.
        std::thread asker([&] {
            Wakefulness awake(QDBusConnection::connectToBus(address, "asker"));
            awake.keep(true, "A pull is being recorded.");
            EXPECT_TRUE(awake.kept());
            awake.keep(true, "again");
            awake.keep(false, {});
            EXPECT_FALSE(awake.kept());
        });
        EXPECT_TRUE(waitFor([&] { return saver.calls.size() == 2; }));
        asker.join();
    }
    EXPECT_EQ(saver.calls, (QStringList{"Jaunty Anvil: A pull is being recorded.", "7"}));
    QDBusConnection::disconnectFromBus("asker");
    QDBusConnection::disconnectFromBus("desktop");
    daemon.kill();
    daemon.waitForFinished();
    Wakefulness nowhere(QDBusConnection("no such bus"));
    nowhere.keep(true, "x"); // no desktop: no harm
    EXPECT_FALSE(nowhere.kept());
}

} // namespace

#include "entry_test.moc"
