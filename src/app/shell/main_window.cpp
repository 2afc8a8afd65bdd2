#include "shell/main_window.h"

#include "shell/bench_line.h"
#include "shell/board.h"
#include "shell/import_sheet.h"
#include "shell/ledger.h"
#include "shell/pictures_list.h"
#include "shell/rig_desk.h"
#include "shell/stage_strip.h"
#include "stages/curves/curves_stage.h"
#include "stages/pull/pull_stage.h"
#include "stages/question/question_stage.h"
#include "stages/report/report_stage.h"
#include "stages/rig/rig_stage.h"
#include "stages/specimens/specimens_stage.h"
#include "stages/verdict/verdict_stage.h"
#include "theme/theme.h"
#include "widgets/picture_view.h"
#include <QActionGroup>
#include <QApplication>
#include <QClipboard>
#include <QCloseEvent>
#include <QDir>
#include <QDragEnterEvent>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QSystemTrayIcon>
#include <QVBoxLayout>

namespace anvil::app {
namespace {

QFrame* panel(QWidget* content, bool scroll) {
    auto* frame = new QFrame;
    frame->setObjectName("panel");
    auto* layout = new QVBoxLayout(frame);
    layout->setContentsMargins(0, 0, 0, 0);
    if (!scroll) {
        layout->addWidget(content);
        return frame;
    }
    auto* area = new QScrollArea;
    area->setWidget(content);
    area->setWidgetResizable(true);
    area->setMinimumWidth(content->minimumWidth() + 4);
    area->viewport()->setAutoFillBackground(false);
    content->setAutoFillBackground(false);
    layout->addWidget(area);
    return frame;
}

} // namespace

MainWindow::MainWindow(QWidget* parent) : QMainWindow(parent) {
    setAcceptDrops(true);
    setMinimumSize(900, 600);
    resize(1280, 800);
    auto* central = new QWidget;
    auto* layout = new QVBoxLayout(central);
    layout->setContentsMargins(8, 4, 8, 4);
    layout->setSpacing(4);
    m_headline = new QPushButton;
    m_headline->setObjectName("headline");
    m_headline->setToolTip(tr("The studies of this project"));
    m_headline->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    layout->addWidget(m_headline);
    m_readOnly = new QLabel;
    m_readOnly->setObjectName("trouble");
    m_readOnly->setWordWrap(true);
    m_readOnly->hide();
    layout->addWidget(m_readOnly);
    m_strip = new StageStrip;
    layout->addWidget(m_strip);

    m_splitter = new QSplitter(Qt::Horizontal);
    m_board = new Board(m_session);
    m_splitter->addWidget(m_boardPanel = panel(m_board, true));
    m_stages = new QStackedWidget;
    m_stages->setMinimumWidth(520); // wide rows of one stage must not squeeze the board beside it
    auto* workspace = new QFrame;
    workspace->setObjectName("workspace");
    auto* inner = new QVBoxLayout(workspace);
    inner->setContentsMargins(0, 0, 0, 0);
    inner->addWidget(m_stages);
    m_splitter->addWidget(workspace);
    m_ledger = new Ledger(m_session);
    m_ledger->setMinimumWidth(210);
    m_ledgerPanel = panel(m_ledger, true);
    m_ledgerPanel->findChild<QScrollArea*>()->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_splitter->addWidget(m_ledgerPanel);
    m_splitter->setStretchFactor(1, 1);
    m_splitter->setCollapsible(1, false);
    m_splitter->setSizes({300, 700, 250});
    m_splitter->setHandleWidth(6);
    layout->addWidget(m_splitter, 1);

    auto* line = new QHBoxLayout;
    m_bench = new BenchLine(m_session);
    m_message = new QLabel;
    m_message->setObjectName("message");
    m_message->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_message->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    m_message->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    line->addWidget(m_bench);
    line->addWidget(m_message, 1);
    layout->addLayout(line);
    setCentralWidget(central);

    makeMenus();
    connect(m_board, &Board::importWanted, this, &MainWindow::chooseFiles);
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
        m_tray->showMessage(tr("Jaunty Anvil"), text);
    });
    connect(&m_session, &Session::projectWanted, this, &MainWindow::newProject);
    connect(&m_session, &Session::changed, this, &MainWindow::refresh);
    connect(&m_session.rig(), &RigDesk::changed, this, &MainWindow::refresh);
    connect(&m_session, &Session::projectChanged, this, &MainWindow::refreshTitles);
    connect(&m_session, &Session::message, this, [this](const QString& text, bool problem) {
        m_message->setText(text);
        m_message->setToolTip(text);
        m_message->setStyleSheet(
            problem ? QStringLiteral("color: %1; font-weight: bold;").arg(theme().warn.name()) : QString());
    });
    const QSettings settings;
    if (settings.contains("window/geometry")) {
        restoreGeometry(settings.value("window/geometry").toByteArray());
        m_splitter->restoreState(settings.value("window/splitter").toByteArray());
        m_ledgerPanel->setVisible(settings.value("window/ledger", true).toBool());
    }
    m_bench->setVisible(settings.value("window/bench", true).toBool());
    goTo(Stage::verdict);
    refreshTitles();
    refresh();
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
    if (!widget) m_stages->addWidget(widget = make(stage));
    return widget;
}

