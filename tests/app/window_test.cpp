#include "harness.h"

#include "shell/import_sheet.h"
#include "stages/question/question_stage.h"
#include "stages/specimens/specimens_stage.h"
#include "widgets/plain_text.h"
#include <QClipboard>
#include <QComboBox>
#include <QDir>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QProgressDialog>
#include <QPushButton>
#include <QRegularExpression>
#include <QSettings>
#include <QSpinBox>
#include <QTabWidget>
#include <QTableWidget>
#include <QTimer>
#include <anvil/project/board_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/pull_commands.h>

using namespace anvil;
using namespace anvil::app;

namespace {

QStringList demoLogs() {
    QStringList logs;
    for (const auto& f : QDir(DEMO_LOGS).entryInfoList(QDir::Files, QDir::Name))
        logs << f.absoluteFilePath();
    return logs;
}

using Import = Window;
using Curves = Window;
using Stages = Window;
using Ledgers = Window;
using Shell = Window;

/// What the ladder says, top down: one option name for each rung of a condition.
QStringList rungs(const chart::Picture& ladder, const QStringList& options, const QString& condition,
                  const QStringList& conditions) {
    QStringList out;
    bool inside = conditions.size() < 2;
    for (const auto& l : ladder.labels()) {
        const auto text = qs(l);
        if (conditions.contains(text))
            inside = text == condition;
        else if (inside && options.contains(text))
            out << text;
    }
    return out;
}

/// What a file manager sends when files are let go over the window.
void dropOn(QWidget* window, QMimeData& mime) {
    QDragEnterEvent enter(QPoint(200, 300), Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window, &enter);
    EXPECT_TRUE(enter.isAccepted());
    QDropEvent drop(QPointF(200, 300), Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window, &drop);
}

TEST_F(Import, DroppedFilesBecomeARankedAnswer) {
    // Files are dropped on the empty window as a file manager would do it.
    QStringList copies;
    for (const auto& log : demoLogs()) {
        copies << dir.filePath(QFileInfo(log).fileName());
        ASSERT_TRUE(QFile::copy(log, copies.back()));
    }
    QMimeData mime;
    QList<QUrl> urls;
    for (const auto& c : copies)
        urls << QUrl::fromLocalFile(c);
    mime.setUrls(urls);
    dropOn(window.get(), mime);
    auto* sheet = window->findChild<ImportSheet*>();
    ASSERT_TRUE(sheet);
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && !sheet->plan().rows.empty(); }));
    EXPECT_EQ(sheet->plan().rows.size(), 12U);
    auto* table = sheet->findChild<QTableWidget*>("runs");
    EXPECT_EQ(table->rowCount(), 12);
    EXPECT_TRUE(table->item(0, 3)->text().endsWith(" N")) << "the peak carries its unit";
    table->item(0, 4)->setText("Sleeve"); // a correction is taken as typed
    EXPECT_EQ(sheet->plan().rows[0].option, "Sleeve");
    table->item(0, 4)->setText("Pressed sleeve");
    QTest::mouseClick(sheet->findChild<QPushButton*>("primary"), Qt::LeftButton);
    ASSERT_TRUE(waitFor([&] { return session().study() && study().pulls.size() == 12; }));
    settle();
    EXPECT_TRUE(window->verdict()->isVisible());
    const auto order = rungs(ladder()->picture(),
                             {"Pressed sleeve", "Wedge socket", "Saddle clamps", "Tucked splice"}, "", {});
    EXPECT_EQ(order, (QStringList{"Pressed sleeve", "Wedge socket", "Tucked splice", "Saddle clamps"}));
    window->activateWindow();
    ASSERT_TRUE(QTest::qWaitForWindowActive(window.get()));
    key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_TRUE(session().project()->studies().empty()) << "one undo takes the whole import back";
}

/// A log of a pull to `scale` × 80, its clock in steps of `step`.
QByteArray risingLog(double scale, double step, const char* head) {
    QByteArray out = head;
    for (int i = 0; i < 120; ++i)
        out += QByteArray::number(i * step) + "," +
               QByteArray::number(i < 20 || i > 100 ? 0 : scale * (i - 20)) + "\n";
    return out;
}

TEST_F(Import, RunsFillThePlanAndAClickMakesANewPiece) {
    begin("axial-pull");
    QStringList logs;
    for (const auto& [name, scale] :
         {std::pair{"pin_1", 10.0}, {"pin_2", 11.0}, {"pin_3", 12.0}, {"hook_1", 9.0}}) {
        QFile log(dir.filePath(QString("%1.csv").arg(name)));
        ASSERT_TRUE(log.open(QIODevice::WriteOnly));
        log.write(risingLog(scale, 0.1, "Time (s),Force (N)\n"));
        logs << log.fileName();
    }
    auto* sheet = window->importFiles(logs);
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && sheet->plan().rows.size() == 4; }));
    auto* table = sheet->findChild<QTableWidget*>("runs");
    const auto pieces = [&] {
        QStringList out;
        for (int i = 0; i < table->rowCount(); ++i)
            out << table->item(i, ImportSheet::pieceColumn)->text();
        return out;
    };
    EXPECT_EQ(pieces(), (QStringList{"A1-1", "A1-2", "new", "B1-1"}));
    EXPECT_TRUE(visibleTexts(sheet).join("\n").contains("3 fill the plan, 1 new"));
    const auto cell = table->visualItemRect(table->item(0, ImportSheet::pieceColumn)).center();
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, cell);
    EXPECT_EQ(pieces(), (QStringList{"new", "A1-2", "A1-1", "B1-1"})) << "then the other has it";
    QTest::mouseClick(sheet->findChild<QPushButton*>("primary"), Qt::LeftButton);
    ASSERT_TRUE(waitFor([&] { return study().pulls.size() == 4; }));
    EXPECT_EQ(study().specimens.size(), 5U) << "one piece was new";
    EXPECT_EQ(study().conditions.size(), 1U) << "the only condition is meant";
}

