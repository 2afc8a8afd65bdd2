// Takes the pictures in docs/screenshots from the demo project. Usage: jaunty-anvil-shots PROJECT FOLDER
// [WIDTH HEIGHT light|dark]
#include "shell/import_sheet.h"
#include "shell/main_window.h"
#include "shell/rig_desk.h"
#include "stages/curves/curves_stage.h"
#include "stages/pull/bench_view.h"
#include "stages/verdict/verdict_stage.h"
#include "theme/theme.h"
#include <anvil/link/rig_server.h>
#include <anvil/project/board_commands.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/digits.h>

#include <QAction>
#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPushButton>
#include <QSettings>
#include <QStandardPaths>
#include <QTabBar>
#include <QTemporaryDir>
#include <utility>

using namespace anvil::app;

namespace {

void settle(int ms = 60) {
    QElapsedTimer timer;
    timer.start();
    while (timer.elapsed() < ms)
        QApplication::processEvents(QEventLoop::AllEvents, 10);
}

/// Goes to a stage as a person does: by the menu.
void go(MainWindow& window, Stage stage) {
    const QKeySequence key(QStringLiteral("Ctrl+%1").arg(static_cast<int>(stage) + 1));
    for (auto* action : window.findChildren<QAction*>())
        if (action->shortcut() == key) action->trigger();
    settle();
}

/// Presses the button on show that says this.
void press(MainWindow& window, const QString& text) {
    for (auto* button : window.findChildren<QAbstractButton*>())
        if (button->isVisible() && button->text() == text) {
            button->click();
            return settle();
        }
}

/// Clicks the tab on show that says this.
void turnTo(MainWindow& window, const QString& text) {
    for (auto* bar : window.findChildren<QTabBar*>())
        for (int i = 0; bar->isVisible() && i < bar->count(); ++i) {
            if (bar->tabText(i) != text) continue;
            const QPointF at = bar->tabRect(i).center();
            for (const auto type : {QEvent::MouseButtonPress, QEvent::MouseButtonRelease}) {
                const auto held = type == QEvent::MouseButtonPress ? Qt::LeftButton : Qt::NoButton;
                QMouseEvent event(type, at, bar->mapToGlobal(at), Qt::LeftButton, held, {});
                QApplication::sendEvent(bar, &event);
            }
            return settle();
        }
}

/// A fresh study of this method with two options and a few pieces, on show in Pull.
anvil::domain::Id studyOf(MainWindow& window, const char* title, const char* method,
                          const QStringList& options, const QString& condition) {
    auto& project = *window.session().project();
    anvil::domain::Study s;
    s.title = title;
    s.position = static_cast<int>(project.studies().size());
    const auto id = anvil::project::addStudy(project, s).value_or(0);
    (void)anvil::project::addOptions(project, id, options);
    (void)anvil::project::addConditions(project, id, {condition});
    (void)anvil::project::setMethod(project, id, method);
    (void)anvil::project::planReplicates(project, id, 3);
    (void)anvil::project::makePieces(project, id, "");
    window.session().showStudy(id);
    go(window, Stage::pull);
    settle();
    return id;
}

template <class Save> void otherKinds(MainWindow& window, Save save) {
    auto& session = window.session();
    auto& project = *session.project();
    auto id =
        studyOf(window, "Ground pegs", "step-ladder", {"Round peg", "Angle peg", "Screw peg"}, "in loam");
    (void)anvil::project::changePlan(project, id, "ladder", [](anvil::domain::Plan& p) {
        p.ladder.first = 200;
        p.ladder.more = 50;
    });
    for (const double load : {200.0, 250.0, 300.0})
        if (const auto pull = anvil::project::addLadderStep(project, session.study()->specimens.front().id,
                                                            {load, {}, true}, "2026-05-04T09:00:00", "Ines"))
            session.selectPull(*pull);
    save(window, "pull-ladder");
    id = studyOf(window, "Ground pegs by eye", "by-eye", {"Round peg", "Angle peg"}, "in loam");
    (void)anvil::project::changePlan(project, id, "scale", [](anvil::domain::Plan& p) {
        p.ratingWords = {{0, "comes out by hand"}, {2.5, "wobbles"}, {5, "needs a hammer"}};
    });
    save(window, "pull-rating");
    studyOf(window, "Slats", "sag", {"Grey slat", "Green slat"}, "dry");
    save(window, "pull-sag");
    id = studyOf(window, "Net clips", "creep", {"Clip with a lip", "Plain clip"}, "in the sun");
    (void)anvil::project::changePlan(project, id, "gauge",
                                     [](anvil::domain::Plan& p) { p.gaugeEvery = 86400; });
    const auto now = static_cast<double>(session.now().toSecsSinceEpoch());
    for (std::size_t i = 0; i < 4; ++i)
        for (const double days : {3.0, 2.0, 1.0 - 0.1 * static_cast<double>(i)})
            (void)anvil::project::addGaugeReading(
                project, session.study()->specimens[i].id,
                {now - 86400 * days, 0.0142 - 0.0004 * days + 0.0002 * static_cast<double>(i)}, false,
                "Ines");
    save(window, "pull-gauge");
}

template <class Save> void threeLegs(MainWindow& window, Save save) {
    anvil::sim::RigOptions options;
    options.logger.noise = 3;
    options.logger.speed = 0.004;
    options.legs = {0.45, 0.33, 0.22};
    anvil::link::RigServer server(options, false);
    studyOf(window, "Hoop foot", "axial-pull", {"Three-leg foot"}, "level ground");
    anvil::rig::Setup setup;
    setup.name = "Yard winch";
    setup.address = server.listenTcp(0)->toStdString();
    setup.layout = anvil::rig::simulatedLayout();
    for (const char* leg : {"leg north", "leg east", "leg west"})
        setup.layout.columns.push_back({leg, anvil::rig::Role::load, "N", false, 1200.0, {}});
    setup.rigLimit = 2600;
    setup.onArm = "!pull";
    window.session().rig().use(setup);
    go(window, Stage::rig);
    settle(1500);
    turnTo(window, "Limits");
    save(window, "rig-limits");
    turnTo(window, "More channels");
    settle(400);
    save(window, "rig-channels");
    go(window, Stage::pull);
    auto* bench = window.findChild<BenchView*>();
    using anvil::station::PullStep;
    bool marked = false;
    for (int i = 0; i < 600 && bench->flow().step() != PullStep::part; ++i) {
        settle(50);
        const bool loading = bench->flow().step() == PullStep::loading;
        if (i % 14 == 13 && !loading) {
            QKeyEvent space(QEvent::KeyPress, Qt::Key_Space, {});
            QApplication::sendEvent(bench, &space);
        }
        if (loading && window.session().rig().live().load > 700) {
            QKeyEvent mark(QEvent::KeyPress, Qt::Key_1, {});
            if (!std::exchange(marked, true)) QApplication::sendEvent(bench, &mark);
            if (window.session().rig().live().load > 1100) save(window, "pull-legs");
        }
    }
    for (int i = 0; i < 4; ++i) {
        settle(700);
        QKeyEvent space(QEvent::KeyPress, Qt::Key_Space, {});
        QApplication::sendEvent(bench, &space);
    }
    settle(500);
    go(window, Stage::curves);
    press(window, "This pull");
    save(window, "curves-legs");
    window.session().rig().disconnectRig();
}

/// Every stage of the demo, and the tabs of some.
template <class Save> void stages(MainWindow& window, Save save) {
    const char* const names[] = {"question", "specimens", "rig", "pull", "curves", "verdict", "report"};
    for (int i = 0; i < stageCount; ++i) {
        go(window, static_cast<Stage>(i));
        save(window, names[i]);
    }
    go(window, Stage::question);
    const auto back = QString::fromUtf8("\u2039 The plan");
    for (const auto& [line, name] :
         {std::pair{"Enough", "question-how-many"}, {"Forecasts", "question-forecasts"}}) {
        press(window, QString::fromLatin1(line));
        save(window, name);
        press(window, back);
    }
    window.findChild<QAbstractButton*>("chooseMethod")->click();
    save(window, "question-method");
    press(window, back);
    go(window, Stage::curves);
    press(window, "Square");
    save(window, "overlay");
    go(window, Stage::verdict);
    turnTo(window, "Pairs and why");
    save(window, "verdict-pairs");
    window.session().showStudy(window.session().project()->studies()[3].study.id);
    settle();
    turnTo(window, "Score card");
    save(window, "verdict-score");
    window.session().showStudy(window.session().project()->studies()[1].study.id);
    turnTo(window, "Table");
    save(window, "verdict-table");
    window.session().showStudy(window.session().project()->studies()[2].study.id);
    go(window, Stage::specimens);
    save(window, "specimens");
    turnTo(window, "Preparation");
    save(window, "preparation");
    turnTo(window, "Places in the sheet");
    save(window, "sheets");
}

/// From the cautions to the standing of one pull.
template <class Save> void onePull(MainWindow& window, Save save) {
    go(window, Stage::pull);
    auto* bench = window.findChild<BenchView*>();
    const auto until = [&](anvil::station::PullStep step, bool press) {
        for (int i = 0; i < 400 && bench->flow().step() != step; ++i) {
            settle(50);
            if (press && i % 14 == 13) {
                QKeyEvent space(QEvent::KeyPress, Qt::Key_Space, {});
                QApplication::sendEvent(bench, &space);
            }
        }
    };
    until(anvil::station::PullStep::ready, true);
    save(window, "pull-ready");
    until(anvil::station::PullStep::loading, true);
    settle(2200);
    save(window, "pull-live");
    until(anvil::station::PullStep::part, false);
    save(window, "pull-part");
    const auto press = [&](int k) {
        settle(700);
        QKeyEvent event(QEvent::KeyPress, k, {});
        QApplication::sendEvent(bench, &event);
    };
    press(Qt::Key_1);
    save(window, "pull-how");
    press(Qt::Key_2);
    press(Qt::Key_6);
    save(window, "pull-accept");
    press(Qt::Key_Space);
    window.session().rig().disconnectRig();
}

/// The virtual bench in mid-pull, on a copy so that the demo project stays as it is; false: it could not be
/// made.
template <class Save> bool virtualBench(MainWindow& window, const QString& copy, bool all, Save save) {
    if (!window.session().project()->file().saveCopy(copy) || !window.session().open(copy)) return false;
    window.session().rig().practise();
    window.session().rig().edit([](anvil::rig::Setup& s) {
        s.path = {{anvil::rig::RatioPart::Kind::lever, 0.6, 0.3, 0.002, 0.002, 0},
                  {anvil::rig::RatioPart::Kind::line, 2, 0.95, 0, 0.02, 0}};
        s.calibration.points = {{0, 0}, {600, 605}, {1200, 1217}, {1800, 1834}, {2500, 2560}};
        s.rigLimit = 9000;
    });
    go(window, Stage::rig);
    settle(1500);
    for (const auto& [tab, name] :
         {std::pair{"Connection", "rig"}, {"Load path", "rig-path"}, {"Calibration", "rig-calibration"}}) {
        turnTo(window, QString::fromLatin1(tab));
        save(window, name);
    }
    if (all) {
        const auto before = window.session().rig().setup();
        window.session().rig().keep([&] {
            auto s = before;
            s.protocol = anvil::rig::Protocol::answers;
            s.forceQuery = "MEAS:FORC?";
            s.asked = *anvil::rig::columnsOf(std::vector<anvil::rig::ColumnText>{
                {"leg B", "N", "MEAS:FORC2?"}, {"air", "°C", "MEAS:TEMP?"}});
            return s;
        }());
        turnTo(window, "Connection");
        save(window, "rig-answers");
        window.session().rig().keep(before);
    }
    onePull(window, save);
    return true;
}

template <class Save>
void importSheet(MainWindow& window, const QDir& logFolder, const QString& project, QSize size, Save save) {
    window.session().close();
    QStringList logs;
    for (const auto& f : logFolder.entryInfoList(QDir::Files))
        logs << f.absoluteFilePath();
    if (!logs.isEmpty() && window.session().create(project)) {
        if (auto* sheet = window.importFiles(logs)) {
            while (sheet->looking())
                settle();
            sheet->resize(std::min(size.width(), 1080), std::min(size.height(), 640));
            save(*sheet, "import");
            sheet->reject();
        }
    }
}

} // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    anvil::quantity::usePoints();
    if (argc < 3) return 2;
    const QTemporaryDir scratch;
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, scratch.path());
    QApplication::setApplicationName("Jaunty Anvil shots");
    const int width = argc > 4 ? QString(argv[3]).toInt() : 1280,
              height = argc > 4 ? QString(argv[4]).toInt() : 800;
    const bool dark = argc > 5 && QString(argv[5]) == "dark";
    applyTheme(application, dark ? Appearance::dark : Appearance::light);
    const QDir to(argv[2]);
    MainWindow window;
    window.resize(width, height);
    window.show();
    settle();
    // Those in the README; the others only when all are wanted, for looking at.
    const bool all = qEnvironmentVariableIsSet("ANVIL_ALL_SHOTS");
    const QStringList extra{"pull",      "question-method", "rig-calibration", "pull-ready",  "pull-part",
                            "pull-how",  "pull-accept",     "pull-sag",        "pull-gauge",  "rig-channels",
                            "pull-legs", "curves-legs",     "rig-limits",      "pull-rating", "rig-answers"};
    const auto save = [&](QWidget& widget, const char* name) {
        settle();
        if (!all && extra.contains(QLatin1String(name))) return;
        widget.grab().save(to.filePath(QString::fromLatin1(name) + ".png"));
    };
    save(window, "start");
    if (!window.openPath(QString::fromLocal8Bit(argv[1]))) return 3;
    window.session().setNow(QDateTime(QDate(2026, 5, 4), QTime(9, 0)));
    stages(window, save);
    if (!virtualBench(window, QDir(scratch.path()).filePath("practice.anvil"), all, save)) return 4;
    otherKinds(window, save);
    if (all) threeLegs(window, save);
    importSheet(window, QDir(QFileInfo(argv[1]).absolutePath() + "/logs"), scratch.filePath("import.anvil"),
                {width, height}, save);
    return 0;
}