CurvesStage* MainWindow::curves() { return qobject_cast<CurvesStage*>(built(Stage::curves)); }
VerdictStage* MainWindow::verdict() { return qobject_cast<VerdictStage*>(built(Stage::verdict)); }
ReportStage* MainWindow::reportStage() { return qobject_cast<ReportStage*>(built(Stage::report)); }

void MainWindow::chooseFiles() {
    const auto paths = QFileDialog::getOpenFileNames(
        this, tr("Import logger files"), QSettings().value("folders/import").toString(),
        tr("Logger files (*.csv *.tsv *.txt *.log *.dat);;All files (*)"));
    if (paths.isEmpty()) return;
    QSettings().setValue("folders/import", QFileInfo(paths.first()).absolutePath());
    importFiles(paths);
}

QString MainWindow::messageText() const { return m_message->text(); }

void MainWindow::makeMenus() {
    auto* file = menuBar()->addMenu(tr("&File"));
    file->addAction(icon("file-plus"), tr("&New project…"), QKeySequence::New, this, &MainWindow::newProject);
    file->addAction(icon("folder-open"), tr("&Open project…"), QKeySequence::Open, this, [this] {
        const auto path = QFileDialog::getOpenFileName(this, tr("Open project"),
                                                       QSettings().value("folders/project").toString(),
                                                       tr("Projects (*.anvil)"));
        if (!path.isEmpty()) openPath(path);
    });
    m_recent = file->addMenu(tr("&Recent projects"));
    m_saveCopy = file->addAction(icon("copy"), tr("Save a &copy…"), this, [this] {
        if (!m_session.project()) return m_session.say(tr("Open a project first."), true);
        const auto path = QFileDialog::getSaveFileName(
            this, tr("Save a copy"), m_session.project()->file().path(), tr("Projects (*.anvil)"));
        if (!path.isEmpty() && m_session.tell(m_session.project()->file().saveCopy(path)))
            m_session.say(tr("The copy is in %1.").arg(path));
    });
    file->addSeparator();
    file->addAction(icon("import"), tr("&Import logger files…"), QKeySequence("Ctrl+I"), this,
                    [this] { emit m_board->importWanted(); });
    file->addAction(icon("list"), tr("Import a &table of results…"), QKeySequence("Ctrl+T"), this,
                    [this] { importTable(QString()); });
    file->addAction(icon("clipboard-paste"), tr("&Paste results"), QKeySequence("Ctrl+Shift+V"), this,
                    &MainWindow::pasteTable);
    file->addSeparator();
    file->addAction(tr("&Quit"), QKeySequence::Quit, this, &QWidget::close);

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

    auto* view = menuBar()->addMenu(tr("&View"));
    const QSettings settings;
    const auto units = [&](const QString& title, const QString& key, const QString& standard,
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
            action->setChecked(settings.value(key, standard).toString() == name);
            group->addAction(action);
        }
    };
    units(tr("&Force in"), "units/force", "N", {"N", "kN", "kgf", "lbf"});
    units(tr("&Length in"), "units/length", "mm", {"mm", "in"});
    auto* look = view->addMenu(tr("&Appearance"));
    auto* group = new QActionGroup(this);
    const QStringList names{tr("Light"), tr("Dark"), tr("Follow the desktop")};
    for (int i = 0; i < 3; ++i) {
        auto* action = look->addAction(names[i], this, [this, i] { setAppearance(i); });
        action->setCheckable(true);
        action->setChecked(settings.value("appearance", 2).toInt() == i);
        group->addAction(action);
    }
    auto* ledger =
        view->addAction(icon("panel-right"), tr("Fold or unfold the le&dger"), QKeySequence("Ctrl+L"), this,
                        [this] { m_ledgerPanel->setVisible(!m_ledgerPanel->isVisible()); });
    ledger->setObjectName("foldLedger");

    auto* bench = view->addAction(tr("Fold or unfold the &bench line"), QKeySequence("Ctrl+B"), this, [this] {
        m_bench->setVisible(!m_bench->isVisible());
        QSettings().setValue("window/bench", m_bench->isVisible());
    });
    bench->setObjectName("foldBench");

    auto* go = menuBar()->addMenu(tr("&Go"));
    for (int i = 0; i < stageCount; ++i)
        go->addAction(StageStrip::name(static_cast<Stage>(i)),
                      QKeySequence(QStringLiteral("Ctrl+%1").arg(i + 1)), this,
                      [this, i] { goTo(static_cast<Stage>(i)); });
    go->addSeparator();
    go->addAction(tr("Next curve that needs a look"), QKeySequence("F8"), this,
                  [this] { m_session.selectNextNeedingLook(); });
    go->addAction(tr("Studies of this project"), QKeySequence("Ctrl+G"), this, &MainWindow::showStudies);

    auto* rigs = menuBar()->addMenu(tr("&Rig"));
    rigs->addAction(tr("&Practise on the virtual bench"), this, [this] {
        if (m_session.rig().practise()) goTo(Stage::pull);
    });
    rigs->addAction(tr("&Disconnect"), this, [this] { m_session.rig().disconnectRig(); });
    rigs->addAction(tr("Who &pulls…"), this, [this] {
        bool ok = false;
        const auto name =
            QInputDialog::getText(this, tr("Who pulls"), tr("Name, kept with every pull"), QLineEdit::Normal,
                                  QSettings().value("rig/operator").toString(), &ok);
        if (ok) QSettings().setValue("rig/operator", name.simplified());
    });
    auto* remote = rigs->addAction(tr("Allow rigs on &other machines"), this,
                                   [](bool on) { QSettings().setValue("rig/remote", on); });
    remote->setCheckable(true);
    remote->setChecked(settings.value("rig/remote").toBool());

    auto* help = menuBar()->addMenu(tr("&Help"));
    help->addAction(icon("circle-help"), tr("Keys and first steps"), QKeySequence::HelpContents, this,
                    &MainWindow::tellKeys);
    refreshRecent();
}

