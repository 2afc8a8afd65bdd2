#include "stages/question/question_stage.h"

#include "stages/question/advisor.h"
#include "stages/question/chain_panel.h"
#include "stages/question/facts_panel.h"
#include "stages/question/fairness_panel.h"
#include "stages/question/forecast_panel.h"
#include "stages/question/goal_sentence.h"
#include "stages/question/how_many_panel.h"
#include "stages/question/method_panel.h"
#include "stages/question/plan_board.h"
#include "stages/question/reach_panel.h"
#include "stages/question/run_list_panel.h"
#include "stages/question/safety_panel.h"
#include "theme/theme.h"
#include "widgets/accessible.h"
#include "widgets/edited.h"
#include "widgets/picture_button.h"
#include "widgets/plain_text.h"
#include "widgets/scrolled.h"
#include <QKeyEvent>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <anvil/chart/method_card.h>
#include <anvil/methods/method.h>
#include <anvil/plan/fairness.h>
#include <anvil/plan/replication.h>
#include <anvil/project/plan_commands.h>

namespace anvil::app {

namespace {

constexpr int advisorWidth = 290, methodWidth = 150, methodPage = plan::adviceCount;

/// The same with room for the bar beside it.
QScrollArea* scrolledPage(QWidget* panel) {
    panel->setContentsMargins(0, 0, 8, 0);
    return scrolled(panel);
}

} // namespace

QuestionStage::QuestionStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    m_sentence = wrappedLabel("sentence");
    layout->addWidget(m_sentence);
    m_start = new QPushButton(icon("file-plus", true), tr("Plan a test"));
    m_start->setObjectName("primary");
    m_start->setMinimumHeight(grown(36));
    layout->addWidget(m_start, 0, Qt::AlignLeft);
    connect(m_start, &QPushButton::clicked, &session, &Session::projectWanted);
    m_stack = new QStackedWidget;
    layout->addWidget(m_stack, 1);
    m_body = makePlan();
    m_stack->addWidget(m_body);
    m_page = new QWidget;
    auto* page = new QVBoxLayout(m_page);
    page->setContentsMargins(0, 0, 0, 0);
    auto* head = new QHBoxLayout;
    auto* back = new QPushButton(tr("\u2039 The plan"));
    setTip(back, tr("Esc"));
    connect(back, &QPushButton::clicked, this, &QuestionStage::back);
    head->addWidget(back);
    m_pageTitle = plainLabel();
    m_pageTitle->setObjectName("pageHead");
    head->addSpacing(8);
    head->addWidget(m_pageTitle, 1);
    page->addLayout(head);
    m_pages = new QStackedWidget;
    page->addWidget(m_pages, 1);
    m_stack->addWidget(m_page);
    layout->addStretch();
    follow();
}

QWidget* QuestionStage::makePlan() {
    auto* body = new QWidget;
    auto* columns = new QHBoxLayout(body);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(16);
    auto* plan = new QWidget;
    auto* left = new QVBoxLayout(plan);
    left->setContentsMargins(0, 0, 0, 0);
    left->setSpacing(8);
    left->addLayout(makeHead());
    m_board = new PlanBoard(m_session);
    left->addWidget(m_board, 0);
    m_hint = wrappedLabel("faint");
    m_hint->setText(
        tr("Type in the margins and squares; drag a square's grip to change its number; X strikes it "
           "out; Alt with the arrow keys reorders."));
    left->addWidget(m_hint);
    left->addWidget(new GoalSentence(m_session));
    left->addLayout(makeNext());
    left->addStretch(1);
    auto* area = scrolledPage(plan); // many options: the page scrolls
    area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    columns->addWidget(area, 1);
    m_advisor = new Advisor(m_session);
    m_advisor->setFixedWidth(grown(advisorWidth));
    auto* side = scrolledPage(m_advisor);
    side->setFixedWidth(grown(advisorWidth + 16));
    side->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    columns->addWidget(side);
    connect(m_advisor, &Advisor::opened, this, &QuestionStage::open);
    return body;
}

/// What is asked, and what is done to the pieces.
QLayout* QuestionStage::makeHead() {
    auto* row = new QHBoxLayout;
    row->setSpacing(12);
    m_method = new PictureButton({}, {});
    m_method->setScale(0.6);
    m_method->setFixedWidth(grown(methodWidth));
    m_method->setObjectName("chooseMethod");
    setTip(m_method, tr("How the pieces are tested, and what is the same for all of them"));
    row->addWidget(m_method, 0, Qt::AlignTop);
    auto* words = new QVBoxLayout;
    words->setSpacing(4);
    m_question = field("studyQuestion", tr("such as: which fitting holds best after a season of salt?"));
    m_question->setAccessibleName(tr("The question"));
    words->addWidget(m_question);
    m_methodText = wrappedLabel("faint");
    words->addWidget(m_methodText);
    words->addStretch();
    row->addLayout(words, 1);
    connect(m_method, &QAbstractButton::clicked, this, &QuestionStage::openMethod);
    whenEdited(m_question, this, [this] {
        if (filling() || !m_session.study()) return;
        m_session.tell(
            m_session.project()->changeStudy(m_session.studyId(), tr("The question"), [&](domain::Study& s) {
                s.question = m_question->text().trimmed().toStdString();
            }));
    });
    return row;
}

