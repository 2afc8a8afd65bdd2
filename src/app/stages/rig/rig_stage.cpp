#include "stages/rig/rig_stage.h"

#include "stages/rig/calibration_panel.h"
#include "stages/rig/channels_panel.h"
#include "stages/rig/limits_panel.h"
#include "stages/rig/link_panel.h"
#include "stages/rig/path_panel.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTabWidget>
#include <anvil/methods/method.h>
#include <anvil/quantity/entry.h>
#include <anvil/work/pull_commands.h>
#include <set>

namespace anvil::app {

RigStage::RigStage(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(16, 14, 16, 14);
    m_sentence = wrappedLabel("sentence");
    m_sentence->setText(
        tr("Connect a rig, tell what it can do and how the load gets to the piece. Everything is kept "
           "with each pull."));
    layout->addWidget(m_sentence);
    m_tabs = new QTabWidget;
    m_tabs->setObjectName("rigTabs");
    m_tabs->addTab(new LinkPanel(session), tr("Connection"));
    m_tabs->addTab(new LimitsPanel(session), tr("Limits"));
    m_tabs->addTab(new PathPanel(session), tr("Load path"));
    m_tabs->addTab(new CalibrationPanel(session), tr("Calibration"));
    m_tabs->addTab(new ChannelsPanel(session), tr("More channels"));
    layout->addWidget(m_tabs, 3);
    m_imported = plainLabel(tr("Curves that were imported"));
    m_imported->setObjectName("section");
    layout->addWidget(m_imported);
    m_body = new QWidget;
    auto* row = new QHBoxLayout(m_body);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(plainLabel(tr("Rig limit")));
    m_limit = new QLineEdit;
    m_limit->setObjectName("rigLimit");
    m_limit->setPlaceholderText(tr("such as 5 kN or 500 kg"));
    m_limit->setMaximumWidth(220);
    row->addWidget(m_limit);
    auto* apply = new QPushButton(tr("Set for all curves of this study"));
    apply->setObjectName("applyRigLimit");
    row->addWidget(apply);
    row->addStretch();
    layout->addWidget(m_body);
    m_state = plainLabel();
    m_state->setWordWrap(true);
    layout->addWidget(m_state);
    m_card = wrappedLabel("safetyCard");
    auto* scroll = new QScrollArea;
    scroll->setWidget(m_card);
    scroll->setWidgetResizable(true);
    scroll->viewport()->setAutoFillBackground(false);
    m_card->setAutoFillBackground(false);
    layout->addWidget(scroll, 1);
    connect(apply, &QPushButton::clicked, this, &RigStage::apply);
    connect(m_limit, &QLineEdit::returnPressed, this, &RigStage::apply);
    connect(&session, &Session::changed, this, &RigStage::refresh);
    connect(&session, &Session::unitsChanged, this, &RigStage::refresh);
    refresh();
}

void RigStage::apply() {
    const auto* data = m_session.study();
    if (!data) return m_session.say(tr("Import some curves first; the limit belongs to them."), true);
    std::optional<double> limit;
    if (!m_limit->text().trimmed().isEmpty()) {
        const auto entry = quantity::parseEntry(m_limit->text().toStdString(), quantity::Dimension::force,
                                                m_session.units().force);
        if (!m_session.tell(entry)) return;
        if (!(entry->si > 0))
            return m_session.say(tr("A rig limit of zero or less cannot be: give what the rig can show."),
                                 true);
        limit = entry->si;
    }
    const auto done = work::setRigLimit(*m_session.project(), data->study.id, limit);
    if (m_session.tell(done))
        m_session.say(limit ? tr("Every curve has been read again against %1.").arg(m_session.force(*limit))
                            : tr("The rig limit has been taken away."));
}

void RigStage::refresh() {
    const auto* data = m_session.study();
    const bool imported = data && std::any_of(data->pulls.begin(), data->pulls.end(),
                                              [](const auto& p) { return p.curve != 0 && p.setup == 0; });
    m_body->setVisible(imported && !m_session.readOnly());
    m_imported->setVisible(imported);
    m_state->setVisible(imported || !data);
    m_tabs->setVisible(m_session.project() && !m_session.readOnly());
    QStringList card;
    for (const auto& c : domain::cautionsOf(data ? *data : domain::StudyData{}))
        card << QStringLiteral("\u26a0 ") + qs(c);
    if (data)
        for (const auto& c : data->study.plan.cautions)
            card << QStringLiteral("\u26a0 ") + qs(c);
    m_card->setText(card.join("\n"));
    std::set<double> limits;
    int off = 0;
    if (data)
        for (const auto& p : data->pulls) {
            if (p.settings.rigLimit) limits.insert(*p.settings.rigLimit);
            const auto r = m_session.readings().byPull.find(p.id);
            off += r != m_session.readings().byPull.end() && r->second.offScale;
        }
    if (!data)
        m_state->setText(tr("Nothing has been pulled yet: the limit is asked when you import logger files, "
                            "and can be set here afterwards."));
    else if (limits.empty())
        m_state->setText(tr("No limit is set for this study. Flat tops are still recognised."));
    else if (limits.size() == 1)
        m_state->setText(
            tr("The limit is %1; %2 pulls topped out.").arg(m_session.force(*limits.begin())).arg(off));
    else
        m_state->setText(tr("The pulls of this study have %1 different limits; %2 topped out.")
                             .arg(limits.size())
                             .arg(off));
}

} // namespace anvil::app