void MainWindow::newProject() {
    auto path = QFileDialog::getSaveFileName(
        this, tr("New project"),
        QSettings().value("folders/project", QDir::homePath()).toString() + tr("/project.anvil"),
        tr("Projects (*.anvil)"));
    if (path.isEmpty()) return;
    if (!path.endsWith(".anvil")) path += ".anvil";
    if (m_session.create(path)) remember(path);
}

void MainWindow::tellKeys() {
    QMessageBox box(this);
    box.setWindowTitle(tr("Keys and first steps"));
    box.setText(tr("Drop logger files on the window, check the import sheet, read the verdict."));
    box.setInformativeText(
        tr("Ctrl+1 … Ctrl+7  the stages\nCtrl+I  import logger files\nCtrl+Shift+V  paste results from a "
           "spreadsheet\nF8  next curve that needs a look\n"
           "Ctrl+Z, Ctrl+Shift+Z  undo, redo\nCtrl+L  fold the ledger\nArrow keys on the board  walk through "
           "the pulls\nEnter on a number in the table  where it comes from\n"
           "On a curve: L chooses a landmark, left and right move it, Home shows all"));
    box.exec();
}

void MainWindow::setAppearance(int appearance) {
    QSettings().setValue("appearance", appearance);
    applyTheme(*qobject_cast<QApplication*>(QApplication::instance()), static_cast<Appearance>(appearance));
    for (auto* w : findChildren<QWidget*>())
        w->update();
}