QLayout* QuestionStage::makeNext() {
    auto* row = new QHBoxLayout;
    m_next = new QPushButton;
    m_next->setObjectName("primary");
    m_next->setMinimumHeight(grown(34));
    row->addWidget(m_next);
    row->addStretch();
    connect(m_next, &QPushButton::clicked, this, &QuestionStage::goOn);
    return row;
}

/// The one thing that comes next: make what is planned, else pull what is made, else read what was pulled.
void QuestionStage::goOn() {
    const auto* data = m_session.study();
    if (!data) return;
    const auto missing = domain::missingPieces(*data).size();
    if (missing == 0)
        return m_session.go(data->pulls.size() < data->specimens.size() ? Stage::pull : Stage::verdict);
    const auto made = project::makePieces(*m_session.project(), m_session.studyId(), QString());
    if (!m_session.tell(made)) return;
    m_session.say(tr("%1 pieces made. Their labels are never used again.").arg(*made));
    m_session.go(Stage::specimens);
}

QWidget* QuestionStage::panelFor(plan::Advice about) {
    switch (about) {
    case plan::Advice::fair:
        m_fairness = new FairnessPanel(m_session);
        return m_fairness;
    case plan::Advice::enough:
        return new HowManyPanel(m_session);
    case plan::Advice::reach:
        return new ReachPanel(m_session);
    case plan::Advice::weakest:
        return new ChainPanel(m_session);
    case plan::Advice::forecasts:
        return new ForecastPanel(m_session);
    case plan::Advice::order:
        return m_runList = new RunListPanel(m_session);
    case plan::Advice::facts:
        return new FactsPanel(m_session);
    case plan::Advice::safety:
        return new SafetyPanel(m_session);
    }
    return new QWidget;
}

void QuestionStage::openPage(int place, const QString& title, const std::function<QWidget*()>& make) {
    auto*& page = m_made[place];
    if (!page) {
        m_pages->addWidget(page = scrolledPage(make()));
        nameByLabels(page);
    }
    m_pages->setCurrentWidget(page);
    m_pageTitle->setText(title);
    m_stack->setCurrentWidget(m_page);
    mark();
    page->setFocus();
}

void QuestionStage::open(plan::Advice about) {
    openPage(static_cast<int>(about), qs(plan::title(about)), [&] { return panelFor(about); });
}

void QuestionStage::openMethod() {
    openPage(methodPage, tr("What do you do to it?"), [&] { return new MethodPanel(m_session); });
}

void QuestionStage::back() {
    m_stack->setCurrentWidget(m_body);
    m_board->setFocus();
}

void QuestionStage::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && m_stack->currentWidget() == m_page) return back();
    Panel::keyPressEvent(event);
}

void QuestionStage::showEvent(QShowEvent* event) {
    Panel::showEvent(event);
    m_board->focusNext();
    m_board->setFocus();
}

void QuestionStage::fill() {
    const auto* data = m_session.study();
    m_start->setVisible(!m_session.project());
    m_stack->setVisible(m_session.project());
    m_body->setEnabled(!m_session.readOnly());
    m_pages->setEnabled(!m_session.readOnly());
    const bool planned = data && plan::totals(*data).replicates > 0;
    m_sentence->setText(
        !m_session.project()
            ? tr("Say what you want to find out, what you compare, and under which conditions.")
        : !data || data->options.empty() ? tr("Type the options down the margin, or paste a column of names.")
        : data->conditions.empty()       ? tr("Now type the conditions along the top; one will do.")
                                         : tr("Type in a square how many of each you will pull."));
    m_sentence->setVisible(!planned && m_stack->currentWidget() == m_body);
    m_question->setText(data ? qs(data->study.question) : QString());
    if (!m_question->hasFocus()) m_question->setCursorPosition(0);
    const auto* method = data ? methods::find(data->study.plan.method) : nullptr;
    m_method->show(method ? chart::methodCard(*method) : chart::Picture{},
                   method ? tr("%1 \u25be").arg(qs(method->title)) : tr("What do you do to it? \u25be"));
    m_methodText->setText(method ? tr("It tells: %1").arg(qs(method->measures))
                                 : tr("The method says what is measured and what can hurt."));
    m_hint->setVisible(data && data->pulls.empty());
    const auto missing = data ? static_cast<int>(domain::missingPieces(*data).size()) : 0;
    m_next->setVisible(planned);
    m_next->setText(missing > 0                                           ? tr("Make %1 pieces").arg(missing)
                    : data && data->pulls.size() < data->specimens.size() ? tr("Go and pull")
                                                                          : tr("Read the verdict"));
    if (m_fairness)
        m_fairness->show(data ? plan::fairness(*data, m_session.readings()) : std::vector<plan::Finding>{});
}

bool QuestionStage::writeRunList(const QString& path) {
    if (!m_runList) open(plan::Advice::order);
    return m_runList->write(path);
}

} // namespace anvil::app
