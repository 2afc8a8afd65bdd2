// The window: headline, stage strip, board, workspace, ledger and the bench line.
#pragma once

#include "shell/due_watch.h"
#include "shell/session.h"
#include <QMainWindow>
#include <anvil/chart/start_pictures.h>
#include <array>

class QActionGroup;
class QLabel;
class QMenu;
class QPushButton;
class QSplitter;
class QSystemTrayIcon;
class QStackedWidget;

namespace anvil::app {

class PlaceWatch;
class RigGuard;

class BenchLine;
class Board;
class CurvesStage;
class HelpWindow;
class ImportSheet;
class PlanPage;
class StartPage;
class Ledger;
class ReportStage;
class StageStrip;
class VerdictStage;

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(QWidget* parent = nullptr);
    ~MainWindow() override;

    Session& session() { return m_session; }
    RigGuard& guard() { return *m_guard; }
    Board* board() const { return m_board; }
    /// The stages; each is built when it is first wanted.
    CurvesStage* curves();
    VerdictStage* verdict();
    ReportStage* reportStage();
    StageStrip* strip() const { return m_strip; }
    QString messageText() const;
    BenchLine* bench() const { return m_bench; }

    bool openPath(const QString& path);
    /// Makes a project that nobody was asked a name for, named after its question; false and a message when
    /// it cannot be.
    bool createProject(const QString& question);
    /// Gives the open project another name or place, and goes on with it there.
    bool moveTo(const QString& path);
    void goTo(Stage stage);
    /// Opens the import sheet on these files; makes a project beside them when none is open.
    ImportSheet* importFiles(const QStringList& paths);
    /// The same with folders among them, which are gone through behind a dialog that can be cancelled.
    void importFolders(const QStringList& given);
    void importTable(const QString& path);
    void pasteTable();

protected:
    bool event(QEvent* event) override; ///< what a widget of the window has to say
    void closeEvent(QCloseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void importPackage(const QString& path);
    void exportPackage();
    void exportPackageTo(const QString& folder);

private:
    QWidget* built(Stage stage);
    QWidget* make(Stage stage);
    void chooseFiles();
    void makeBody();
    void fitBoard();
    void foldBoard();
    void showLedger(bool shown);
    void placeLedger();
    void connectSession();
    void makeMenus();
    void makeFileMenu();
    void makeEditMenu();
    void makeViewMenu();
    void makeGoMenu();
    void makeRigMenu();
    void showStart();
    void planNew();
    void takeStep(chart::FirstStep step);
    void openExample();
    void practise();
    void chooseProject();
    void chooseNewPlace();
    void showBody();
    void showInterrupted();
    /// Puts the open project first among those of lately, with what it says now.
    void keepRecent();
    void refresh();
    void refreshTitles();
    void refreshRecent();
    bool ensureProject(const QString& folder);
    void showStudies();
    void openHelp();
    void setAppearance(int appearance);

    Session m_session;
    DueWatch m_due{m_session};
    RigGuard* m_guard;
    PlaceWatch* m_place;
    QPushButton* m_headline;
    StageStrip* m_strip;
    Board* m_board;
    Ledger* m_ledger;
    QStackedWidget* m_stages;
    std::array<QWidget*, stageCount> m_built{};
    QWidget *m_body, *m_boardPanel, *m_ledgerPanel;
    QStackedWidget* m_pages; ///< the body, or what stands there before a project is open
    StartPage* m_start;
    PlanPage* m_plan = nullptr;
    HelpWindow* m_help = nullptr;
    QSplitter* m_splitter;
    Stage m_stage = Stage::question;
    int m_ledgerWidth = 0; ///< as it was drawn by hand
    int m_boardFold = 0;   ///< as in preferences::Layout
    BenchLine* m_bench;
    QLabel *m_message, *m_readOnly;
    QMenu* m_recent;
    QSystemTrayIcon* m_tray = nullptr;
    QAction *m_undo, *m_redo, *m_saveCopy, *m_move, *m_closeLedger;
};

} // namespace anvil::app
