// Verdict: the strength ladder, the same numbers as a table, the sentences, and where each number comes from.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QLabel;
class QListWidget;
class QPushButton;
class QScrollArea;
class QSplitter;
class QTabWidget;
class QTableWidget;

namespace anvil::app {

class MetricBox;
class NextPanel;
class PictureView;

class VerdictStage : public QWidget {
    Q_OBJECT
public:
    explicit VerdictStage(Session& session, QWidget* parent = nullptr);
    PictureView* ladder() const { return m_ladder; }

signals:
    void importWanted();

protected:
    void showEvent(QShowEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void refresh();
    void fitLadder();
    void openTrail(int row, int column);
    domain::Metric metric() const;
    Session& m_session;
    bool m_stale = true, m_metricChosen = false;
    Id m_shownStudy = 0, m_fittedStudy = -1;
    MetricBox* m_metric;
    QLabel* m_headline;
    QPushButton *m_look, *m_import;
    PictureView* m_ladder;
    QScrollArea* m_ladderArea;
    QTabWidget* m_tabs;
    QWidget *m_choice, *m_first;
    QSplitter* m_split;
    QListWidget* m_sentences;
    NextPanel* m_next;
    QTableWidget* m_table;
};

} // namespace anvil::app
