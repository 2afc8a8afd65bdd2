// Takes the pictures in docs/screenshots from the demo project. Usage: jaunty-anvil-shots PROJECT FOLDER
// [WIDTH HEIGHT light|dark]
#include "shell/import_sheet.h"
#include "shell/main_window.h"
#include "shell/rig_desk.h"
#include "stages/curves/curves_stage.h"
#include "stages/pull/bench_view.h"
#include "stages/verdict/verdict_stage.h"
#include "theme/theme.h"

#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QPushButton>
#include <QSettings>
#include <QStandardPaths>
#include <QTabWidget>
#include <QTemporaryDir>

using namespace anvil::app;

namespace {

void settle(int ms = 60) {
    QElapsedTimer timer;
    timer.start();
    while (timer.elapsed() < ms)
        QApplication::processEvents(QEventLoop::AllEvents, 10);
}

} // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    if (argc < 3) return 2;
    const QTemporaryDir scratch;
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, scratch.path());
    QApplication::setApplicationName("Jaunty Anvil shots");
    const int width = argc > 4 ? atoi(argv[3]) : 1280, height = argc > 4 ? atoi(argv[4]) : 800;
    const bool dark = argc > 5 && QString(argv[5]) == "dark";
    applyTheme(application, dark ? Appearance::dark : Appearance::light);
    const QDir to(argv[2]);
    MainWindow window;
    window.resize(width, height);
    window.show();
    settle();
    // Those in the README; the others only when all are wanted, for looking at.
    const bool all = qEnvironmentVariableIsSet("ANVIL_ALL_SHOTS");
    const QStringList extra{"pull", "question-method", "rig-calibration", "pull-ready", "pull-part"};
    const auto save = [&](QWidget& widget, const char* name) {
        settle();
        if (!all && extra.contains(QLatin1String(name))) return;
        widget.grab().save(to.filePath(QString::fromLatin1(name) + ".png"));
    };
    save(window, "empty");
    if (!window.openPath(QString::fromLocal8Bit(argv[1]))) return 3;
    window.session().setNow(QDateTime(QDate(2026, 5, 4), QTime(9, 0)));
    const char* const names[] = {"question", "specimens", "rig", "pull", "curves", "verdict", "report"};
    for (int i = 0; i < stageCount; ++i) {
        window.goTo(static_cast<Stage>(i));
        save(window, names[i]);
    }
    window.goTo(Stage::question);
    auto* tabs = window.findChild<QTabWidget*>("planTabs");
    for (const auto& [tab, name] : {std::pair{"How many?", "question-how-many"},
                                    {"Does it reach?", "question-reach"},
                                    {"Forecasts", "question-forecasts"},
                                    {"Weakest link", "question-chain"},
                                    {"Method", "question-method"}}) {
        for (int i = 0; i < tabs->count(); ++i)
            if (tabs->tabText(i) == QLatin1String(tab)) tabs->setCurrentIndex(i);
        save(window, name);
    }
    window.goTo(Stage::curves);
    settle();
    window.curves()->findChild<QPushButton*>("overlay")->click();
    save(window, "overlay");
    window.goTo(Stage::verdict);
    window.session().showStudy(window.session().project()->studies()[1].study.id);
    window.verdict()->findChild<QTabWidget*>()->setCurrentIndex(1);
    save(window, "verdict-table");
    window.session().showStudy(window.session().project()->studies()[2].study.id);
    window.goTo(Stage::specimens);
    auto* pages = window.findChild<QTabWidget*>("specimenTabs");
    save(window, "specimens");
    pages->setCurrentIndex(1);
    save(window, "preparation");
    pages->setCurrentIndex(2);
    save(window, "sheets");
    // The virtual bench in mid-pull, on a copy so that the demo project stays as it is.
    const auto copy = QDir(scratch.path()).filePath("practice.anvil");
    if (!window.session().project()->file().saveCopy(copy) || !window.session().open(copy)) return 4;
    window.session().rig().practise();
    window.session().rig().edit([](anvil::rig::Setup& s) {
        s.path = {{anvil::rig::RatioPart::Kind::lever, 0.6, 0.3, 0.002, 0.002, 0},
                  {anvil::rig::RatioPart::Kind::line, 2, 0.95, 0, 0.02, 0}};
        s.calibration = {{0, 0}, {250, 252}, {500, 507}, {750, 764}, {1000, 1024}};
        s.rigLimit = 9000;
    });
    window.goTo(Stage::rig);
    settle(1500);
    auto* rigTabs = window.findChild<QTabWidget*>("rigTabs");
    for (const auto& [tab, name] : {std::pair{0, "rig"}, {2, "rig-path"}, {3, "rig-calibration"}}) {
        rigTabs->setCurrentIndex(tab);
        save(window, name);
    }
    window.goTo(Stage::pull);
    auto* bench = window.findChild<BenchView*>();
    const auto until = [&](anvil::work::PullStep step, bool press) {
        for (int i = 0; i < 400 && bench->flow().step() != step; ++i) {
            settle(50);
            if (press && i % 14 == 13) {
                QKeyEvent space(QEvent::KeyPress, Qt::Key_Space, {});
                QApplication::sendEvent(bench, &space);
            }
        }
    };
    until(anvil::work::PullStep::ready, true);
    save(window, "pull-ready");
    until(anvil::work::PullStep::loading, true);
    settle(2200);
    save(window, "pull-live");
    until(anvil::work::PullStep::part, false);
    save(window, "pull-part");
    window.session().close();
    QStringList logs;
    for (const auto& f : QDir(QFileInfo(argv[1]).absolutePath() + "/logs").entryInfoList(QDir::Files))
        logs << f.absoluteFilePath();
    if (!logs.isEmpty() && window.session().create(scratch.filePath("import.anvil"))) {
        if (auto* sheet = window.importFiles(logs)) {
            while (sheet->looking())
                settle();
            sheet->resize(std::min(width, 1080), std::min(height, 640));
            save(*sheet, "import");
            sheet->reject();
        }
    }
    return 0;
}
