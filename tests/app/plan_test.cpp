// Question and Specimens, driven by keys and the mouse.
#include "harness.h"
#include "widgets/kept_together.h"

#include "stages/question/question_stage.h"
#include "stages/specimens/specimens_stage.h"
#include <QClipboard>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QTabWidget>
#include <QTableWidget>
#include <anvil/pages/page.h>
#include <anvil/pages/sheets.h>
#include <anvil/pages/write.h>
#include <anvil/plan/forecasts.h>
#include <anvil/plan/replication.h>
#include <anvil/plan/run_order.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/study_commands.h>

using namespace anvil;
using namespace anvil::app;

namespace {

using Stages = Window;

/// Types into the current cell of a table as a person does: the keys, then Enter.
void typeIn(QTableWidget* table, const QString& text) {
    QTest::keyClick(table, text[0].toLatin1()); // opens the editor over what is there
    auto* editor = table->findChild<QLineEdit*>();
    ASSERT_TRUE(editor);
    editor->setText(text);
    QTest::keyClick(editor, Qt::Key_Return);
    settle();
}

TEST_F(Stages, AFourByTwoStudyIsPlannedInTwelveActions) {
    ASSERT_TRUE(session().create(dir.filePath("p.anvil")));
    window->goTo(Stage::question);
    settle();
    auto* board = child<QTableWidget>("planBoard");
    EXPECT_EQ(board->currentRow(), 1) << "the cursor waits for an option";
    int actions = 0;
    QApplication::clipboard()->setText("Pin\nBolt\nHook\nClip\n");
    QTest::keyClick(board, Qt::Key_V, Qt::ControlModifier), ++actions;
    EXPECT_EQ(study().options.size(), 4U);
    EXPECT_EQ(board->currentRow(), 0) << "on to the conditions by itself";
    for (const char* condition : {"D", "W"}) {
        typeIn(board, condition);
        actions += 2;
    }
    EXPECT_EQ(study().conditions.size(), 2U);
    QTest::keyClick(board, Qt::Key_Return), ++actions; // nothing more along the top
    typeIn(board, "5");
    actions += 2;
    EXPECT_EQ(plan::totals(study()).replicates, 40);
    EXPECT_LE(actions, 12);
    EXPECT_TRUE(visibleTexts(window.get()).filter("40 pieces in 8 squares").size() == 1);
    window->session().project()->undo();
    EXPECT_EQ(plan::totals(study()).replicates, 0);
}

/// From an empty home: an option after the other into an empty study, and every row stays in view with its
/// head.
TEST_F(Stages, EveryRowOfAGrowingBoardStaysInView) {
    ASSERT_TRUE(session().create(dir.filePath("p.anvil")));
    window->goTo(Stage::question);
    for (const QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
        window->resize(size);
        settle();
        auto* board = child<QTableWidget>("planBoard");
        for (int n = session().study() ? static_cast<int>(study().options.size()) : 0, to = n + 3; n < to;
             ++n) {
            board->setCurrentCell(n + 1, 0);
            typeIn(board, ("Option " + std::to_string(n + 1)).c_str());
            settle();
            ASSERT_EQ(study().options.size(), static_cast<std::size_t>(n) + 1);
            for (int row = 0; row < board->rowCount(); ++row) {
                const auto seen = board->visualItemRect(board->item(row, 0));
                EXPECT_TRUE(board->viewport()->rect().contains(seen))
                    << "row " << row << " of " << board->rowCount() << " at " << size.width();
            }
        }
    }
}

TEST_F(Stages, SquaresAreStruckOutAndPlannedOneByOne) {
    openDemo();
    session().showStudy(session().project()->studies()[2].study.id);
    window->goTo(Stage::question);
    settle();
    auto* board = child<QTableWidget>("planBoard");
    EXPECT_EQ(board->item(4, 3)->text(), "struck out");
    board->setCurrentCell(1, 1);
    typeIn(board, "7");
    EXPECT_EQ(study().study.plan.replicatesOf(study().options[0].id, study().conditions[0].id), 7);
    EXPECT_EQ(study().study.plan.replicatesOf(study().options[1].id, study().conditions[0].id), 5)
        << "only the selected square";
    board->setCurrentCell(2, 2);
    QTest::keyClick(board, Qt::Key_Delete);
    EXPECT_EQ(board->item(2, 2)->text(), "struck out");
    board->setCurrentCell(2, 2);
    typeIn(board, "1000");
    EXPECT_TRUE(window->messageText().contains("slip of the finger")) << window->messageText().toStdString();
    board->setCurrentCell(2, 2);
    typeIn(board, "lots");
    EXPECT_TRUE(window->messageText().contains("is not a number of replicates"));
    EXPECT_EQ(board->item(2, 2)->text(), "struck out") << "nothing lost, nothing changed";
    board->setCurrentCell(1, 0);
    QTest::keyClick(board, Qt::Key_Down, Qt::AltModifier);
    EXPECT_EQ(study().options[1].name, "Two-part epoxy");
    board->setCurrentCell(board->rowCount() - 1, 0);
    typeIn(board, "silicone SEALANT");
    EXPECT_TRUE(window->messageText().contains("already"));
}

TEST_F(Stages, TheHeadOfALongBoardStaysInViewAndNoCellLiesUnderIt) {
    QStringList options;
    for (int i = 1; i <= 30; ++i)
        options << QString("Peg %1").arg(i);
    newStudy(options, {"Dry", "Wet"});
    window->goTo(Stage::question);
    settle();
    auto* board = child<QTableWidget>("planBoard");
    board->setCurrentCell(30, 1);
    settle();
    ASSERT_LT(board->rowViewportPosition(0), 0) << "it is longer than the page";
    const auto head = [&] {
        return board->viewport()
            ->grab(QRect(board->columnViewportPosition(1), 0, board->columnWidth(1), board->rowHeight(0)))
            .toImage();
    };
    const auto before = head();
    ASSERT_TRUE(session().project()->changeCondition(study().conditions[0].id, "renamed",
                                                     [](domain::Condition& c) { c.name = "Mud"; }));
    settle();
    ASSERT_LT(board->rowViewportPosition(0), 0);
    EXPECT_NE(head(), before) << "the condition's name is told at the top of what is on show";
    for (int row = 29; row > 0; --row) {
        board->setCurrentCell(row, 1);
        settle();
        const auto cell = board->visualItemRect(board->item(row, 1));
        EXPECT_GE(cell.top(), row == 1 ? 0 : board->rowHeight(0)) << row;
        EXPECT_LE(cell.bottom(), board->viewport()->height() + 1) << row;
    }
}

TEST_F(Stages, FairnessIsReadAndRemediedOrAccepted) {
    const auto id = newStudy({"Pin", "Bolt", "Hook", "Clip"}, {"Dry", "Wet", "Cold"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 2));
    window->goTo(Stage::question);
    settle();
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("2 of each")) << "the advisor";
    planPage("Fair");
    EXPECT_TRUE(visibleTexts(window.get())
                    .join("\n")
                    .contains("have only 2 replicates: two show repeatability, no more."));
    QTest::mouseClick(child<QPushButton>("remedy-replicates"), Qt::LeftButton);
    EXPECT_EQ(study().study.plan.replicates, 3);
    settle();
    auto* why = child<QLineEdit>("accept-control");
    QTest::keyClick(why, Qt::Key_Return);
    EXPECT_TRUE(window->messageText().contains("Say why it is acceptable"));
    QTest::keyClicks(why, "all four are new");
    QTest::keyClick(why, Qt::Key_Return);
    settle();
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("Accepted, because all four are new."));
    EXPECT_TRUE(qs(pages::toHtml(pages::report(session().source(), {session().units()})))
                    .contains("all four are new"))
        << "it lands in the report";
}