void MainWindow::goTo(Stage stage) {
    m_stages->setCurrentWidget(built(stage));
    m_boardPanel->setVisible(stage !=
                             Stage::question); // there it grows over the workspace and is edited in place
    m_strip->setCurrent(stage);
}

bool MainWindow::openPath(const QString& path) {
    if (!m_session.open(path)) return false;
    remember(path);
    goTo(Stage::verdict);
    return true;
}

void MainWindow::remember(const QString& path) {
    QSettings settings;
    auto recent = settings.value("recent").toStringList();
    const auto full = QFileInfo(path).absoluteFilePath();
    recent.removeAll(full);
    recent.prepend(full);
    settings.setValue("recent", recent.mid(0, 8));
    settings.setValue("folders/project", QFileInfo(full).absolutePath());
    refreshRecent();
}

void MainWindow::refreshRecent() {
    m_recent->clear();
    for (const auto& path : QSettings().value("recent").toStringList())
        if (QFileInfo::exists(path)) m_recent->addAction(path, this, [this, path] { openPath(path); });
    if (m_recent->isEmpty())
        m_recent->addAction(tr("None yet"), this,
                            [this] { m_session.say(tr("Projects you open are listed here.")); });
}

void MainWindow::refreshTitles() {
    const auto* project = m_session.project();
    setWindowTitle(project ? tr("%1 – Jaunty Anvil").arg(QFileInfo(project->file().path()).completeBaseName())
                           : tr("Jaunty Anvil"));
    m_readOnly->setVisible(project && project->file().readOnly());
    if (project) m_readOnly->setText(tr("Read only. %1").arg(project->file().readOnlyReason()));
}