TEST_F(Import, AClockThatNamesNoUnitIsAskedInTheSheet) {
    QFile log(dir.filePath("pin.csv"));
    ASSERT_TRUE(log.open(QIODevice::WriteOnly));
    log.write(risingLog(10, 50, "Time,Force (N)\n"));
    log.close();
    auto* sheet = window->importFiles({log.fileName()});
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && !sheet->plan().unread.isEmpty(); }));
    auto* unit = sheet->findChild<QComboBox*>("timeUnit");
    ASSERT_TRUE(unit && unit->isVisible());
    unit->setCurrentIndex(unit->findData("ms"));
    emit unit->activated(unit->currentIndex());
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && sheet->plan().rows.size() == 1; }));
    EXPECT_NEAR(sheet->plan().rows[0].curve.time.back(), 119 * 0.05, 1e-9);
    sheet->reject();
}

TEST_F(Import, ADroppedFolderIsGoneThroughBesideTheWindow) {
    ASSERT_TRUE(QDir(dir.path()).mkpath("logs/nothing here"));
    const auto drop = [&](const QString& folder) {
        QMimeData mime;
        mime.setUrls({QUrl::fromLocalFile(dir.filePath(folder))});
        dropOn(window.get(), mime);
    };
    drop("logs/nothing here");
    ASSERT_TRUE(waitFor([&] { return !window->findChild<QDialog*>("folderWalk"); }));
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("no logger file"));
    EXPECT_FALSE(session().project()) << "and no project is made for nothing";
    for (const auto& log : demoLogs())
        ASSERT_TRUE(QFile::copy(log, dir.filePath("logs/" + QFileInfo(log).fileName())));
    drop("logs");
    ASSERT_TRUE(waitFor([&] { return window->findChild<ImportSheet*>() != nullptr; }));
    auto* sheet = window->findChild<ImportSheet*>();
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && !sheet->plan().rows.empty(); }));
    EXPECT_EQ(sheet->plan().rows.size(), 12U);
    sheet->reject();
}

TEST_F(Import, WhatIsWrittenIsWhatWasSaidWhenImportWasPressed) {
    QStringList logs;
    for (const QString option : {"hook", "pin"})
        for (const QString condition : {"dry", "wet"})
            for (int i = 1; i <= 25; ++i) {
                QFile log(dir.filePath(QString("%1_%2_%3.csv").arg(option, condition).arg(i)));
                ASSERT_TRUE(log.open(QIODevice::WriteOnly));
                log.write("Time (s),Force (N)\n");
                for (int k = 0; k < 100; ++k)
                    log.write(
                        QByteArray::number(k * 0.1) + "," +
                        QByteArray::number(k < 20 || k > 90 ? 0 : k * 7 + static_cast<int>(logs.size())) +
                        "\n");
                logs << log.fileName();
            }
    auto* sheet = window->importFiles(logs);
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && sheet->plan().rows.size() == 100; }));
    auto* first = sheet->findChild<QComboBox*>("word1");
    auto* second = sheet->findChild<QComboBox*>("word2");
    ASSERT_TRUE(first && second && first->currentIndex() == 1 && second->currentIndex() == 2);
    QTest::mouseClick(sheet->findChild<QPushButton*>("primary"), Qt::LeftButton);
    for (auto* box : {first, second}) { // turned round while it is written
        EXPECT_FALSE(box->isEnabled());
        box->setCurrentIndex(box == first ? 2 : 1);
        emit box->activated(box->currentIndex());
    }
    ASSERT_TRUE(waitFor([&] { return session().study() && study().pulls.size() == 100; }));
    for (const auto& s : study().specimens) {
        EXPECT_TRUE(study().option(s.option)->name == "Hook" || study().option(s.option)->name == "Pin")
            << study().option(s.option)->name;
        EXPECT_TRUE(study().condition(s.condition)->name == "Dry" ||
                    study().condition(s.condition)->name == "Wet");
    }
}

TEST_F(Import, AnOpenProjectIsDropped) {
    const auto path = demoCopy(dir);
    QMimeData mime;
    mime.setUrls({QUrl::fromLocalFile(path)});
    dropOn(window.get(), mime);
    ASSERT_TRUE(session().project());
    EXPECT_EQ(session().project()->studies().size(), 13U);
}