TEST_F(Stages, ForecastsAndLimitsGiveTheHeadRoomWord) {
    const auto id = newStudy({"Pin", "Bolt"}, {"Dry"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 5));
    window->goTo(Stage::question);
    planPage("Reach");
    settle();
    auto* board = child<QTableWidget>("planBoard");
    board->setCurrentCell(1, 1);
    auto* limit = shown<QLineEdit>("Rig limit");
    retype(limit, "5 kN");
    emit limit->editingFinished();
    planPage("Forecasts");
    auto* expected = shown<QLineEdit>("I expect");
    expected->setText("12 mm");
    QTest::mouseClick(child<QPushButton>("keepForecast"), Qt::LeftButton);
    EXPECT_TRUE(window->messageText().contains("measures length")) << window->messageText().toStdString();
    EXPECT_EQ(expected->text(), "12 mm");
    expected->setText("6 kN");
    QTest::mouseClick(child<QPushButton>("keepForecast"), Qt::LeftButton);
    settle();
    EXPECT_TRUE(board->item(1, 1)->text().contains("will top out"))
        << board->item(1, 1)->text().toStdString();
    EXPECT_FALSE(board->item(2, 1)->text().contains("fine")) << "nothing is expected of the other";
}

TEST_F(Stages, FactsAreTypedAndPasted) {
    openDemo();
    window->goTo(Stage::question);
    planPage("Facts");
    settle();
    auto* options = child<QTableWidget>("options");
    options->item(0, 5)->setText("-3");
    EXPECT_EQ(window->messageText(), "A cost below zero cannot be.");
    options->item(0, 5)->setText("0,35");
    EXPECT_EQ(*study().options[0].unitCost, 0.35);
    options->item(0, 3)->setText("12 mm");
    EXPECT_TRUE(window->messageText().contains("force is wanted here"));
    options->setCurrentCell(1, 3);
    QApplication::clipboard()->setText("4 kN\tbreaking load\t1.20\tEUR\n3 kN\tbreaking load\t0.80\tEUR\n");
    pressButton("Paste facts");
    EXPECT_EQ(*study().options[1].rating, 4000);
    EXPECT_EQ(*study().options[2].unitCost, 0.8);
    EXPECT_EQ(study().options[2].ratingBasis, "breaking load");
}

