// Question: what is asked, of which options, under which conditions, how many of each, and whether that is
// fair and will work.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QCheckBox;
class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QSpinBox;
class QTabWidget;
class QTableWidget;
class QVBoxLayout;

namespace anvil::app {

class PictureView;
class PlanBoard;

class QuestionStage : public QWidget {
    Q_OBJECT
public:
    explicit QuestionStage(Session& session, QWidget* parent = nullptr);
    PlanBoard* board() const { return m_board; }
    /// Writes the run list for paper; false and a message when it cannot.
    bool writeRunList(const QString& path);

protected:
    void showEvent(QShowEvent* event) override;

private:
    QWidget* makeFields();
    QWidget* makeHowMany();
    QWidget* makeHeadRoom();
    QWidget* makeFacts();
    QWidget* makeRunList();
    void refresh();
    void fillFairness();
    void fillHowMany();
    void fillHeadRoom();
    void fillFacts();
    void fillRunList();
    void factEdited(int row, int column);
    void pasteFacts();
    void saveForecast();
    void saveReach();
    void saveAxis();
    void saveStudy(const QString& field, const QJsonValue& value, const QString& what);
    double expectedCv(QString* from = nullptr) const;

    Session& m_session;
    bool m_filling = false, m_stale = true;
    QLabel *m_sentence, *m_totals, *m_spread, *m_square, *m_reachSentence, *m_order;
    QPushButton* m_start;
    QWidget* m_body;
    QLineEdit *m_axis, *m_title, *m_question, *m_limit, *m_cell, *m_ratio, *m_expected, *m_by, *m_goesFirst;
    QComboBox *m_metric, *m_intent, *m_control;
    QDoubleSpinBox *m_margin, *m_forecastSpread;
    PlanBoard* m_board;
    QTabWidget* m_tabs;
    QVBoxLayout* m_findings;
    QTableWidget *m_schools, *m_facts;
    PictureView *m_power, *m_bars;
    QSpinBox* m_seed;
    QCheckBox* m_group;
    QListWidget* m_runs;
};

} // namespace anvil::app