void MainWindow::refresh() {
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
        progress[2] = link == work::LinkState::connected   ? qs(m_session.rig().setup().name)
                      : link == work::LinkState::searching ? tr("looking for it")
                      : m_session.rig().setupId()          ? tr("not connected")
                                                           : tr("files only");
        progress[3] = tr("%1 of %2").arg(data->pulls.size()).arg(data->specimens.size());
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
    for (const auto& s : m_session.project()->studies()) {
        const auto id = s.study.id;
        auto* action = menu.addAction(tr("%1: %2").arg(qs(s.study.title), qs(s.study.question)), this,
                                      [this, id] { m_session.showStudy(id); });
        action->setCheckable(true);
        action->setChecked(id == m_session.studyId());
    }
    menu.addSeparator();
    menu.addAction(icon("plus"), tr("New study"), this, [this] {
        study::Study s;
        s.title = "New study";
        s.position = static_cast<int>(m_session.project()->studies().size());
        if (const auto id = m_session.project()->addStudy(s); m_session.tell(id)) {
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
                const auto made = m_session.project()->startFrom(
                    id,
                    condition.trimmed().isEmpty() ? tr("%1, again").arg(title)
                                                  : tr("%1: %2").arg(title, condition.trimmed()),
                    condition);
                if (!m_session.tell(made)) return;
                m_session.showStudy(*made);
                goTo(Stage::question);
            });
    menu.exec(m_headline->mapToGlobal(QPoint(0, m_headline->height())));
}

bool MainWindow::ensureProject(const QString& folder) {
    if (m_session.project()) return true;
    // Dropped on an empty window: the project is made beside the files, under a name that is free.
    QDir dir(folder.isEmpty() || !QFileInfo(folder).isWritable() ? QDir::homePath() : folder);
    QString path = dir.filePath(dir.dirName() + ".anvil");
    for (int n = 2; QFileInfo::exists(path); ++n)
        path = dir.filePath(QStringLiteral("%1-%2.anvil").arg(dir.dirName()).arg(n));
    if (!m_session.create(path)) return false;
    remember(path);
    return true;
}

ImportSheet* MainWindow::importFiles(const QStringList& paths) {
    if (!ensureProject(QFileInfo(paths.value(0)).absolutePath())) return nullptr;
    if (m_session.readOnly()) {
        m_session.say(m_session.project()->file().readOnlyReason(), true);
        return nullptr;
    }
    auto* sheet = new ImportSheet(m_session, paths, this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->setModal(true);
    connect(sheet, &QDialog::accepted, this, [this, sheet] {
        // The last study touched is the one imported into; a new one stands at the end.
        const auto& studies = m_session.project()->studies();
        if (!m_session.study() || m_session.study()->pulls.empty())
            m_session.showStudy(studies.back().study.id);
        const auto look = m_session.needingLook().size();
        goTo(Stage::verdict);
        m_session.say(
            look == 0
                ? tr("%1 runs imported. One undo (Ctrl+Z) takes them all back.").arg(sheet->importedPulls())
                : tr("%1 runs imported; %2 curves need a look (F8). One undo takes them all back.")
                      .arg(sheet->importedPulls())
                      .arg(look));
    });
    sheet->show();
    return sheet;
}

void MainWindow::importTable(const QString& given) {
    const auto path = given.isEmpty()
                          ? QFileDialog::getOpenFileName(this, tr("Import a table of results"),
                                                         QSettings().value("folders/import").toString(),
                                                         tr("Tables (*.csv *.tsv *.txt);;All files (*)"))
                          : given;
    QFile file(path);
    if (path.isEmpty() || !ensureProject(QFileInfo(path).absolutePath())) return;
    if (!file.open(QIODevice::ReadOnly))
        return m_session.say(tr("%1 cannot be read: %2.").arg(path, file.errorString()), true);
    auto* sheet = new ValuesSheet(m_session, file.readAll(), QFileInfo(path).fileName(), this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    connect(sheet, &QDialog::accepted, this, [this, sheet] {
        goTo(Stage::verdict);
        m_session.say(tr("%1 results imported.").arg(sheet->importedPulls()));
    });
    sheet->open();
}

void MainWindow::pasteTable() {
    const auto bytes = QApplication::clipboard()->text().toUtf8();
    // What cannot be read is explained by the sheet; a project is only made for what can.
    if (tables::readValues(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size()))) &&
        !ensureProject(QDir::homePath()))
        return;
    auto* sheet = new ValuesSheet(m_session, bytes, tr("pasted"), this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    connect(sheet, &QDialog::accepted, this, [this, sheet] {
        goTo(Stage::verdict);
        m_session.say(tr("%1 results imported.").arg(sheet->importedPulls()));
    });
    sheet->open();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    QStringList logs, pictures;
    for (const auto& url : event->mimeData()->urls()) {
        const QFileInfo info(url.toLocalFile());
        if (info.isDir())
            for (const auto& inside :
                 QDir(info.absoluteFilePath())
                     .entryInfoList({"*.csv", "*.tsv", "*.txt", "*.log", "*.dat"}, QDir::Files))
                logs << inside.absoluteFilePath();
        else if (info.suffix() == "anvil")
            return void(openPath(info.absoluteFilePath()));
        else if (info.isFile())
            (PicturesList::isPicture(info.fileName()) ? pictures : logs) << info.absoluteFilePath();
    }
    event->acceptProposedAction();
    if (!pictures.isEmpty()) m_ledger->pictures()->add(pictures);
    if (logs.isEmpty() && !pictures.isEmpty()) return;
    if (logs.isEmpty())
        m_session.say(tr("There is no logger file among what was dropped."), true);
    else
        importFiles(logs);
}

void MainWindow::showEvent(QShowEvent* event) {
    QMainWindow::showEvent(event);
    if (!m_shown && !QSettings().contains("window/splitter"))
        m_splitter->setSizes({width() * 23 / 100, width() * 56 / 100, width() * 20 / 100});
    m_shown = true;
}

void MainWindow::closeEvent(QCloseEvent* event) {
    QSettings settings;
    settings.setValue("window/geometry", saveGeometry());
    settings.setValue("window/splitter", m_splitter->saveState());
    settings.setValue("window/ledger", m_ledgerPanel->isVisible());
    if (auto* focus = focusWidget())
        focus->clearFocus(); // a note being typed is saved when it loses the focus
    QMainWindow::closeEvent(event);
}

} // namespace anvil::app
