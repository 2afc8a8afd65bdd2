// Question: what is done to what, how many of each, what counts, and beside it whether that is fair and will
// work; each of these has a page of the full size.
#pragma once

#include "widgets/panel.h"
#include <anvil/plan/advice.h>
#include <functional>
#include <map>

class QLabel;
class QPushButton;
class QStackedWidget;

namespace anvil::app {

class Advisor;
class FairnessPanel;
class PictureButton;
class PlanBoard;
class RunListPanel;

class QuestionStage : public Panel {
    Q_OBJECT
public:
    explicit QuestionStage(Session& session, QWidget* parent = nullptr);
    PlanBoard* board() const { return m_board; }
    /// Writes the run list for paper; false and a message when it cannot.
    bool writeRunList(const QString& path);
    /// Opens a page over the whole stage; Esc or the button above it leads back.
    void open(plan::Advice about);
    void openMethod();
    void back();

protected:
    void showEvent(QShowEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void fill() override;
    QWidget* makePlan();
    QLayout* makeHead();
    QLayout* makeNext();
    QWidget* panelFor(plan::Advice about);
    void openPage(int place, const QString& title, const std::function<QWidget*()>& make);
    void goOn();

    QLabel *m_sentence, *m_methodText, *m_hint, *m_pageTitle;
    QPushButton *m_start, *m_next;
    PictureButton* m_method;
    QLineEdit* m_question;
    QWidget *m_body, *m_page;
    QStackedWidget *m_stack, *m_pages;
    PlanBoard* m_board;
    Advisor* m_advisor;
    FairnessPanel* m_fairness = nullptr;
    RunListPanel* m_runList = nullptr;
    std::map<int, QWidget*> m_made; ///< pages, each made when it is first opened
};

} // namespace anvil::app
