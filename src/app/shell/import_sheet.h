// The import sheet: one row a run with its small curve, peak, option, condition, replicate and remark.
#pragma once

#include "shell/session.h"
#include <QDialog>
#include <QFutureWatcher>
#include <anvil/project/import.h>
#include <atomic>

class QComboBox;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QStringListModel;
class QTableWidget;
class QVBoxLayout;

namespace anvil::app {

class ImportSheet : public QDialog {
    Q_OBJECT
public:
    enum Columns {
        includeColumn,
        curveColumn,
        fileColumn,
        peakColumn,
        optionColumn,
        conditionColumn,
        replicateColumn,
        pieceColumn,
        remarkColumn,
        columnCount
    };
    ImportSheet(Session& session, const QStringList& paths, QWidget* parent = nullptr);
    ~ImportSheet() override;
    const project::ImportPlan& plan() const { return m_plan; }
    bool looking() const { return m_watcher.isRunning(); }
    bool writing() const { return m_given != nullptr; }
    int importedPulls() const { return m_imported; }
    /// Cancel, Esc and the window's own button: what is being looked at or written is given up first.
    void reject() override;

private:
    QWidget* makeAsk(const QString& text, const QStringList& units, QComboBox*& box, const char* name);
    void makeAsks(QVBoxLayout* layout);
    void makeTarget(QVBoxLayout* rows);
    void makeColumnAsks();
    void makeStudies();
    void makeTable(QVBoxLayout* layout);
    void makeFoot(QVBoxLayout* layout);
    /// The study that the files go into; without an id: a new one.
    domain::StudyData target() const;
    void look();
    void written();
    void setWriting(bool on);
    void looked();
    void fill();
    void summarise();
    /// The words of the first name, and what each of them is.
    void showNames();
    void namesChosen();
    void showRowMenu(const QPoint& at);
    void showInTheirUnit();
    void edited(int row, int column);
    /// The piece of a row: the waiting one, or a new one instead.
    void turnPiece(int row);
    void import();

    Session& m_session;
    QStringList m_paths;
    project::ImportChoices m_choices;
    project::ImportPlan m_plan;
    /// What is being written: the plan as it was when Import was pressed. The sheet has none meanwhile, so
    /// that nothing can change it.
    std::shared_ptr<project::ImportPlan> m_given;
    QFutureWatcher<project::ImportPlan> m_watcher;
    QFutureWatcher<Expected<project::Imported>> m_writing;
    std::atomic<bool> m_stop{false};
    std::atomic<double> m_progressShare{0};
    bool m_filling = false, m_again = false;
    bool m_written = true; ///< what was written has been taken over; the watcher is done before that
    int m_imported = 0;
    QLabel *m_summary, *m_trouble, *m_pattern;
    QWidget* m_words;
    std::vector<QComboBox*> m_wordBoxes;
    QWidget *m_asks, *m_forceAsk, *m_lengthAsk, *m_timeAsk, *m_decimalAsk, *m_readAsk, *m_columnAsk;
    QComboBox *m_forceUnit, *m_lengthUnit, *m_timeUnit, *m_decimal, *m_readAt, *m_study;
    QLineEdit *m_limit, *m_load, *m_time, *m_way, *m_sheet;
    QStringListModel* m_headings;
    QTableWidget* m_table;
    QProgressBar* m_bar;
    QPushButton *m_go, *m_cancel;
};

/// A table of single results, from a file or the clipboard, looked at before it goes in.
class ValuesSheet : public QDialog {
    Q_OBJECT
public:
    ValuesSheet(Session& session, const QByteArray& bytes, const QString& sourceName,
                QWidget* parent = nullptr);
    int importedPulls() const { return m_imported; }

private:
    void import();
    Session& m_session;
    QString m_source;
    std::optional<tables::ValueTable> m_tableData;
    int m_imported = 0;
    QComboBox* m_unit = nullptr;
    QPushButton* m_go = nullptr;
};

} // namespace anvil::app