TEST_F(Stages, PiecesAreMadeMeasuredAndOrdered) {
    const auto id = newStudy({"Pin", "Bolt"}, {"Dry"});
    window->goTo(Stage::specimens);
    settle();
    EXPECT_FALSE(project::makePieces(*session().project(), id, "")) << "nothing is planned";
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 3));
    settle();
    auto* batch = shown<QLineEdit>("from");
    QTest::keyClicks(batch, "box of May");
    QTest::keyClick(batch, Qt::Key_Return);
    ASSERT_EQ(study().specimens.size(), 6U);
    EXPECT_EQ(study().specimens[0].batch, "box of May");
    pressButton("Measure more…");
    shown<QLineEdit>("Measure")->setText("depth");
    shown<QLineEdit>("wanted")->setText("3 1/4 in");
    shown<QLineEdit>("±")->setText("0.5 mm");
    QTest::mouseClick(child<QPushButton>("addDimension"), Qt::LeftButton);
    auto* table = shown<QTableWidget>("Pieces");
    table->item(0, 4)->setText("3 1/4 in");
    EXPECT_NEAR(*study().specimens[0].measured[0].mean(), 0.08255, 1e-9);
    EXPECT_EQ(table->item(0, 4)->text(), "82.55");
    table->item(1, 4)->setText("83.5; 83.7");
    EXPECT_TRUE(study().specimens[1].measured[0].readings.empty()) << "two numbers in a cell are no length";
    table->setCurrentCell(1, 4);
    auto* readings = child<RowEditor>("readings");
    EXPECT_FALSE(readings->isVisible()) << "a form stands open when it is asked for";
    pressButton("Readings…");
    ASSERT_TRUE(visibleTexts(window.get()).join('\n').contains("Readings of A1-2"));
    typeRows(readings, {{"83.5"}, {"83.7"}});
    EXPECT_EQ(table->item(1, 4)->text(), QString::fromUtf8("83.60  of 2  \u25b2 too large"));
    EXPECT_FALSE(table->item(1, 4)->flags() & Qt::ItemIsEditable) << "the mean is not typed over";
    typeRows(readings, {{"1/3 in"}});
    const auto third = study().specimens[1].measured[0].readings.at(0);
    EXPECT_EQ(third, 0.0254 / 3);
    readings->item(1, 0)->setText("84");
    EXPECT_EQ(study().specimens[1].measured[0].readings.at(0), third) << "what was not touched stays";
    readings->item(1, 0)->setText("no idea");
    EXPECT_EQ(readings->item(1, 0)->text(), "84 mm");
    table->item(2, 4)->setText("about there");
    EXPECT_TRUE(window->messageText().contains("does not start with a number"));
    table->item(0, 0)->setText("A1-2");
    EXPECT_TRUE(window->messageText().contains("labels are never used twice"));
    window->goTo(Stage::question);
    planPage("Order");
    child<QSpinBox>("seed")->setValue(11);
    pressButton("Draw the order");
    EXPECT_EQ(study().study.plan.runOrder, plan::drawRunOrder(study(), 11));
    EXPECT_EQ(child<QListWidget>("runList")->count(), 6);
    ASSERT_TRUE(project::moveInRunList(*session().project(), id, 0, 5));
    EXPECT_TRUE(study().study.plan.reordered);
    EXPECT_TRUE(visibleTexts(window.get()).filter("changed by hand").size() == 1);
}