TEST_F(Import, AMissingUnitIsAskedOnce) {
    QFile log(dir.filePath("pin_dry_1.csv"));
    ASSERT_TRUE(log.open(QIODevice::WriteOnly));
    for (int i = 0; i < 100; ++i)
        log.write(QByteArray::number(i * 0.1) + "," + QByteArray::number(i < 20 || i > 90 ? 0 : i * 7) +
                  "\n");
    log.close();
    auto* sheet = window->importFiles({log.fileName()});
    ASSERT_TRUE(sheet);
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && !sheet->plan().rows.empty(); }));
    auto* go = sheet->findChild<QPushButton*>("primary");
    EXPECT_FALSE(go->isVisible());
    auto* unit = sheet->findChild<QComboBox*>("forceUnit");
    ASSERT_TRUE(unit->isVisible());
    unit->setCurrentText("kgf");
    emit unit->activated(unit->currentIndex());
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && go->isVisible(); }));
    EXPECT_NEAR(sheet->plan().rows[0].reading->peak.load, 630 * 9.80665, 1e-6);
    sheet->reject();
}

TEST_F(Import, BrokenFilesAreNamedInTheSheet) {
    QFile bad(dir.filePath("bad.csv"));
    ASSERT_TRUE(bad.open(QIODevice::WriteOnly));
    bad.write("The battery died.\n");
    bad.close();
    auto* sheet = window->importFiles({bad.fileName(), demoLogs()[0]});
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && !sheet->plan().rows.empty(); }));
    EXPECT_TRUE(visibleTexts(sheet).join("\n").contains("bad.csv: there are no rows of numbers in it."));
    EXPECT_TRUE(sheet->findChild<QPushButton*>("primary")->isVisible()) << "the good one can go in";
    sheet->reject();
}

TEST_F(Import, PastedResultsAreRanked) {
    ASSERT_TRUE(session().create(dir.filePath("p.anvil")));
    QApplication::clipboard()->setText(
        "option\tcondition\tvalue\tunit\tstanding\nPin\tDry\t4.2\tkN\t\nPin\tDry\t4.4\tkN\t\nHook\tDry\t6."
        "1\tkN\t\nHook\tDry\t6.3\tkN\tabove\n");
    menu("Paste results");
    auto* sheet = window->findChild<ValuesSheet*>();
    ASSERT_TRUE(sheet);
    QTest::mouseClick(sheet->findChild<QPushButton*>("primary"), Qt::LeftButton);
    settle();
    EXPECT_EQ(study().pulls.size(), 4U);
    EXPECT_EQ(rungs(ladder()->picture(), {"Pin", "Hook"}, "", {}), (QStringList{"Hook", "Pin"}));
    EXPECT_TRUE(visibleTexts(window->verdict()).filter("about 6").size() == 1);
}

TEST_F(Import, PastedNonsenseIsExplainedAndMakesNoProject) {
    QApplication::clipboard()->setText("hello");
    menu("Paste results");
    auto* sheet = window->findChild<ValuesSheet*>();
    ASSERT_TRUE(sheet);
    EXPECT_TRUE(visibleTexts(sheet).join("\n").contains("no columns can be told apart"));
    EXPECT_FALSE(session().project());
    sheet->reject();
}

TEST_F(Curves, ADraggedLandmarkChangesTheNumbersAndUndoBringsItBack) {
    openDemo();
    window->goTo(Stage::curves);
    const auto pull = pullOf("D1-2");
    session().selectPull(pull);
    settle();
    auto* view = window->curves()->view();
    auto* numbers = shown<QTableWidget>("What was read from the curve");
    const auto before = numbers->item(0, 1)->text();
    const QPoint from = view->placeOf(project::Handle::peak);
    ASSERT_FALSE(from.isNull());
    QTest::mousePress(view, Qt::LeftButton, {}, from);
    QTest::mouseMove(view, from - QPoint(30, 0));
    QTest::mouseMove(view, from - QPoint(60, 0));
    QTest::mouseRelease(view, Qt::LeftButton, {}, from - QPoint(60, 0));
    settle();
    EXPECT_NE(numbers->item(0, 1)->text(), before);
    EXPECT_TRUE(numbers->item(0, 3)->text().contains("by hand"));
    key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(numbers->item(0, 1)->text(), before);
    key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    EXPECT_NE(numbers->item(0, 1)->text(), before);
}

TEST_F(Curves, KeysMoveALandmarkToo) {
    openDemo();
    window->goTo(Stage::curves);
    session().selectPull(pullOf("D1-2"));
    settle();
    auto* view = window->curves()->view();
    view->setFocus();
    for (int i = 0; i < 5; ++i) // stiffness ends, first slip, break, peak: walk to the last
        QTest::keyClick(view, Qt::Key_L);
    QTest::keyClick(view, Qt::Key_Left, Qt::ShiftModifier);
    settle();
    const auto& settings = study().pull(session().pull())->settings;
    EXPECT_TRUE(settings.peak || settings.breakPoint || settings.fitTo || settings.firstSlip);
    EXPECT_TRUE(session().project()->canUndo());
}

