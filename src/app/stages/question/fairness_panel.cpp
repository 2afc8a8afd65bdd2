#include "stages/question/fairness_panel.h"

#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <anvil/plan/fairness.h>
#include <anvil/project/plan_commands.h>

namespace anvil::app {

FairnessPanel::FairnessPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* rows = new QWidget;
    m_rows = new QVBoxLayout(rows);
    m_rows->setContentsMargins(8, 6, 8, 6);
    auto* scroll = new QScrollArea;
    scroll->setWidget(rows);
    scroll->setWidgetResizable(true);
    scroll->viewport()->setAutoFillBackground(false);
    rows->setAutoFillBackground(false);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(scroll);
}

void FairnessPanel::show(const std::vector<plan::Finding>& findings) {
    while (auto* item = m_rows->takeAt(0)) {
        if (auto* w = item->widget()) w->deleteLater();
        delete item;
    }
    for (const auto& f : findings)
        m_rows->addWidget(row(f));
    const auto* data = m_session.study();
    if (findings.empty())
        m_rows->addWidget(
            plainLabel(data && !data->options.empty()
                           ? tr("Nothing stands in the way of a fair comparison.")
                           : tr("What would make the comparison unfair shows here as you plan.")));
    m_rows->addStretch();
}

QWidget* FairnessPanel::row(const plan::Finding& f) {
    auto* holder = new QWidget;
    auto* line = new QHBoxLayout(holder);
    line->setContentsMargins(0, 2, 0, 2);
    auto* text = wrappedLabel(f.accepted ? "faint" : "finding");
    text->setText((f.accepted ? QStringLiteral("\u2713 ") : QStringLiteral("\u26a0 ")) + qs(f.sentence) +
                  (f.accepted ? tr(" Accepted, because %1.").arg(qs(f.why)) : QString()));
    line->addWidget(text, 1);
    const auto rule = f.rule;
    if (f.accepted) {
        auto* again = new QPushButton(tr("Ask again"));
        connect(again, &QPushButton::clicked, this, [this, rule] {
            m_session.tell(
                project::acceptFinding(*m_session.project(), m_session.studyId(), rule, QString()));
        });
        line->addWidget(again);
        return holder;
    }
    if (!f.remedy.empty()) {
        auto* remedy = new QPushButton(qs(f.remedy));
        remedy->setObjectName("remedy-" + qs(rule));
        connect(remedy, &QPushButton::clicked, this, [this, rule] {
            m_session.tell(project::applyRemedy(*m_session.project(), m_session.studyId(), rule));
        });
        line->addWidget(remedy);
    }
    auto* why = new QLineEdit;
    why->setObjectName("accept-" + qs(rule));
    why->setPlaceholderText(tr("accept, because …"));
    why->setFixedWidth(grown(160));
    setTip(why, tr("Type a reason and press Enter; it goes into the report"));
    connect(why, &QLineEdit::returnPressed, this, [this, rule, why] {
        if (why->text().trimmed().isEmpty())
            return m_session.say(tr("Say why it is acceptable; the reason goes into the report."), true);
        m_session.tell(project::acceptFinding(*m_session.project(), m_session.studyId(), rule, why->text()));
    });
    line->addWidget(why);
    return holder;
}

} // namespace anvil::app