TEST_F(Stages, ABatchIsBegunAndComesDueWithTheClock) {
    openDemo();
    session().showStudy(session().project()->studies()[2].study.id);
    const QDateTime morning(QDate(2026, 5, 4), QTime(9, 0));
    session().setNow(morning);
    window->goTo(Stage::specimens);
    auto* tabs = child<QTabWidget>("specimenTabs");
    tabs->setCurrentIndex(1);
    settle();
    EXPECT_EQ(tabs->tabText(1), "Preparation (2 due)");
    auto* steps = child<QTableWidget>("steps");
    EXPECT_TRUE(steps->item(4, 3)->text().contains("overdue")) << "yesterday's rinse was missed";
    EXPECT_EQ(steps->item(5, 3)->text(), "due");
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("primer is past its date (2026-04-30)"));
    session().setNow(morning.addDays(-1));
    EXPECT_EQ(steps->item(4, 3)->text(), "due");
    EXPECT_EQ(steps->item(5, 3)->text(), "waiting");
    session().setNow(morning);
    QTest::mouseClick(child<QPushButton>("stepDone"), Qt::LeftButton);
    EXPECT_TRUE(steps->item(4, 3)->text().contains("done"));
    EXPECT_EQ(steps->item(6, 3)->text(), "waiting");
    EXPECT_TRUE(window->board()->tipAt(QPoint()).isEmpty());
    session().setNow(morning.addDays(10));
    EXPECT_LT(*session().preparation(), 1) << "steps are still open";
    auto* recipe = child<QTableWidget>("recipe");
    recipe->item(recipe->rowCount() - 1, 0)->setText("Weigh");
    EXPECT_EQ(study().study.plan.recipe.back().name, "Weigh");
    recipe->item(0, 1)->setText("a while");
    EXPECT_FALSE(window->messageText().isEmpty());
    EXPECT_EQ(study().study.plan.recipe.front().minutes, 40) << "nothing lost";
    recipe->item(0, 2)->setText("2 h");
    EXPECT_EQ(study().study.plan.recipe.front().waitMinutes, 120);
}

TEST_F(Stages, LabelsCalendarAndListAreWritten) {
    openDemo();
    window->goTo(Stage::specimens); // a stage is built when it is first shown
    auto* stage = window->findChild<SpecimensStage*>();
    EXPECT_FALSE(stage->writeLabels(dir.filePath("none.pdf")))
        << "every piece of the first study has been pulled";
    session().showStudy(session().project()->studies()[2].study.id);
    session().setNow(QDateTime(QDate(2026, 5, 4), QTime(9, 0)));
    EXPECT_TRUE(stage->writeLabels(dir.filePath("l.pdf")));
    const auto text = runProgram("pdftotext", {dir.filePath("l.pdf"), "-"});
    EXPECT_TRUE(text.contains("A1-1") && text.contains("D2-5"));
    EXPECT_TRUE(stage->writeCalendar(dir.filePath("p.ics")));
    EXPECT_TRUE(stage->writeStock(dir.filePath("s.csv")));
    QFile csv(dir.filePath("s.csv"));
    ASSERT_TRUE(csv.open(QIODevice::ReadOnly));
    EXPECT_TRUE(csv.readAll().contains("Foam tape,10,10,0.3,3,EUR"));
    EXPECT_FALSE(stage->writeStock("/no/such/s.csv"));
}

TEST_F(Stages, TheLoadPathSaysWhatBreaksFirst) {
    openDemo();
    window->goTo(Stage::question);
    planPage("Weakest link");
    settle();
    auto* chain = child<QTableWidget>("chain");
    EXPECT_EQ(chain->rowCount(), 4);
    chain->item(1, 1)->setText("4.4 kN"); // a wire no stronger than the fitting
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("Use a stronger Net wire"));
    chain->item(1, 1)->setText("heavy");
    EXPECT_FALSE(window->messageText().isEmpty());
    EXPECT_EQ(study().study.plan.chain[1].strength, 4400);
    chain->item(3, 0)->setText("Hook");
    EXPECT_EQ(study().study.plan.chain.size(), 4U);
    chain->item(3, 0)->setText("");
    EXPECT_EQ(study().study.plan.chain.size(), 3U);
    pressButton("Add from results");
    EXPECT_EQ(study().study.plan.chain.size(), 4U);
}

TEST_F(Stages, MethodNeedAndCautionsAreKept) {
    openDemo();
    window->goTo(Stage::question);
    planPage("Method");
    settle();
    QTest::keyClicks(shown<QLineEdit>("Find a method"), "slat");
    settle();
    for (auto* card : window->findChildren<QAbstractButton*>())
        if (card->isVisible() && card->text() == "Three-point bend") QTest::mouseClick(card, Qt::LeftButton);
    EXPECT_EQ(study().study.plan.method, "three-point-bend");
    planPage("Safety");
    settle();
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("fly in pieces"));
    ASSERT_TRUE(QApplication::focusWidget());
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Escape); // back to the plan
    settle();
    auto* need = shown<QLineEdit>("What is needed");
    ASSERT_TRUE(need->isVisible());
    auto* ceiling = shown<QLineEdit>("What is enough");
    retype(need, "4 kN");
    emit need->editingFinished();
    EXPECT_EQ(*study().study.goal.need, 4000);
    retype(ceiling, "3 kN");
    emit ceiling->editingFinished();
    EXPECT_TRUE(window->messageText().contains("must meet the need"));
    EXPECT_FALSE(study().study.goal.ceiling);
    planPage("Safety");
    auto* own = child<QPlainTextEdit>("ownCautions");
    own->setFocus();
    own->setPlainText("Mind the dog.\nShut the gate.");
    window->board()->setFocus();
    EXPECT_EQ(study().study.plan.cautions.size(), 2U);
    window->goTo(Stage::rig);
    settle();
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("Mind the dog.")) << "shown again at the rig";
}

