#include "shell/main_window.h"

#include "shell/bench_line.h"
#include "shell/board.h"
#include "shell/ledger.h"
#include "shell/place_watch.h"
#include "shell/preferences.h"
#include "shell/reading_progress.h"
#include "shell/rig_desk.h"
#include "shell/rig_guard.h"
#include "shell/stage_strip.h"
#include "shell/start_page.h"
#include "stages/curves/curves_stage.h"
#include "stages/pull/pull_stage.h"
#include "stages/question/question_stage.h"
#include "stages/report/report_stage.h"
#include "stages/rig/rig_stage.h"
#include "stages/specimens/specimens_stage.h"
#include "stages/verdict/verdict_stage.h"
#include "theme/theme.h"
#include "widgets/accessible.h"
#include "widgets/plain_text.h"
#include "widgets/say.h"
#include "widgets/undo_keys.h"
#include <QCloseEvent>
#include <QFileInfo>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QSplitter>
#include <QStackedWidget>
#include <QSystemTrayIcon>
#include <QVBoxLayout>
#include <anvil/project/board_commands.h>
#include <anvil/project/study_commands.h>

namespace anvil::app {
namespace {

constexpr int roomyWidth = 1600, besideWidth = 1200, ledgerPixels = 260;

/// Lets what does not fit be scrolled to.
QScrollArea* scrolling(QWidget* content) {
    auto* area = new QScrollArea;
    area->setWidget(content);
    area->setWidgetResizable(true);
    area->setFocusPolicy(Qt::NoFocus); // what is in it has the focus
    area->viewport()->setAutoFillBackground(false);
    content->setAutoFillBackground(false);
    return area;
}

QFrame* panel(QWidget* content) {
    auto* frame = new QFrame;
    auto* layout = new QVBoxLayout(frame);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* area = scrolling(content);
    area->setMinimumWidth(content->minimumWidth() + 4);
    area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    layout->addWidget(area);
    return frame;
}

} // namespace

MainWindow::MainWindow(QWidget* parent) : QMainWindow(parent) {
    setAcceptDrops(true);
    m_guard = new RigGuard(m_session, this);
    m_place = new PlaceWatch(m_session, this, [this](const QString& path) { return openPath(path); });
    m_session.setWaiting(
        [this](project::OpenProject& project, Id study) { return waitForReadings(this, project, study); });
    new UndoKeys(this);
    setMinimumSize(900, 600);
    resize(1280, 800);
    auto* central = new QWidget;
    auto* layout = new QVBoxLayout(central);
    layout->setContentsMargins(8, 4, 8, 4);
    layout->setSpacing(4);
    m_headline = new QPushButton;
    m_headline->setObjectName("headline");
    setTip(m_headline, tr("The studies of this project"));
    m_headline->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    layout->addWidget(m_headline);
    m_readOnly = plainLabel();
    m_readOnly->setObjectName("trouble");
    m_readOnly->setWordWrap(true);
    m_readOnly->hide();
    layout->addWidget(m_readOnly);
    m_strip = new StageStrip;
    m_strip->setObjectName("strip");
    layout->addWidget(m_strip);

    makeBody();
    m_pages = new QStackedWidget;
    m_pages->addWidget(m_body);
    m_pages->addWidget(m_start = new StartPage);
    layout->addWidget(m_pages, 1);
    auto* line = new QHBoxLayout;
    m_bench = new BenchLine(m_session);
    m_message = plainLabel();
    m_message->setObjectName("message");
    m_message->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_message->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    m_message->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    line->addWidget(m_bench);
    line->addWidget(m_message, 1);
    layout->addLayout(line);
    setCentralWidget(central);
    makeMenus();
    connectSession();
    const auto left = preferences::layout();
    if (!left.geometry.isEmpty()) restoreGeometry(left.geometry);
    m_ledgerWidth = left.ledgerWidth;
    m_boardFold = left.board;
    refreshTitles();
    refresh();
    showStart();
}

void MainWindow::makeBody() {
    m_body = new QWidget;
    auto* row = new QHBoxLayout(m_body);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(6);
    m_board = new Board(m_session);
    m_boardPanel = panel(m_board);
    m_boardPanel->setObjectName("boardPanel");
    row->addWidget(m_boardPanel);
    m_splitter = new QSplitter(Qt::Horizontal);
    row->addWidget(m_splitter, 1);
    m_stages = new QStackedWidget;
    m_stages->setMinimumWidth(520); // wide rows of one stage must not squeeze the board beside it
    auto* workspace = new QFrame;
    workspace->setObjectName("workspace");
    auto* inner = new QVBoxLayout(workspace);
    inner->setContentsMargins(0, 0, 0, 0);
    inner->addWidget(m_stages);
    m_splitter->addWidget(workspace);
    m_ledger = new Ledger(m_session);
    m_ledger->setMinimumWidth(grown(210));
    m_ledgerPanel = panel(m_ledger);
    m_ledgerPanel->setObjectName("ledgerPanel");
    m_splitter->addWidget(m_ledgerPanel);
    m_splitter->setStretchFactor(0, 1);
    m_splitter->setCollapsible(0, false);
    m_splitter->setHandleWidth(6);
    connect(m_splitter, &QSplitter::splitterMoved, this, [this] { m_ledgerWidth = m_ledgerPanel->width(); });
    m_ledgerPanel->hide();
}

/// The board is as wide as what it shows; a rail where the window is narrow, or by hand.
void MainWindow::fitBoard() {
    const bool rail = m_boardFold == 0 ? width() < grown(roomyWidth) : m_boardFold == 2;
    m_board->setRail(rail);
    const bool shown = m_session.project() && m_stage != Stage::question; // there it is edited in place
    m_boardPanel->setVisible(shown);
    m_boardPanel->setFixedWidth(std::min(m_board->wantedWidth() + 4, width() / 4));
}

void MainWindow::foldBoard() {
    m_boardFold = m_board->rail() ? 1 : 2;
    fitBoard();
}

/// A drawer: beside the workspace where there is room, over it where there is not.
void MainWindow::showLedger(bool shown) {
    m_ledgerPanel->setVisible(shown);
    m_closeLedger->setEnabled(shown);
    placeLedger();
}

void MainWindow::placeLedger() {
    const bool over = width() < grown(besideWidth);
    const int wide = m_ledgerWidth > 0 ? m_ledgerWidth : grown(ledgerPixels);
    const bool shown = m_ledgerPanel->isVisibleTo(this);
    if (over != (m_ledgerPanel->parentWidget() == m_body)) {
        if (over)
            m_ledgerPanel->setParent(m_body);
        else
            m_splitter->addWidget(m_ledgerPanel);
        m_ledgerPanel->setVisible(shown);
    }
    if (over) {
        m_ledgerPanel->setGeometry(m_body->width() - wide, 0, wide, m_body->height());
        m_ledgerPanel->raise();
    } else if (shown) {
        m_splitter->setSizes({m_splitter->width() - wide, wide});
    }
}

void MainWindow::connectSession() {
    connect(m_board, &Board::importWanted, this, &MainWindow::chooseFiles);
    connect(m_board, &Board::chosen, this, [this] { showLedger(true); });
    connect(m_ledger, &Ledger::closed, this, [this] { showLedger(false); });
    connect(m_strip, &StageStrip::chosen, this, &MainWindow::goTo);
    connect(m_headline, &QPushButton::clicked, this, &MainWindow::showStudies);
    connect(&m_session, &Session::stageWanted, this, &MainWindow::goTo);
    connect(&m_session, &Session::due, this, [this](const QString& text) {
        m_session.say(text);
        if (!QSystemTrayIcon::isSystemTrayAvailable()) return;
        if (!m_tray) {
            m_tray = new QSystemTrayIcon(icon("list"), this);
            m_tray->show();
        }
        m_tray->showMessage(tr("Jaunty Anvil"),
                            QString(text).replace('<', u'\u2039')); // some desktops take it for markup
    });
    connect(&m_session, &Session::projectWanted, this, &MainWindow::planNew);
    connect(m_start, &StartPage::wanted, this, &MainWindow::takeStep);
    connect(m_start, &StartPage::tableWanted, this, [this] { importTable(QString()); });
    connect(m_start, &StartPage::pasteWanted, this, &MainWindow::pasteTable);
    connect(m_start, &StartPage::openWanted, this, &MainWindow::chooseProject);
    connect(m_start, &StartPage::projectWanted, this, &MainWindow::openPath);
    connect(&m_session, &Session::changed, this, &MainWindow::refresh);
    connect(&m_session.rig(), &RigDesk::changed, this, &MainWindow::refresh);
    connect(&m_session, &Session::projectChanged, this, &MainWindow::refreshTitles);
    connect(&m_session, &Session::message, this, [this](const QString& text, bool problem) {
        m_message->setText(text);
        setTip(m_message, text);
        m_message->setStyleSheet(
            problem ? QStringLiteral("color: %1; font-weight: bold;").arg(theme().warn.name()) : QString());
    });
}

MainWindow::~MainWindow() = default;

QWidget* MainWindow::make(Stage stage) {
    switch (stage) {
    case Stage::question:
        return new QuestionStage(m_session);
    case Stage::specimens:
        return new SpecimensStage(m_session);
    case Stage::rig:
        return new RigStage(m_session);
    case Stage::pull: {
        auto* pull = new PullStage(m_session);
        connect(pull, &PullStage::importFilesWanted, this, &MainWindow::chooseFiles);
        connect(pull, &PullStage::importTableWanted, this, [this] { importTable(QString()); });
        connect(pull, &PullStage::pasteWanted, this, &MainWindow::pasteTable);
        return pull;
    }
    case Stage::curves: {
        auto* curves = new CurvesStage(m_session);
        connect(curves, &CurvesStage::importWanted, this, &MainWindow::chooseFiles);
        return curves;
    }
    case Stage::verdict: {
        auto* verdict = new VerdictStage(m_session);
        connect(verdict, &VerdictStage::importWanted, this, &MainWindow::chooseFiles);
        return verdict;
    }
    case Stage::report:
        return new ReportStage(m_session);
    }
    return new QWidget;
}

QWidget* MainWindow::built(Stage stage) {
    auto*& widget = m_built[static_cast<std::size_t>(stage)];
    if (!widget) {
        widget = make(stage);
        m_stages->addWidget(textScale() > 1 ? scrolling(widget) : widget);
    }
    nameByLabels(widget);
    return widget;
}

CurvesStage* MainWindow::curves() { return qobject_cast<CurvesStage*>(built(Stage::curves)); }
VerdictStage* MainWindow::verdict() { return qobject_cast<VerdictStage*>(built(Stage::verdict)); }
ReportStage* MainWindow::reportStage() { return qobject_cast<ReportStage*>(built(Stage::report)); }

QString MainWindow::messageText() const { return m_message->text(); }

void MainWindow::goTo(Stage stage) {
    showBody();
    auto* page = built(stage);
    while (page->parentWidget() != m_stages)
        page = page->parentWidget();
    m_stages->setCurrentWidget(page);
    m_stage = stage;
    if (stage != Stage::curves && stage != Stage::specimens) showLedger(false); // unless it is asked for
    fitBoard();
    m_strip->setCurrent(stage);
}

void MainWindow::refreshTitles() {
    const auto* project = m_session.project();
    setWindowTitle(project ? tr("%1 – Jaunty Anvil").arg(QFileInfo(project->file().path()).completeBaseName())
                           : tr("Jaunty Anvil"));
    m_readOnly->setVisible(project && project->file().readOnly());
    if (project) m_readOnly->setText(tr("Read only. %1").arg(project->file().readOnlyReason()));
}

void MainWindow::refresh() {
    fitBoard();
    // Without a rig there is nothing to read there.
    m_bench->setVisible(preferences::benchLine() && m_session.project() &&
                        (m_session.rig().inUse() || m_session.rig().setupId() != 0));
    const auto* data = m_session.study();
    const auto* project = m_session.project();
    m_headline->setText(!project ? tr("Drop logger files here, or open a project")
                        : !data
                            ? tr("No study yet: drop logger files here")
                            : qs(data->study.question.empty() ? data->study.title : data->study.question) +
                                  QStringLiteral("  \u25be"));
    m_undo->setText(project && project->canUndo() ? tr("Undo: %1").arg(project->undoText()) : tr("Undo"));
    m_redo->setText(project && project->canRedo() ? tr("Redo: %1").arg(project->redoText()) : tr("Redo"));
    std::array<QString, stageCount> progress;
    std::array<int, stageCount> alerts{};
    if (data) {
        const auto look = static_cast<int>(m_session.needingLook().size());
        const auto curves =
            std::count_if(data->pulls.begin(), data->pulls.end(), [](const auto& p) { return p.curve != 0; });
        progress[0] = tr("%1 × %2").arg(data->options.size()).arg(data->conditions.size());
        progress[1] =
            data->specimens.size() == 1 ? tr("1 piece") : tr("%1 pieces").arg(data->specimens.size());
        const auto link = m_session.rig().live().link;
        progress[2] = link == station::LinkState::connected   ? qs(m_session.rig().setup().name)
                      : link == station::LinkState::searching ? tr("looking for it")
                      : m_session.rig().setupId()             ? tr("not connected")
                                                              : tr("files only");
        progress[3] = tr("%1 of %2").arg(data->pulledPieces()).arg(data->specimens.size());
        progress[4] = look ? tr("%1 of %2 seen").arg(curves - look).arg(curves) : tr("%1 read").arg(curves);
        progress[5] = data->pulls.empty() ? QString() : tr("%1 options").arg(data->options.size());
        progress[6] = data->pulls.empty() ? QString() : tr("ready");
        alerts[4] = look;
    }
    m_strip->setNotes(progress, alerts);
}

void MainWindow::showStudies() {
    if (!m_session.project())
        return m_session.say(tr("Open a project first (Ctrl+O), or drop logger files on the window."));
    QMenu menu(this);
    menu.setObjectName("studies");
    for (const auto& s : m_session.project()->studies()) {
        const auto id = s.study.id;
        auto* action = menu.addAction(s.study.question.empty()
                                          ? qs(s.study.title)
                                          : tr("%1: %2").arg(qs(s.study.title), qs(s.study.question)),
                                      this, [this, id] { m_session.showStudy(id); });
        action->setCheckable(true);
        action->setChecked(id == m_session.studyId());
    }
    menu.addSeparator();
    menu.addAction(icon("plus"), tr("New study"), this, [this] {
        domain::Study s;
        s.title = "New study";
        s.position = static_cast<int>(m_session.project()->studies().size());
        if (const auto id = project::addStudy(*m_session.project(), s); m_session.tell(id)) {
            m_session.showStudy(*id);
            goTo(Stage::question);
        }
    });
    if (const auto* data = m_session.study())
        menu.addAction(
            icon("copy"), tr("New study like this one, in another condition…"), this,
            [this, title = qs(data->study.title), id = data->study.id] {
                bool ok = false;
                const auto condition = QInputDialog::getText(
                    this, tr("Start from an earlier study"),
                    tr("The same options and method. The new condition (empty: the same conditions):"),
                    QLineEdit::Normal, QString(), &ok);
                if (!ok) return;
                const auto made = project::startFrom(*m_session.project(), id,
                                                     condition.trimmed().isEmpty()
                                                         ? tr("%1, again").arg(title)
                                                         : tr("%1: %2").arg(title, condition.trimmed()),
                                                     condition);
                if (!m_session.tell(made)) return;
                m_session.showStudy(*made);
                goTo(Stage::question);
            });
    menu.addSeparator();
    menu.addAction(m_move);
    menu.exec(m_headline->mapToGlobal(QPoint(0, m_headline->height())));
}

void MainWindow::resizeEvent(QResizeEvent* event) {
    QMainWindow::resizeEvent(event);
    fitBoard();
    placeLedger();
}

bool MainWindow::event(QEvent* event) {
    if (event->type() != SayEvent::kind()) return QMainWindow::event(event);
    const auto* said = static_cast<SayEvent*>(event);
    m_session.say(said->text(), said->problem());
    return true;
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!m_guard->mayClose() || !m_place->look()) return event->ignore();
    keepRecent();
    preferences::setLayout({saveGeometry(), m_ledgerWidth, m_boardFold});
    if (auto* focus = focusWidget())
        focus->clearFocus(); // a note being typed is saved when it loses the focus
    QMainWindow::closeEvent(event);
}

} // namespace anvil::app
