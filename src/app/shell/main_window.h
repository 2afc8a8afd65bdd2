// The window: headline, stage strip, board, workspace, ledger and the bench line.
#pragma once

#include "shell/session.h"
#include <QMainWindow>

class QActionGroup;
class QLabel;
class QMenu;
class QPushButton;
class QSplitter;
class QSystemTrayIcon;
class QStackedWidget;

namespace anvil::app {

class BenchLine;
class Board;
class CurvesStage;
class ImportSheet;
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
    Board* board() const { return m_board; }
    CurvesStage* curves() const { return m_curves; }
    VerdictStage* verdict() const { return m_verdict; }
    ReportStage* reportStage() const { return m_report; }
    StageStrip* strip() const { return m_strip; }
    QString messageText() const;
    BenchLine* bench() const { return m_bench; }

    bool openPath(const QString& path);
    void goTo(Stage stage);
    /// Opens the import sheet on these files; makes a project beside them when none is open.
    ImportSheet* importFiles(const QStringList& paths);
    void importTable(const QString& path);
    void pasteTable();

protected:
    void closeEvent(QCloseEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void makeMenus();
    void newProject();
    void refresh();
    void refreshTitles();
    void remember(const QString& path);
    void refreshRecent();
    bool ensureProject(const QString& folder);
    void showStudies();
    void tellKeys();
    void setAppearance(int appearance);

    Session m_session;
    QPushButton* m_headline;
    StageStrip* m_strip;
    Board* m_board;
    QStackedWidget* m_stages;
    CurvesStage* m_curves;
    VerdictStage* m_verdict;
    ReportStage* m_report;
    QWidget *m_boardPanel, *m_ledgerPanel;
    QSplitter* m_splitter;
    BenchLine* m_bench;
    QLabel *m_message, *m_readOnly;
    QMenu* m_recent;
    QSystemTrayIcon* m_tray = nullptr;
    QAction *m_undo, *m_redo, *m_saveCopy;
    bool m_shown = false;
};

} // namespace anvil::app