TEST_F(Stages, AFollowUpIsPlannedFromTheVerdict) {
    openDemo();
    window->goTo(Stage::verdict);
    settle();
    const auto offered = [&](const QString& says) {
        std::vector<QPushButton*> out;
        for (auto* b : window->findChildren<QPushButton*>())
            if (b->isVisible() && b->text() == says) out.push_back(b);
        return out;
    };
    ASSERT_EQ(offered("Plan it in this study").size(), 2U) << "beside each of two sentences";
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("topped out the rig"));
    QTest::mouseClick(offered("Plan it in this study")[0], Qt::LeftButton);
    EXPECT_EQ(domain::missingPieces(study()).size(), 2U);
    const auto before = session().studyId();
    window->goTo(Stage::verdict);
    settle();
    QTest::mouseClick(offered("Make it a study of its own")[0], Qt::LeftButton);
    EXPECT_NE(session().studyId(), before);
    EXPECT_EQ(study().study.title, "Follow-up of Wire end fittings");
    EXPECT_TRUE(study().specimens.empty());
    EXPECT_GT(plan::totals(study()).replicates, 0);
    EXPECT_LT(plan::totals(study()).squares, 8) << "only what was left open";
}

TEST_F(Stages, AnUnplannedPullMakesItsSquareInOneStep) {
    openDemo();
    window->goTo(Stage::pull);
    settle();
    QTest::keyClicks(shown<QLineEdit>("what it is"), "Double clamps");
    auto* condition = shown<QLineEdit>("how it is pulled");
    QTest::keyClicks(condition, "plain");
    QTest::keyClick(condition, Qt::Key_Return);
    EXPECT_EQ(study().options.size(), 5U);
    EXPECT_EQ(study().conditions.size(), 2U) << "Plain is there already";
    EXPECT_EQ(study().specimens.size(), 41U);
    session().project()->undo();
    EXPECT_EQ(study().options.size(), 4U);
    QTest::keyClick(condition, Qt::Key_Return);
    EXPECT_TRUE(window->messageText().contains("Say what it is"));
}

TEST_F(Stages, ConditionsOnANumericAxisGetTheirValues) {
    openDemo();
    session().showStudy(session().project()->studies()[2].study.id);
    window->goTo(Stage::question);
    settle();
    auto *axis = shown<QLineEdit>("Its conditions vary"), *unit = shown<QLineEdit>("in");
    EXPECT_EQ(axis->text(), "sheet temperature");
    EXPECT_EQ(unit->text(), QString::fromUtf8("°C"));
    const auto type = [](QLineEdit* edit, const char* text) {
        retype(edit, QString::fromUtf8(text));
        emit edit->editingFinished();
    };
    type(axis, "sort of sheet");
    type(unit, "");
    EXPECT_FALSE(study().conditions[0].value) << "words have no values";
    type(unit, "°C");
    EXPECT_NEAR(study().conditions[2].value.value_or(0), 308.15, 1e-9);
    type(unit, "zork");
    EXPECT_TRUE(window->messageText().contains("not a unit known here"));
    window->goTo(Stage::question);
    EXPECT_TRUE(window->findChild<QuestionStage*>()->writeRunList(dir.filePath("runs.pdf")));
    EXPECT_TRUE(runProgram("pdftotext", {dir.filePath("runs.pdf"), "-"}).contains("C3-1"));
}

TEST_F(Stages, AStudyIsStartedFromAnEarlierOne) {
    openDemo();
    const auto first = study().study.id;
    const auto made =
        project::startFrom(*session().project(), first, "Fittings after a second season", "Two seasons");
    ASSERT_TRUE(made);
    session().showStudy(*made);
    EXPECT_EQ(study().options.size(), 4U);
    EXPECT_EQ(study().conditions.size(), 1U);
    EXPECT_EQ(study().conditions[0].name, "Two seasons");
    EXPECT_EQ(study().study.plan.replicates, 5);
    EXPECT_EQ(study().option(study().study.goal.control)->name, "Wedge socket");
    EXPECT_TRUE(study().specimens.empty());
    EXPECT_FALSE(project::startFrom(*session().project(), first, " ", ""));
}

