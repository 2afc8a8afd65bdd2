#include "stages/question/question_stage.h"

#include "stages/question/chain_panel.h"
#include "stages/question/facts_panel.h"
#include "stages/question/fairness_panel.h"
#include "stages/question/forecast_panel.h"
#include "stages/question/how_many_panel.h"
#include "stages/question/method_panel.h"
#include "stages/question/plan_board.h"
#include "stages/question/reach_panel.h"
#include "stages/question/run_list_panel.h"
#include "stages/question/safety_panel.h"
#include "stages/question/study_fields.h"
#include "theme/theme.h"
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QSplitter>
#include <QTabWidget>
#include <QVBoxLayout>
#include <anvil/plan/fairness.h>
#include <anvil/plan/pieces.h>
#include <anvil/plan/replication.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

namespace {

/// A tab that gives way to the plan: what does not fit scrolls.
QScrollArea* scrolled(QWidget* panel) {
    auto* area = new QScrollArea;
    area->setWidget(panel);
    area->setWidgetResizable(true);
    area->setFrameShape(QFrame::NoFrame);
    area->viewport()->setAutoFillBackground(false);
    panel->setAutoFillBackground(false);
    return area;
}

} // namespace

QuestionStage::QuestionStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    m_sentence = wrappedLabel("sentence");
    layout->addWidget(m_sentence);
    m_start = new QPushButton(icon("file-plus", true), tr("Start a project…"));
    m_start->setObjectName("primary");
    m_start->setMinimumHeight(36);
    layout->addWidget(m_start, 0, Qt::AlignLeft);
    connect(m_start, &QPushButton::clicked, &session, &Session::projectWanted);
    m_body = new QWidget;
    auto* body = new QVBoxLayout(m_body);
    body->setContentsMargins(0, 0, 0, 0);
    body->addWidget(new StudyFields(session));
    auto* split = new QSplitter(Qt::Vertical);
    auto* upper = new QWidget;
    auto* above = new QVBoxLayout(upper);
    above->setContentsMargins(0, 0, 0, 0);
    m_board = new PlanBoard(session);
    above->addWidget(m_board, 1);
    m_totals = wrappedLabel("totals");
    above->addWidget(m_totals);
    split->addWidget(upper);
    m_tabs = new QTabWidget;
    m_tabs->setObjectName("planTabs");
    m_tabs->addTab(scrolled(m_fairness = new FairnessPanel(session)), tr("Is it fair?"));
    m_tabs->addTab(scrolled(new HowManyPanel(session)), tr("How many?"));
    m_tabs->addTab(scrolled(new ReachPanel(session)), tr("Does it reach?"));
    m_tabs->addTab(scrolled(new ForecastPanel(session)), tr("Forecasts"));
    m_tabs->addTab(scrolled(new ChainPanel(session)), tr("Weakest link"));
    m_tabs->addTab(scrolled(new FactsPanel(session)), tr("Facts"));
    m_tabs->addTab(scrolled(m_runList = new RunListPanel(session)), tr("Run list"));
    m_tabs->addTab(scrolled(new MethodPanel(session)), tr("Method"));
    m_tabs->addTab(scrolled(new SafetyPanel(session)), tr("Safety"));
    split->addWidget(m_tabs);
    split->setStretchFactor(0, 0); // the board needs no more than its rows
    split->setStretchFactor(1, 1);
    split->setChildrenCollapsible(false);
    body->addWidget(split, 1);
    layout->addWidget(m_body, 1);
    layout->addStretch();
    follow();
}

void QuestionStage::showEvent(QShowEvent* event) {
    Panel::showEvent(event);
    m_board->focusNext();
    m_board->setFocus();
}

QString QuestionStage::totalsText() const {
    const auto* data = m_session.study();
    const auto t = data ? plan::totals(*data) : plan::PlanTotals{};
    if (t.replicates == 0)
        return tr("X strikes a square out; Alt with the arrow keys or dragging in the margin reorders.");
    QString text = tr("%1 pieces in %2 squares").arg(t.replicates).arg(t.squares);
    if (t.cost) text += tr(", %1 %2").arg(qs(quantity::fixed(*t.cost, 2)), qs(t.currency));
    if (t.pulling > 0) text += tr(", %1 of pulling").arg(qs(plan::stretch(t.pulling)));
    if (t.pulled) text += tr("; %1 pulled").arg(t.pulled);
    return text + tr(".  Drag a square by its grip to change its number; X strikes it out.");
}

void QuestionStage::fill() {
    const auto* data = m_session.study();
    m_start->setVisible(!m_session.project());
    m_body->setVisible(m_session.project());
    m_body->setEnabled(!m_session.readOnly());
    m_sentence->setText(
        !m_session.project()
            ? tr("Say what you want to find out, what you compare, and under which conditions.")
        : !data || data->options.empty() ? tr("Type the options down the margin, or paste a column of names.")
        : data->conditions.empty()       ? tr("Now type the conditions along the top; one will do.")
        : plan::totals(*data).replicates == 0
            ? tr("Type in a square how many of each you will pull.")
            : tr("The plan stands. Below: is it fair, is it enough, will the rig reach?"));
    m_totals->setText(totalsText());
    const auto findings = data ? plan::fairness(*data, m_session.readings()) : std::vector<plan::Finding>{};
    m_fairness->show(findings);
    const auto open =
        std::count_if(findings.begin(), findings.end(), [](const auto& f) { return !f.accepted; });
    m_tabs->setTabText(0, open ? tr("Is it fair? (%1)").arg(open) : tr("Is it fair?"));
}

bool QuestionStage::writeRunList(const QString& path) { return m_runList->write(path); }

} // namespace anvil::app