TEST_F(Curves, OverlayShowsEveryReplicateOfTheSquare) {
    openDemo();
    window->goTo(Stage::curves);
    session().selectPull(pullOf("A2-1"));
    settle();
    pressButton("Square");
    const auto labels = window->curves()->view()->picture().labels();
    for (const char* l : {"A2-1", "A2-2", "A2-3", "A2-4", "A2-5"})
        EXPECT_NE(std::find(labels.begin(), labels.end(), l), labels.end()) << l;
}

TEST_F(Curves, F8WalksWhatNeedsALookAndTickingItEmptiesTheList) {
    openDemo();
    EXPECT_TRUE(session().needingLook().empty())
        << "that a rig topped out is read from the curve, and nobody has to look";
    ASSERT_TRUE(session().project()->run("Power cut", [&](store::Writer& w) {
        for (std::size_t k = 0; k < 2; ++k)
            w.update("pull", study().pulls[k].id, {{"recording", "interrupted"}});
    }));
    const auto waiting = session().needingLook();
    ASSERT_EQ(waiting.size(), 2U);
    window->goTo(Stage::verdict);
    menu("Next curve that needs a look");
    EXPECT_TRUE(window->curves()->isVisible());
    EXPECT_EQ(session().pull(), waiting.front());
    auto* looked = window->findChild<QAbstractButton*>("looked");
    QTest::mouseClick(looked, Qt::LeftButton, {}, QPoint(8, looked->height() / 2));
    EXPECT_EQ(session().needingLook().size(), waiting.size() - 1);
}

TEST_F(Ledgers, SettingOneAsideAsksForAReasonAndTheLadderFollows) {
    openDemo();
    session().selectPull(pullOf("D1-2"));
    key(Qt::Key_L, Qt::ControlModifier);
    settle();
    const auto mean = *session().verdict(domain::metric("peak")).groups.back().summary.mean;
    auto* standing = child<QComboBox>("standing");
    standing->setCurrentIndex(standing->findText("Set aside"));
    emit standing->activated(standing->currentIndex());
    auto* reason = shown<QLineEdit>("Reason");
    EXPECT_TRUE(reason->isVisible());
    pressButton("Apply");
    EXPECT_TRUE(window->messageText().contains("Say why")) << window->messageText().toStdString();
    EXPECT_EQ(study().pull(session().pull())->standing, domain::Standing::counts);
    QTest::keyClicks(reason, "jaw slipped");
    QTest::keyClick(reason, Qt::Key_Return);
    EXPECT_EQ(study().pull(session().pull())->standing, domain::Standing::aside);
    EXPECT_EQ(study().pull(session().pull())->reason, "jaw slipped");
    bool changed = false;
    for (const auto& g : session().verdict(domain::metric("peak")).groups)
        changed = changed || g.summary.aside > 1 || (g.summary.mean && *g.summary.mean == mean);
    EXPECT_TRUE(changed);
    EXPECT_TRUE(window->board()->tipAt(window->board()->placeOf(session().pull())).contains("set aside"));
    key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(study().pull(session().pull())->standing, domain::Standing::counts);
}

TEST_F(Ledgers, NotesAndWhatBrokeAreKept) {
    openDemo();
    session().selectPull(pullOf("A1-1"));
    key(Qt::Key_L, Qt::ControlModifier);
    settle();
    pressButton("add a note");
    auto* note = child<QPlainTextEdit>("note");
    note->setFocus();
    QTest::keyClicks(note, "second coil");
    window->board()->setFocus();
    EXPECT_EQ(study().pull(session().pull())->note, "second coil");
    pressButton("add what broke");
    settle();
    auto* broke = child<QComboBox>("whatBroke");
    ASSERT_TRUE(broke->isVisible());
    broke->setFocus();
    broke->lineEdit()->selectAll();
    QTest::keyClicks(broke->lineEdit(), "Eye of the fitting");
    QTest::keyClick(broke->lineEdit(), Qt::Key_Return);
    EXPECT_EQ(study().pull(session().pull())->outcome.part, "Eye of the fitting");
    auto* mode = child<QComboBox>("mode");
    EXPECT_GE(mode->findText("wire drew out of the sleeve"), 0)
        << "what was noted of another pull is offered";
    mode->setFocus();
    mode->lineEdit()->selectAll();
    QTest::keyClicks(mode->lineEdit(), "tore, slowly");
    QTest::keyClick(mode->lineEdit(), Qt::Key_Return);
    EXPECT_EQ(study().pull(session().pull())->outcome.mode, "tore, slowly") << "a comma is no seam";
    EXPECT_EQ(study().pull(session().pull())->outcome.part, "Eye of the fitting");
}

/// Texts that speak of a unit: a number directly before it, or it alone in brackets.
QStringList speaking(const QStringList& texts, const QString& unit) {
    const QRegularExpression pattern("[0-9][ \u00a0]" + QRegularExpression::escape(unit) +
                                     "(?![A-Za-z0-9/·])|\\(" + QRegularExpression::escape(unit) + "\\)");
    return texts.filter(pattern);
}