TEST_F(Stages, ReplicatesAreDraggedByTheGrip) {
    const auto id = newStudy({"Pin", "Bolt"}, {"Dry", "Wet"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 5));
    window->goTo(Stage::question);
    settle();
    auto* board = child<QTableWidget>("planBoard");
    const auto grip = [&](int row, int column) {
        const auto cell = board->visualRect(board->model()->index(row, column));
        return QPoint(cell.right() - 6, cell.center().y());
    };
    const auto drag = [&](const QPoint& from, int up) {
        QTest::mousePress(board->viewport(), Qt::LeftButton, {}, from);
        QMouseEvent move(QEvent::MouseMove, from - QPoint(0, up), board->viewport()->mapToGlobal(from),
                         Qt::NoButton, Qt::LeftButton, {});
        QApplication::sendEvent(board->viewport(), &move);
        QTest::mouseRelease(board->viewport(), Qt::LeftButton, {}, from - QPoint(0, up));
    };
    drag(grip(1, 1), 18);
    const auto& plan = study().study.plan;
    EXPECT_EQ(plan.replicatesOf(study().options[0].id, study().conditions[0].id), 7);
    EXPECT_EQ(plan.replicatesOf(study().options[1].id, study().conditions[0].id), 5) << "only that square";
    drag(grip(2, 2), -900);
    EXPECT_EQ(study().study.plan.replicatesOf(study().options[1].id, study().conditions[1].id), 0)
        << "never below nothing";
    session().project()->undo();
    EXPECT_EQ(study().study.plan.replicatesOf(study().options[1].id, study().conditions[1].id), 5);
    drag(QPoint(board->visualRect(board->model()->index(1, 1)).left() + 6, grip(1, 1).y()), 18);
    EXPECT_EQ(study().study.plan.replicatesOf(study().options[0].id, study().conditions[0].id), 7)
        << "beside the grip nothing is dragged";
}

TEST_F(Stages, WhatIsTheSameForAllAndWhereASquareDiffers) {
    const auto id = newStudy({"Pin", "Bolt"}, {"Dry"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 5));
    window->goTo(Stage::question);
    planPage("Method");
    settle();
    const auto type = [&](const char* name, const QString& text) {
        auto* edit = child<QLineEdit>(name);
        retype(edit, text);
        emit edit->editingFinished();
    };
    type("connector", "8 mm shackle");
    type("planSpeed", "60 mm/min");
    EXPECT_EQ(study().study.plan.connector, "8 mm shackle");
    EXPECT_NEAR(*study().study.plan.speed, 0.001, 1e-12);
    type("planSpeed", "fast");
    EXPECT_FALSE(window->messageText().isEmpty());
    EXPECT_NEAR(*study().study.plan.speed, 0.001, 1e-12) << "nothing lost";
    type("planSpeed", "60 mm/min");
    child<QTableWidget>("planBoard")->setCurrentCell(2, 1);
    settle();
    type("squareSpeed", "300 mm/min");
    EXPECT_NEAR(*study().study.plan.square(study().options[1].id, study().conditions[0].id)->speed, 0.005,
                1e-12);
    planPage("Fair");
    settle();
    auto* remedy = child<QPushButton>("remedy-planned speed");
    ASSERT_TRUE(remedy);
    QTest::mouseClick(remedy, Qt::LeftButton);
    EXPECT_FALSE(study().study.plan.square(study().options[1].id, study().conditions[0].id)->speed);
    pressButton(QString::fromUtf8("‹ The plan"));
    shown<QComboBox>("Whether more or less is wanted")->setCurrentIndex(2);
    emit shown<QComboBox>("Whether more or less is wanted")->activated(2);
    EXPECT_EQ(study().study.goal.sense, domain::Sense::inside);
    type("windowLow", "2 kN");
    EXPECT_EQ(shown<QLineEdit>("from")->text(), "2 kN") << "half a window waits for its other end";
    type("windowHigh", "1 kN");
    EXPECT_TRUE(window->messageText().contains("must end above where it begins"));
    type("windowHigh", "3 kN");
    EXPECT_EQ(study().study.goal.window, std::pair(2000.0, 3000.0));
}

TEST_F(Stages, TravelIsHeadRoomToo) {
    const auto id = newStudy({"Pin", "Bolt"}, {"Dry"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 5));
    window->goTo(Stage::question);
    planPage("Reach");
    settle();
    auto* travel = shown<QLineEdit>("Travel");
    retype(travel, "40 mm");
    emit travel->editingFinished();
    EXPECT_NEAR(*study().reach.travel, 0.04, 1e-12);
    planPage("Forecasts");
    auto* board = child<QTableWidget>("planBoard");
    board->setCurrentCell(1, 1);
    settle();
    shown<QLineEdit>("I expect")->setText("2 kN");
    retype(shown<QLineEdit>("after moving"), "50 mm");
    shown<QLineEdit>("says")->setText("Ines");
    QTest::mouseClick(child<QPushButton>("keepForecast"), Qt::LeftButton);
    settle();
    EXPECT_TRUE(board->item(1, 1)->text().contains("short of travel"))
        << board->item(1, 1)->text().toStdString();
    auto* table = child<QTableWidget>("forecasts");
    ASSERT_EQ(table->rowCount(), 1);
    EXPECT_EQ(table->item(0, 2)->text(), QString::fromUtf8("2000 N ± 10 %"));
    EXPECT_EQ(table->item(0, 3)->text(), "50.0 mm");
    table->setCurrentCell(0, 0);
    pressButton("Take the selected one back");
    EXPECT_EQ(table->rowCount(), 0);
}

