// Question: what is asked, of which options, under which conditions, how many of each, and whether that is
// fair and will work.
#pragma once

#include "widgets/panel.h"

class QLabel;
class QPushButton;
class QTabWidget;

namespace anvil::app {

class FairnessPanel;
class PlanBoard;
class RunListPanel;

class QuestionStage : public Panel {
    Q_OBJECT
public:
    explicit QuestionStage(Session& session, QWidget* parent = nullptr);
    PlanBoard* board() const { return m_board; }
    /// Writes the run list for paper; false and a message when it cannot.
    bool writeRunList(const QString& path);

protected:
    void showEvent(QShowEvent* event) override;

private:
    void fill() override;
    QString totalsText() const;

    QLabel *m_sentence, *m_totals;
    QPushButton* m_start;
    QWidget* m_body;
    PlanBoard* m_board;
    QTabWidget* m_tabs;
    FairnessPanel* m_fairness;
    RunListPanel* m_runList;
};

} // namespace anvil::app