TEST_F(Shell, EveryLabelFollowsTheUnits) {
    openDemo();
    for (const char* label : {"D1-2", "A1-1"}) {
        session().selectPull(pullOf(label));
        for (const auto& [force, length] :
             {std::pair{"kN", "in"}, {"kgf", "mm"}, {"lbf", "in"}, {"N", "mm"}}) {
            menu(QString("unit-") + force);
            menu(QString("unit-") + length);
            for (int stage = 0; stage < stageCount; ++stage) {
                window->goTo(static_cast<Stage>(stage));
                settle();
                const auto texts = visibleTexts(window.get());
                for (const char* other : {"N", "kN", "kgf", "lbf"})
                    if (QString(other) != force) {
                        EXPECT_TRUE(speaking(texts, other).isEmpty())
                            << force << " chosen, stage " << stage << ": "
                            << speaking(texts, other).first().toStdString();
                        for (const char* per : {"mm", "in"})
                            EXPECT_TRUE(speaking(texts, QString("%1/%2").arg(other, per)).isEmpty())
                                << force << " chosen, stage " << stage;
                    }
                // Names and notes of the demo speak of a 3 mm wire and a 1.5 mm wall; those are words, not
                // numbers of ours.
                auto own = texts;
                own.erase(std::remove_if(own.begin(), own.end(),
                                         [](const QString& t) {
                                             return t.contains("3 mm net wire") ||
                                                    t.contains("1.5 mm tube") || t.contains("8 mm shackle");
                                         }),
                          own.end());
                const QString otherLength = QString(length) == "mm" ? "in" : "mm";
                EXPECT_TRUE(speaking(own, otherLength).isEmpty())
                    << length << " chosen, stage " << stage << ": "
                    << speaking(own, otherLength).value(0).toStdString();
                if (stage >= 4) {
                    EXPECT_FALSE(speaking(texts, force).isEmpty()) << force << ", stage " << stage;
                }
            }
        }
    }
    EXPECT_EQ(QSettings().value("units/force").toString(), "N") << "kept for the next start";
}

TEST_F(Shell, KeysAndStripGoToTheStages) {
    openDemo();
    for (int i = 0; i < stageCount; ++i) {
        menu(StageStrip::name(static_cast<Stage>(i)));
        EXPECT_EQ(window->strip()->current(), static_cast<Stage>(i));
    }
}

TEST_F(Shell, TheBoardIsWalkedWithTheArrowKeys) {
    openDemo();
    const auto first = study().pulls.front().id;
    session().selectPull(first);
    window->board()->setFocus();
    QTest::keyClick(window->board(), Qt::Key_Right);
    EXPECT_NE(session().pull(), first);
    QTest::keyClick(window->board(), Qt::Key_Left);
    EXPECT_EQ(session().pull(), first);
    const auto option = session().option();
    QTest::keyClick(window->board(), Qt::Key_Down);
    EXPECT_NE(session().option(), option);
    QTest::keyClick(window->board(), Qt::Key_Return);
    EXPECT_TRUE(window->curves()->isVisible());
    const auto at = window->board()->placeOf(pullOf("C1-4"));
    QTest::mouseClick(window->board(), Qt::LeftButton, {}, at);
    EXPECT_EQ(session().pull(), pullOf("C1-4"));
    EXPECT_TRUE(window->board()->tipAt(at).contains("Mislabelled"));
}

TEST_F(Shell, ALadderMarkSelectsItsPull) {
    openDemo();
    const auto pull = pullOf("D2-4");
    auto* picture = ladder();
    QTest::mouseClick(picture, Qt::LeftButton, {}, picture->placeOf(pull));
    EXPECT_EQ(session().pull(), pull);
}

TEST_F(Shell, WhereFromOpensTheTrailAndLeadsToTheCurve) {
    openDemo();
    auto* table = ranking();
    const auto mean = cell(table, 0, "mean");
    QString head;
    int rows = 0;
    QTimer::singleShot(50, [&] {
        auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
        ASSERT_TRUE(dialog);
        head = visibleTexts(dialog).join("\n");
        auto* values = dialog->findChild<QTableWidget*>();
        rows = values->rowCount();
        QTest::keyClick(values, Qt::Key_Return);
    });
    emit table->cellActivated(0, columnOf(table, "mean"));
    EXPECT_TRUE(head.contains(mean)) << head.toStdString();
    EXPECT_EQ(rows, 5);
    EXPECT_TRUE(window->curves()->isVisible());
}

TEST_F(Shell, RecentProjectsAndWindowStateAreKept) {
    openDemo();
    menu("foldLedger");
    window->resize(1100, 720);
    settle();
    window->close();
    window = std::make_unique<MainWindow>();
    window->show();
    settle();
    EXPECT_EQ(window->size(), QSize(1100, 720));
    EXPECT_FALSE(window->findChild<QWidget*>("standing")->isVisible()) << "the ledger stays folded";
    menu(dir.filePath("demo.anvil"));
    EXPECT_TRUE(session().project());
    EXPECT_TRUE(window->windowTitle().startsWith("demo"));
}