TEST_F(Stages, ForecastsAreScoredWhenPulled) {
    openDemo();
    window->goTo(Stage::question);
    planPage("Forecasts");
    settle();
    const auto& data = study();
    const auto scores = plan::scoreForecasts(data, session().verdict(data.study.goal.metric));
    ASSERT_FALSE(scores.empty());
    EXPECT_TRUE(child<QLabel>("forecastScores")->text().contains(qs(plan::sentence(scores[0]))));
    EXPECT_TRUE(qs(pages::toHtml(pages::report(session().source(), {session().units()})))
                    .contains(qs(plan::sentence(scores[0]))));
}

TEST_F(Stages, APastedBlockIsOneUndo) {
    openDemo();
    window->goTo(Stage::question);
    planPage("Facts");
    settle();
    auto* facts = child<QTableWidget>("options");
    facts->item(0, 8)->setText("8 mm sleeve");
    EXPECT_EQ(study().options[0].geometry, "8 mm sleeve");
    const auto rating = study().options[1].rating;
    const auto cost = study().options[2].unitCost;
    facts->setCurrentCell(1, 3);
    QApplication::clipboard()->setText(
        "4.1 kN\tbreaking load\t1.25\tEUR\n3.1 kN\tbreaking load\t0.85\tEUR\n");
    pressButton("Paste facts");
    EXPECT_EQ(*study().options[1].rating, 4100);
    EXPECT_EQ(*study().options[2].unitCost, 0.85);
    session().project()->undo();
    EXPECT_EQ(study().options[1].rating, rating);
    EXPECT_EQ(study().options[2].unitCost, cost);
    EXPECT_EQ(study().options[0].geometry, "8 mm sleeve");
}

TEST(KeptTogether, ANumberStaysWithItsUnit) {
    EXPECT_EQ(keptTogether("5 of each see 9.3 %; you care for 10 %."),
              QString::fromUtf8("5 of each see 9.3\u00a0%; you care for 10\u00a0%."));
    EXPECT_EQ(keptTogether("2000 N in all, 3 N/mm, 4 in the shed"),
              QString::fromUtf8("2000\u00a0N in all, 3 N/mm, 4\u00a0in the shed"));
    EXPECT_EQ(keptTogether("no number"), "no number");
}

TEST_F(Stages, WhereAnOptionIsGotStandsOnTheShoppingList) {
    openDemo();
    window->goTo(Stage::question);
    planPage("Facts");
    settle();
    auto* facts = child<QTableWidget>("options");
    facts->item(0, 9)->setText("the yard, second shelf");
    EXPECT_EQ(study().options[0].supply, "the yard, second shelf");
    const auto list = pages::stockCsv(study());
    EXPECT_TRUE(list.starts_with("what,needed,made,unit_cost,cost,currency,supply\n")) << list;
    EXPECT_NE(list.find(",\"the yard, second shelf\"\n"), std::string::npos) << list;
    EXPECT_NE(pages::toHtml(pages::stock(study())).find("the yard, second shelf"), std::string::npos);
    window->goTo(Stage::specimens);
    showTab("specimenTabs", "Shopping");
    settle();
    const auto* table = child<QTableWidget>("stock");
    ASSERT_GT(table->rowCount(), 0);
    EXPECT_EQ(table->item(0, table->columnCount() - 1)->text(), "the yard, second shelf");
}

TEST_F(Stages, TimeAndMoneyOfThePlanAreShown) {
    const auto id = newStudy({"Pin", "Bolt"}, {"Dry"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 6));
    window->goTo(Stage::question);
    planPage("Enough");
    settle();
    auto* each = shown<QLineEdit>("One pull takes");
    retype(each, "15 min");
    emit each->editingFinished();
    EXPECT_EQ(study().study.plan.minutesEach, 15);
    EXPECT_EQ(child<QLabel>("planCosts")->text(), "The plan takes 3 h of pulling.");
    retype(each, "-3 min");
    emit each->editingFinished();
    EXPECT_FALSE(window->messageText().isEmpty());
    EXPECT_EQ(study().study.plan.minutesEach, 15);
}

