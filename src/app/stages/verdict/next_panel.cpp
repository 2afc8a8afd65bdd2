#include "stages/verdict/next_panel.h"

#include "theme/theme.h"
#include <QHBoxLayout>
#include <QListWidget>
#include <QPushButton>
#include <anvil/plan/follow_ups.h>

namespace anvil::app {

NextPanel::NextPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    m_list = new QListWidget;
    m_list->setObjectName("followUps");
    m_list->setWordWrap(true);
    layout->addWidget(m_list, 1);
    m_buttons = new QWidget;
    auto* row = new QHBoxLayout(m_buttons);
    row->setContentsMargins(8, 2, 8, 8);
    auto* here = new QPushButton(icon("plus"), tr("Plan it in this study"));
    here->setObjectName("planHere");
    auto* apart = new QPushButton(tr("Make it a study of its own"));
    apart->setObjectName("planApart");
    row->addWidget(here);
    row->addWidget(apart);
    row->addStretch();
    layout->addWidget(m_buttons);
    connect(m_list, &QListWidget::itemActivated, this, &NextPanel::planHere);
    connect(here, &QPushButton::clicked, this, &NextPanel::planHere);
    connect(apart, &QPushButton::clicked, this, &NextPanel::planApart);
}

void NextPanel::show(std::vector<plan::FollowUp> followUps) {
    const int row = std::max(0, m_list->currentRow());
    m_followUps = std::move(followUps);
    m_list->clear();
    for (const auto& f : m_followUps)
        m_list->addItem(qs(f.sentence));
    m_buttons->setVisible(!m_followUps.empty());
    if (m_followUps.empty())
        m_list->addItem(tr("Nothing is too close to call; more pulls would only sharpen what is known."));
    m_list->setCurrentRow(std::min(row, m_list->count() - 1));
}

const plan::FollowUp* NextPanel::chosen() {
    const auto row = static_cast<std::size_t>(std::max(0, m_list->currentRow()));
    return row < m_followUps.size() ? &m_followUps[row] : nullptr;
}

void NextPanel::planHere() {
    const auto* f = chosen();
    if (!f || !m_session.tell(m_session.project()->planMore(m_session.studyId(), f->squares, f->more)))
        return;
    m_session.say(tr("Planned. Make the pieces in Specimens."));
    m_session.go(Stage::specimens);
}

void NextPanel::planApart() {
    const auto* f = chosen();
    const auto* data = m_session.study();
    if (!f || !data) return;
    const auto made = m_session.project()->followUpStudy(
        m_session.studyId(), tr("Follow-up of %1").arg(qs(data->study.title)), f->squares, f->more);
    if (!m_session.tell(made)) return;
    m_session.showStudy(*made);
    m_session.say(tr("A study of its own. Check the plan, then make the pieces in Specimens."));
    m_session.go(Stage::question);
}

} // namespace anvil::app