/// Many curves are read in view, once, and whoever would rather not wait stays where they were.
TEST_F(Shell, ManyCurvesAreReadInViewAndOnlyOnce) {
    const auto path = dir.filePath("many.anvil");
    {
        auto made = store::Project::create(path);
        ASSERT_TRUE(made);
        ASSERT_TRUE((*made)->write("made", [](store::Writer& w) {
            domain::Study s;
            s.title = "Many";
            s.id = w.add(s);
            domain::Option o;
            o.study = s.id;
            o.name = "Pin";
            o.id = w.add(o);
            domain::Condition c;
            c.study = s.id;
            c.name = "Dry";
            c.id = w.add(c);
            curve::Curve one;
            for (int i = 0; i < 4000; ++i) {
                one.time.push_back(i * 0.01);
                one.load.push_back(i < 400 ? 0.1 * (i % 2) : i < 3600 ? i - 400.0 : 10);
            }
            for (int k = 0; k < 400; ++k) {
                one.load[2000] += 1; // no two the same
                domain::Specimen piece{0, s.id, o.id, c.id, k + 1, "P" + std::to_string(k + 1), ""};
                domain::Pull p;
                p.specimen = w.add(piece);
                p.curve = w.addCurve(one);
                w.add(p);
            }
        }));
    }
    openDemo();
    QTimer::singleShot(30, [&] {
        auto* waiting = window->findChild<QProgressDialog*>("reading");
        ASSERT_TRUE(waiting);
        waiting->cancel();
    });
    EXPECT_FALSE(window->openPath(path));
    EXPECT_TRUE(window->windowTitle().startsWith("demo")) << "what was open stays open";
    QString told;
    QTimer::singleShot(100, [&] {
        if (const auto* waiting = window->findChild<QProgressDialog*>("reading")) told = waiting->labelText();
    });
    ASSERT_TRUE(window->openPath(path));
    EXPECT_TRUE(told.startsWith("Reading curves: ")) << told.toStdString();
    EXPECT_EQ(session().readings().byPull.size(), 400U);
    session().close();
    ASSERT_TRUE(window->openPath(path)) << "no timer waits for a dialog now";
    EXPECT_TRUE(session().project()->unread(session().studyId()).empty());
    EXPECT_EQ(session().project()->keptCurves().size(), 400U);
}

TEST_F(Shell, EmptyWindowSaysWhatToDoAtEveryStage) {
    for (int i = 0; i < stageCount; ++i) {
        window->goTo(static_cast<Stage>(i));
        settle();
        EXPECT_GT(visibleTexts(window.get()).join(" ").size(), 40) << i;
        for (auto* b : window->findChildren<QPushButton*>())
            EXPECT_TRUE(!b->isVisible() || b->isEnabled())
                << "a disabled button explains nothing: " << b->text().toStdString();
    }
    key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(window->messageText(), "There is nothing to undo.");
    EXPECT_FALSE(window->openPath(dir.filePath("gone.anvil")));
    EXPECT_TRUE(window->messageText().contains("There is no file"));
}

TEST_F(Shell, AReadOnlyProjectCanBeLookedAtButNotChanged) {
    const auto path = demoCopy(dir);
    QProcess holder; // another process holds the project open
    holder.start("sqlite3", {path});
    QFile lock(path + ".lock");
    ASSERT_TRUE(lock.open(QIODevice::WriteOnly));
    ASSERT_TRUE(holder.waitForStarted());
    lock.write(QByteArray::number(holder.processId()) + "\nsqlite3\n" + QSysInfo::machineHostName().toUtf8() +
               "\n");
    lock.close();
    ASSERT_TRUE(window->openPath(path));
    settle();
    EXPECT_TRUE(session().readOnly());
    EXPECT_TRUE(visibleTexts(window.get()).filter("It is open elsewhere").size() > 0);
    session().selectPull(pullOf("A1-1"));
    const auto answer =
        project::setStanding(*session().project(), session().pull(), domain::Standing::voided, "x");
    ASSERT_FALSE(answer);
    EXPECT_TRUE(qs(answer.error().message).contains("Nothing was changed"));
    EXPECT_FALSE(window->importFiles(demoLogs()));
    holder.kill();
    holder.waitForFinished();
}

TEST_F(Shell, TwelveBySixBySevenStaysReadable) {
    ASSERT_TRUE(session().create(dir.filePath("p.anvil")));
    domain::Study s;
    s.title = "Large";
    const auto id = *project::addStudy(*session().project(), s);
    QStringList options, conditions;
    for (int i = 0; i < 12; ++i)
        options << QStringLiteral("Option %1").arg(i + 1);
    for (int i = 0; i < 6; ++i)
        conditions << QStringLiteral("Condition %1").arg(i + 1);
    ASSERT_TRUE(project::addOptions(*session().project(), id, options));
    ASSERT_TRUE(project::addConditions(*session().project(), id, conditions));
    ASSERT_TRUE(project::planReplicates(*session().project(), id, 7));
    ASSERT_TRUE(project::makePieces(*session().project(), id, "one"));
    EXPECT_EQ(study().specimens.size(), 504U);
    for (int i = 0; i < stageCount; ++i) {
        window->goTo(static_cast<Stage>(i));
        settle();
        EXPECT_EQ(window->size(), QSize(1280, 800));
    }
}

