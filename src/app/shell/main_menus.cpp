// The menus of the window, and what they remember.
#include "shell/earlier_index.h"
#include "shell/main_window.h"

#include "help/help_window.h"
#include "shell/bench_line.h"
#include "shell/board.h"
#include "shell/preferences.h"
#include "shell/rig_desk.h"
#include "shell/stage_strip.h"
#include "shell/start_page.h"
#include "stages/verdict/verdict_stage.h"
#include "theme/theme.h"
#include <QActionGroup>
#include <QApplication>
#include <QClipboard>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>
#include <QLineEdit>
#include <QMenuBar>
#include <QStackedWidget>

namespace anvil::app {

void MainWindow::makeMenus() {
    makeFileMenu();
    makeEditMenu();
    makeViewMenu();
    makeGoMenu();
    makeRigMenu();
    auto* help = menuBar()->addMenu(tr("&Help"));
    help->addAction(icon("circle-help"), tr("&Help for what is on show"), QKeySequence("F1"), this,
                    &MainWindow::openHelp);
    const auto page = [&](const QString& text, const QString& key) {
        help->addAction(text, this, [this, key] {
            openHelp();
            m_help->show(key);
        });
    };
    page(tr("&First steps"), "first-steps");
    page(tr("&Keys"), "keys");
    page(tr("How &sure is sure?"), "how-sure");
    help->addSeparator();
    help->addAction(tr("&About Jaunty Anvil"), this, [this] { showAbout(this); });
    refreshRecent();
}

void MainWindow::makeFileMenu() {
    auto* file = menuBar()->addMenu(tr("&File"));
    file->addAction(icon("file-plus"), tr("&New project…"), QKeySequence::New, this, &MainWindow::planNew);
    file->addAction(icon("folder-open"), tr("&Open project…"), QKeySequence::Open, this,
                    &MainWindow::chooseProject);
    m_recent = file->addMenu(tr("&Recent projects"));
    m_saveCopy = file->addAction(icon("copy"), tr("Save a &copy…"), this, [this] {
        if (!m_session.project()) return m_session.say(tr("Open a project first."), true);
        const auto path = QFileDialog::getSaveFileName(
            this, tr("Save a copy"), m_session.project()->file().path(), tr("Projects (*.anvil)"));
        if (!path.isEmpty() && m_session.tell(m_session.project()->file().saveCopy(path)))
            m_session.say(tr("The copy is in %1.").arg(path));
    });
    m_move = file->addAction(tr("Re&name or move the project…"), this, [this] { chooseNewPlace(); });
    file->addSeparator();
    file->addAction(icon("import"), tr("&Import logger files…"), QKeySequence("Ctrl+I"), this,
                    [this] { emit m_board->importWanted(); });
    file->addAction(tr("Import a &data package…"), this, [this] {
        const auto path = QFileDialog::getExistingDirectory(this, tr("The folder of a data package"));
        if (!path.isEmpty()) importPackage(path);
    });
    file->addAction(tr("&Export a data package…"), this, &MainWindow::exportPackage);
    file->addAction(icon("list"), tr("Import a &table of results…"), QKeySequence("Ctrl+T"), this,
                    [this] { importTable(QString()); });
    file->addAction(icon("clipboard-paste"), tr("&Paste results"), QKeySequence("Ctrl+Shift+V"), this,
                    &MainWindow::pasteTable);
    file->addSeparator();
    file->addAction(tr("&Quit"), QKeySequence::Quit, this, &QWidget::close);
}

void MainWindow::makeEditMenu() {
    auto* edit = menuBar()->addMenu(tr("&Edit"));
    m_undo = edit->addAction(icon("undo-2"), tr("Undo"), QKeySequence::Undo, this, [this] {
        if (!m_session.project() || !m_session.project()->canUndo())
            return m_session.say(tr("There is nothing to undo."));
        const auto what = m_session.project()->undoText();
        if (m_session.tell(m_session.project()->undo())) m_session.say(tr("Taken back: %1").arg(what));
    });
    m_redo = edit->addAction(icon("redo-2"), tr("Redo"), QKeySequence("Ctrl+Shift+Z"), this, [this] {
        if (!m_session.project() || !m_session.project()->canRedo())
            return m_session.say(tr("There is nothing to do again."));
        const auto what = m_session.project()->redoText();
        if (m_session.tell(m_session.project()->redo())) m_session.say(tr("Done again: %1").arg(what));
    });
}

void MainWindow::makeViewMenu() {
    auto* view = menuBar()->addMenu(tr("&View"));
    const auto units = [&](const QString& title, const QString& key, const QString& now,
                           const QStringList& names) {
        auto* menu = view->addMenu(title);
        auto* group = new QActionGroup(this);
        for (const auto& name : names) {
            auto* action = menu->addAction(name, this, [this, key, name] {
                const bool force = key == "units/force";
                m_session.setUnits(force ? name : QString::fromUtf8(m_session.units().force->symbol.data()),
                                   force ? QString::fromUtf8(m_session.units().length->symbol.data()) : name);
            });
            action->setObjectName("unit-" + name);
            action->setCheckable(true);
            action->setChecked(now == name);
            group->addAction(action);
        }
    };
    units(tr("&Force in"), "units/force", preferences::forceUnit(), {"N", "kN", "kgf", "lbf"});
    units(tr("&Length in"), "units/length", preferences::lengthUnit(), {"mm", "in"});
    auto* look = view->addMenu(tr("&Appearance"));
    auto* group = new QActionGroup(this);
    const QStringList names{tr("Light"), tr("Dark"), tr("Follow the desktop")};
    for (int i = 0; i < 3; ++i) {
        auto* action = look->addAction(names[i], this, [this, i] { setAppearance(i); });
        action->setCheckable(true);
        action->setChecked(preferences::appearance() == i);
        group->addAction(action);
    }
    auto* size = view->addMenu(tr("Te&xt size"));
    auto* sizes = new QActionGroup(this);
    for (const int percent : {0, 100, 125, 150, 200}) {
        auto* action = size->addAction(
            percent > 0 ? tr("%1 %").arg(percent) : tr("Follow the desktop"), this, [this, percent] {
                preferences::setTextSize(percent);
                m_session.say(tr("Text has this size when the program is started again."));
            });
        action->setCheckable(true);
        action->setChecked(preferences::textSize() == percent);
        sizes->addAction(action);
    }
    auto* earlier = view->addAction(tr("&Remember results for later projects"), this,
                                    [](bool on) { earlier_index::setOn(on); });
    earlier->setCheckable(true);
    earlier->setChecked(earlier_index::isOn());
    view->addAction(tr("Fold or unfold the b&oard"), QKeySequence("Ctrl+M"), this, &MainWindow::foldBoard)
        ->setObjectName("foldBoard");
    view->addAction(icon("panel-right"), tr("Open or close the le&dger"), QKeySequence("Ctrl+L"), this,
                    [this] { showLedger(!m_ledgerPanel->isVisible()); })
        ->setObjectName("foldLedger");
    m_closeLedger = view->addAction(tr("&Close the ledger"), QKeySequence(Qt::Key_Escape), this,
                                    [this] { showLedger(false); });
    m_closeLedger->setEnabled(false);
    auto* bench = view->addAction(tr("Fold or unfold the &bench line"), QKeySequence("Ctrl+B"), this, [this] {
        preferences::setBenchLine(!preferences::benchLine());
        refresh();
        if (preferences::benchLine() && !m_bench->isVisible())
            m_session.say(tr("The bench line shows once a rig is set up."));
    });
    bench->setObjectName("foldBench");
}

void MainWindow::makeGoMenu() {
    auto* go = menuBar()->addMenu(tr("&Go"));
    go->addAction(tr("&Start page"), QKeySequence("Ctrl+0"), this, &MainWindow::showStart);
    for (int i = 0; i < stageCount; ++i)
        go->addAction(StageStrip::name(static_cast<Stage>(i)),
                      QKeySequence(QStringLiteral("Ctrl+%1").arg(i + 1)), this,
                      [this, i] { goTo(static_cast<Stage>(i)); });
    go->addSeparator();
    go->addAction(tr("Next curve that needs a look"), QKeySequence("F8"), this,
                  [this] { m_session.selectNextNeedingLook(); });
    go->addAction(tr("Studies of this project"), QKeySequence("Ctrl+G"), this, &MainWindow::showStudies);
}

void MainWindow::makeRigMenu() {
    auto* rigs = menuBar()->addMenu(tr("&Rig"));
    rigs->addAction(tr("&Practise on the virtual bench"), this, &MainWindow::practise);
    rigs->addAction(tr("&Disconnect"), this, [this] { m_session.rig().disconnectRig(); });
    rigs->addAction(tr("Who &pulls…"), this, [this] {
        bool ok = false;
        const auto name = QInputDialog::getText(this, tr("Who pulls"), tr("Name, kept with every pull"),
                                                QLineEdit::Normal, preferences::operatorName(), &ok);
        if (ok) preferences::setOperatorName(name.simplified());
    });
    auto* remote = rigs->addAction(tr("Allow rigs on &other machines"), this,
                                   [](bool on) { preferences::setOtherMachines(on); });
    remote->setCheckable(true);
    remote->setChecked(preferences::otherMachines());
}

/// Help for what is on show.
void MainWindow::openHelp() {
    if (!m_help) m_help = new HelpWindow(this);
    static constexpr const char* ofStage[] = {"question", "specimens", "rig",   "pull",
                                              "curves",   "verdict",   "report"};
    static_assert(std::size(ofStage) == stageCount);
    const auto* shown = m_pages->currentWidget();
    m_help->show(shown == m_body    ? QString::fromLatin1(ofStage[static_cast<std::size_t>(m_stage)])
                 : shown == m_start ? QStringLiteral("first-steps")
                                    : QStringLiteral("question"));
}

void MainWindow::setAppearance(int appearance) {
    preferences::setAppearance(appearance);
    applyTheme(*qobject_cast<QApplication*>(QApplication::instance()), static_cast<Appearance>(appearance));
    for (auto* w : findChildren<QWidget*>())
        w->update();
}

void MainWindow::refreshRecent() {
    m_recent->clear();
    for (const auto& recent : preferences::recent())
        if (QFileInfo::exists(recent.path))
            m_recent->addAction(recent.path, this, [this, path = recent.path] { openPath(path); });
    if (m_recent->isEmpty())
        m_recent->addAction(tr("None yet"), this,
                            [this] { m_session.say(tr("Projects you open are listed here.")); });
}

} // namespace anvil::app