TEST_F(Stages, PlacesInASheetKeepTheirDistance) {
    const auto id = newStudy({"Pin", "Bolt"}, {"Dry"});
    auto& project = *session().project();
    ASSERT_TRUE(project::planReplicates(project, id, 2));
    window->goTo(Stage::specimens);
    settle();
    auto* scheme = shown<QLineEdit>("labelled");
    retype(scheme, "{option} {n}");
    emit scheme->editingFinished();
    ASSERT_TRUE(project::makePieces(project, id, ""));
    EXPECT_EQ(study().specimens[0].label, "Pin 1");
    settle();
    auto* pieces = shown<QTableWidget>("Pieces");
    const auto column = [&](const QString& head) {
        for (int k = 0; k < pieces->columnCount(); ++k)
            if (pieces->horizontalHeaderItem(k)->text() == head) return k;
        return -1;
    };
    EXPECT_EQ(column("x (mm)"), -1) << "no places before there is a sheet";
    pieces->item(0, column("Made in"))->setText("Board 1");
    pieces->item(1, column("Made in"))->setText("Board 1");
    ASSERT_GT(column("x (mm)"), 0);
    pieces->setCurrentCell(0, column("x (mm)"));
    QApplication::clipboard()->setText("100\t50\n130\t90\n");
    pieces->setFocus();
    QTest::keyClick(pieces, Qt::Key_V, Qt::ControlModifier);
    EXPECT_NEAR(*study().specimens[1].y, 0.09, 1e-12);
    pieces->item(0, column("x (mm)"))->setText("-4");
    EXPECT_TRUE(window->messageText().contains("cannot be below zero"));
    EXPECT_NEAR(*study().specimens[0].x, 0.1, 1e-12);
    showTab("specimenTabs", "Places in the sheet");
    settle();
    auto* apart = shown<QLineEdit>("places lie at least");
    retype(apart, "60 mm");
    emit apart->editingFinished();
    settle();
    EXPECT_TRUE(child<QLabel>("sheetSentence")->text().contains("Pin 1 and Pin 2 are only 50.0 mm apart."))
        << child<QLabel>("sheetSentence")->text().toStdString();
    const auto labels = child<PictureView>("sheetMap")->picture().labels();
    EXPECT_NE(std::find(labels.begin(), labels.end(), "Pin 2"), labels.end());
    retype(apart, "50 mm");
    emit apart->editingFinished();
    settle();
    EXPECT_FALSE(child<QLabel>("sheetSentence")->text().contains("only"));
}

TEST_F(Stages, TheAreaIsWorkedOutFromWhatWasMeasured) {
    const auto id = newStudy({"Pin"}, {"Dry"});
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 1));
    ASSERT_TRUE(project::makePieces(*session().project(), id, ""));
    window->goTo(Stage::specimens);
    settle();
    pressButton("Measure more…");
    for (const char* name : {"width", "thickness"}) {
        shown<QLineEdit>("Measure")->setText(name);
        QTest::mouseClick(child<QPushButton>("addDimension"), Qt::LeftButton);
    }
    auto* pieces = shown<QTableWidget>("Pieces");
    pieces->item(0, 4)->setText("20");
    pieces->item(0, 5)->setText("4");
    ASSERT_EQ(pieces->horizontalHeaderItem(6)->text(), QString::fromUtf8("Area (mm²)"));
    EXPECT_EQ(pieces->item(0, 6)->text(), "80.00");
}

TEST_F(Stages, WorkingHoursMoveWhatIsDue) {
    openDemo();
    session().showStudy(session().project()->studies()[2].study.id);
    session().setNow(QDateTime(QDate(2026, 5, 4), QTime(9, 0)));
    window->goTo(Stage::specimens);
    showTab("specimenTabs", "Preparation");
    settle();
    auto* from = shown<QLineEdit>("Somebody is there from");
    auto* to = shown<QLineEdit>("to");
    EXPECT_EQ(to->text(), "20:00");
    retype(from, "25:00");
    emit from->editingFinished();
    EXPECT_TRUE(window->messageText().contains("is not a time of day"));
    retype(from, "8:00");
    retype(to, "7:30");
    emit from->editingFinished();
    EXPECT_TRUE(window->messageText().contains("must end after it begins"));
    retype(to, "17:30");
    emit to->editingFinished();
    EXPECT_EQ(study().study.plan.workFrom, 480);
    EXPECT_EQ(study().study.plan.workTo, 1050);
    for (const auto& s : session().timetable())
        if (!s.done) {
            const auto at = QDateTime::fromSecsSinceEpoch(s.earliest).time();
            EXPECT_TRUE(at >= QTime(8, 0) && at <= QTime(17, 30)) << s.name;
        }
}

} // namespace