TEST_F(Stages, SpecimensMovesAMislabelledPiece) {
    openDemo();
    window->goTo(Stage::specimens);
    const auto pull = pullOf("C1-4");
    session().selectPull(pull);
    settle();
    auto* table = shown<QTableWidget>("Pieces");
    EXPECT_EQ(table->rowCount(), 40);
    EXPECT_EQ(table->item(table->currentRow(), 0)->text(), "C1-4");
    pressButton("Move…");
    for (auto* box : window->findChildren<QComboBox*>())
        if (box->isVisible() && box->findText("Tucked splice") >= 0) box->setCurrentText("Tucked splice");
    pressButton("Move");
    EXPECT_EQ(study().option(study().specimen(study().pull(pull)->specimen)->option)->name, "Tucked splice");
}

TEST_F(Stages, RigLimitTurnsToppedOutPullsIntoAtLeast) {
    openDemo();
    window->goTo(Stage::rig);
    settle();
    child<QLineEdit>("rigLimit")->setText("0 N");
    QTest::mouseClick(child<QPushButton>("applyRigLimit"), Qt::LeftButton);
    EXPECT_FALSE(window->messageText().isEmpty());
    child<QLineEdit>("rigLimit")->setText("3 kN");
    QTest::mouseClick(child<QPushButton>("applyRigLimit"), Qt::LeftButton);
    settle();
    EXPECT_TRUE(session().readings().byPull.at(pullOf("B1-1")).offScale);
    key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_FALSE(session().readings().byPull.at(pullOf("B1-1")).offScale);
}

TEST_F(Stages, PullOffersTheWaysInAndShowsTheCautions) {
    window->goTo(Stage::pull);
    settle();
    const auto texts = visibleTexts(window.get()).join("\n");
    for (const char* want : {"Import logger files", "Import a table", "Paste results",
                             "stand out of the line of pull", "licensed or competent person"})
        EXPECT_TRUE(texts.contains(want)) << want;
}

TEST_F(Stages, ReportIsLiveAndCanBeSaved) {
    openDemo();
    window->goTo(Stage::report);
    settle();
    EXPECT_TRUE(visibleTexts(window.get()).join("\n").contains("What was found"));
    session().selectPull(pullOf("A1-1"));
    ASSERT_TRUE(session().project()->changePull(session().pull(), "note",
                                                [](domain::Pull& x) { x.note = "a note that must show"; }));
    settle();
    EXPECT_TRUE(visibleTexts(window->reportStage()).join("\n").contains("a note that must show"));
    EXPECT_TRUE(window->reportStage()->writeHtml(dir.filePath("r.html")));
    EXPECT_TRUE(window->reportStage()->writePdf(dir.filePath("r.pdf")));
    EXPECT_FALSE(window->reportStage()->writeHtml("/no/such/r.html"));
    EXPECT_TRUE(window->messageText().contains("cannot be written"));
}

TEST_F(Shell, LongNamesAndManySquaresStayInsideTheWindow) {
    ASSERT_TRUE(session().create(dir.filePath("p.anvil")));
    domain::Study s;
    s.title = "Long";
    s.question =
        QString("Which of all these very long-winded options holds longest? ").repeated(6).toStdString();
    const auto id = *project::addStudy(*session().project(), s);
    session().showStudy(id);
    for (int i = 0; i < 12; ++i)
        ASSERT_TRUE(
            project::addOption(*session().project(), id,
                               QStringLiteral("An option with an unreasonably long name, number %1").arg(i)));
    for (int i = 0; i < 6; ++i)
        ASSERT_TRUE(project::addCondition(*session().project(), id,
                                          QStringLiteral("Condition %1 of a long-winded kind").arg(i)));
    for (const auto& size : {QSize(1280, 800), QSize(1024, 700)}) {
        window->resize(size);
        settle();
        EXPECT_EQ(window->size(), size) << "no name pushes the window wider";
        for (int i = 0; i < stageCount; ++i)
            window->goTo(static_cast<Stage>(i));
        EXPECT_EQ(window->size(), size);
    }
}

/// An option named as a picture is shown to the letter: no label or tool tip takes it for markup.
TEST_F(Window, WhatAProjectSaysIsNeverMarkup) {
    openDemo();
    const auto name = QStringLiteral("<img src='/dev/zero'><b>Bold</b>");
    ASSERT_TRUE(project::addOption(*session().project(), session().studyId(), name));
    ASSERT_TRUE(session().project()->changeStudy(session().studyId(), "question",
                                                 [&](domain::Study& x) { x.question = name.toStdString(); }));
    for (const auto stage : {Stage::question, Stage::specimens, Stage::rig, Stage::pull, Stage::curves,
                             Stage::verdict, Stage::report}) {
        window->goTo(stage);
        QTest::qWait(20);
        for (const auto* label : window->findChildren<QLabel*>())
            EXPECT_TRUE(label->textFormat() == Qt::PlainText || label->objectName() == "bigLoad" ||
                        label->text().isEmpty())
                << label->objectName().toStdString() << ": " << label->text().toStdString();
    }
    EXPECT_TRUE(visibleTexts(window.get()).join('\n').contains(name) ||
                session().study()->study.question == name.toStdString());
    EXPECT_FALSE(plainTip(name).contains("<img"));
    EXPECT_TRUE(plainTip(name).contains("&lt;img"));
    EXPECT_EQ(plainTip("5 < 6"), "5 < 6");
}

