#include "stages/question/safety_panel.h"

#include "widgets/plain_text.h"
#include <QEvent>
#include <QLabel>
#include <QPlainTextEdit>
#include <QScrollArea>
#include <QVBoxLayout>
#include <anvil/methods/method.h>
#include <anvil/project/plan_commands.h>

namespace anvil::app {

SafetyPanel::SafetyPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QHBoxLayout(this);
    auto* left = new QWidget;
    auto* card = new QVBoxLayout(left);
    m_card = wrappedLabel("safetyCard");
    card->addWidget(m_card);
    card->addStretch();
    auto* scroll = new QScrollArea;
    scroll->setWidget(left);
    scroll->setWidgetResizable(true);
    left->setAutoFillBackground(false);
    scroll->viewport()->setAutoFillBackground(false);
    layout->addWidget(scroll, 3);
    auto* right = new QVBoxLayout;
    auto* head = plainLabel(tr("Your own cautions, one a line"));
    head->setObjectName("section");
    right->addWidget(head);
    m_own = new QPlainTextEdit;
    m_own->setObjectName("ownCautions");
    m_own->setTabChangesFocus(true);
    m_own->installEventFilter(this);
    right->addWidget(m_own, 1);
    auto* hint = wrappedLabel("faint");
    hint->setText(
        tr("They are pinned to the study: shown at the rig and in the report, whatever the result."));
    right->addWidget(hint);
    layout->addLayout(right, 2);
    follow();
}

bool SafetyPanel::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_own && event->type() == QEvent::FocusOut) save();
    return QWidget::eventFilter(watched, event);
}

void SafetyPanel::save() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    std::vector<std::string> lines;
    for (const auto& l : m_own->toPlainText().split('\n', Qt::SkipEmptyParts))
        if (!l.simplified().isEmpty()) lines.push_back(l.simplified().toStdString());
    if (lines != data->study.plan.cautions)
        m_session.tell(project::changePlan(*m_session.project(), m_session.studyId(), tr("Own cautions"),
                                           [&](domain::Plan& p) { p.cautions = lines; }));
}

void SafetyPanel::fill() {
    const auto* data = m_session.study();
    const auto plan = data ? data->study.plan : domain::Plan{};
    QStringList card;
    for (const auto& c : domain::cautionsOf(data ? *data : domain::StudyData{}))
        card << QStringLiteral("\u26a0 ") + qs(c);
    m_card->setText(card.join("\n"));
    if (m_own->hasFocus()) return;
    QStringList own;
    for (const auto& c : plan.cautions)
        own << qs(c);
    m_own->setPlainText(own.join("\n"));
}

} // namespace anvil::app