/// Which of two columns is the load is asked, and answered in the sheet.
TEST_F(Window, TheLoadsColumnIsChosenInTheSheet) {
    openDemo();
    QFile log(dir.filePath("pin_dry_1.csv"));
    ASSERT_TRUE(log.open(QIODevice::WriteOnly));
    log.write("Time (s),Load A (N),Load B (N)\n");
    for (int i = 0; i < 60; ++i)
        log.write(QByteArray::number(i * 0.1) + "," + QByteArray::number(i) + "," +
                  QByteArray::number(2 * i) + "\n");
    log.close();
    auto* sheet = window->importFiles({log.fileName(), demoLogs()[0]});
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && !sheet->plan().unread.isEmpty(); }));
    EXPECT_TRUE(visibleTexts(sheet).join('\n').contains("more than one column could be the load"));
    auto* column = sheet->findChild<QLineEdit*>("loadColumn");
    ASSERT_TRUE(column->isVisible());
    QTest::keyClicks(column, "Load B");
    QTest::keyClick(column, Qt::Key_Return);
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && sheet->plan().rows.size() == 2; }));
    EXPECT_NEAR(sheet->plan().rows[0].reading->peak.load, 118, 1e-9);
    EXPECT_TRUE(sheet->plan().unread.isEmpty()) << "the other file has no such column and needs none";
    sheet->reject();
}

/// What each word of the file names is, said once for all; what was taken as what is shown with each run.
TEST_F(Window, TheWordsOfFileNamesAreSaidOnceForAll) {
    openDemo();
    QStringList files;
    for (const char* name : {"A12_gorse_dry_1.csv", "B07_alder_wet_2.csv"}) {
        QFile log(dir.filePath(name));
        ASSERT_TRUE(log.open(QIODevice::WriteOnly));
        log.write("Time (s),Load (lbf)\n");
        for (int i = 0; i < 60; ++i)
            log.write(QByteArray::number(i * 0.1) + "," + QByteArray::number(i * (files.size() + 1)) + "\n");
        files << log.fileName();
    }
    auto* sheet = window->importFiles(files);
    ASSERT_TRUE(waitFor([&] { return !sheet->looking() && sheet->plan().rows.size() == 2; }));
    EXPECT_EQ(sheet->plan().rows[1].option, "B07 alder");
    QCoreApplication::processEvents();
    auto* first = sheet->findChild<QComboBox*>("word1");
    ASSERT_TRUE(first && first->isVisible());
    first->setFocus();
    QTest::keyClick(first, Qt::Key_Home); // not used
    ASSERT_TRUE(waitFor([&] { return sheet->plan().rows[1].option == "Alder"; }));
    EXPECT_EQ(sheet->plan().rows[0].option, "Gorse");
    EXPECT_EQ(sheet->plan().rows[0].condition, "Dry");
    QCoreApplication::processEvents();
    auto* table = sheet->findChild<QTableWidget*>("runs");
    EXPECT_TRUE(table->item(0, 2)->text().contains("load from \"Load\" in lbf (by name and unit)"))
        << table->item(0, 2)->text().toStdString();
    EXPECT_EQ(table->item(0, 3)->text().simplified(), "59.00 lbf") << "in the unit of its file";
    EXPECT_TRUE(visibleTexts(sheet).join('\n').contains("the option is \u201cgorse\u201d"));
    sheet->reject();
}

/// Whatever Esc meets, the window shows what is in the file.
TEST_F(Window, CancellingAnImportLeavesWindowAndFileAlike) {
    openDemo();
    const auto before = session().project()->file().load().value();
    for (const int wait : {0, 1, 20}) {
        auto* sheet = window->importFiles(demoLogs());
        ASSERT_TRUE(sheet);
        ASSERT_TRUE(waitFor([&] { return !sheet->looking() && !sheet->plan().rows.empty(); }));
        bool closed = false;
        QObject::connect(sheet, &QDialog::finished, sheet, [&] { closed = true; });
        QTest::mouseClick(sheet->findChild<QPushButton*>("primary"), Qt::LeftButton);
        EXPECT_FALSE(sheet->findChild<QTableWidget*>("runs")->isEnabled()) << "the writer reads it";
        QTest::qWait(wait);
        if (!closed) QTest::keyClick(sheet, Qt::Key_Escape);
        ASSERT_TRUE(waitFor([&] { return closed; }));
        EXPECT_TRUE(session().project()->file().load().value() == session().project()->studies());
        if (session().project()->studies() != before) {
            ASSERT_TRUE(session().project()->undo());
        }
        EXPECT_TRUE(session().project()->studies() == before);
    }
}

} // namespace
