#include "stages/rig/rig_stage.h"

#include "stages/rig/calibration_panel.h"
#include "stages/rig/channels_panel.h"
#include "stages/rig/limits_panel.h"
#include "stages/rig/link_panel.h"
#include "stages/rig/path_panel.h"
#include "widgets/panel.h"
#include "widgets/plain_text.h"
#include "widgets/scrolled.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTabWidget>
#include <anvil/methods/method.h>
#include <anvil/project/rig_commands.h>
#include <anvil/quantity/entry.h>
#include <map>
#include <set>

namespace anvil::app {

RigStage::RigStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(16, 14, 16, 14);
    m_sentence = wrappedLabel("sentence");
    m_sentence->setText(
        tr("Connect a rig, tell what it can do and how the load gets to the piece. Everything is kept "
           "with each pull."));
    layout->addWidget(m_sentence);
    m_tabs = new QTabWidget;
    m_tabs->setObjectName("rigTabs");
    m_tabs->addTab(scrolled(new LinkPanel(session)), tr("Connection"));
    m_tabs->addTab(scrolled(new LimitsPanel(session)), tr("Limits"));
    m_tabs->addTab(scrolled(new PathPanel(session)), tr("Load path")); // long paths, and a low window
    m_tabs->addTab(scrolled(new CalibrationPanel(session)), tr("Calibration"));
    m_tabs->addTab(scrolled(new ChannelsPanel(session)), tr("More channels"));
    layout->addWidget(m_tabs, 3);
    m_limits = new QWidget;
    auto* limits = new QVBoxLayout(m_limits);
    limits->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(m_limits);
    m_state = plainLabel();
    m_state->setWordWrap(true);
    layout->addWidget(m_state);
    m_card = wrappedLabel("safetyCard");
    layout->addWidget(m_card); // whole: a caution that is cut off is none
    follow();
}

std::optional<std::optional<double>> RigStage::limitIn(const QLineEdit* edit) {
    if (edit->text().trimmed().isEmpty()) return std::optional<double>{};
    const auto entry = m_session.read(edit->text(), quantity::Dimension::force);
    if (!m_session.tell(entry)) return {};
    m_session.heard(*entry);
    if (entry->si > 0) return std::optional(entry->si);
    m_session.say(tr("A rig limit of zero or less cannot be: give what the rig can show."), true);
    return {};
}

void RigStage::addLimit(const QString& title, Id setup, const std::optional<double>& limit) {
    auto* box = new QWidget;
    auto* row = new QHBoxLayout(box);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(plainLabel(title));
    auto* edit = field(setup ? "recordedLimit" : "rigLimit", tr("such as 5 kN or 500 kg"), 220);
    edit->setAccessibleName(tr("Rig limit of %1").arg(title));
    if (limit) edit->setText(m_session.force(*limit));
    row->addWidget(edit);
    auto* apply = new QPushButton(tr("Correct"));
    apply->setObjectName(setup ? "correctLimit" : "applyRigLimit");
    setTip(apply, tr("These curves are read again against it"));
    row->addWidget(apply);
    row->addStretch();
    m_limits->layout()->addWidget(box);
    const auto act = [this, edit, setup] {
        const auto* data = m_session.study();
        const auto typed = data ? limitIn(edit) : std::nullopt;
        if (!typed) return;
        auto& project = *m_session.project();
        if (!m_session.tell(setup ? project::correctLimit(project, data->study.id, setup, *typed)
                                  : project::setImportedLimit(project, data->study.id, *typed)))
            return;
        m_session.say(*typed
                          ? tr("These curves have been read again against %1.").arg(m_session.force(**typed))
                          : tr("The rig limit has been taken away."));
    };
    connect(apply, &QPushButton::clicked, this, act);
    connect(edit, &QLineEdit::returnPressed, this, act);
}

void RigStage::fillLimits() {
    while (auto* item = m_limits->layout()->takeAt(0)) {
        item->widget()->hide();
        item->widget()->deleteLater(); // its button may be what has just been pressed
        delete item;
    }
    const auto* data = m_session.study();
    if (!data || m_session.readOnly()) return;
    std::map<Id, std::optional<double>> recorded;
    std::optional<std::optional<double>> imported;
    for (const auto& p : data->pulls) {
        if (!p.curve) continue;
        if (project::recordedHere(*m_session.project(), p))
            recorded.emplace(p.setup, p.settings.rigLimit);
        else if (!imported)
            imported = p.settings.rigLimit;
    }
    if (imported) addLimit(tr("Limit of the rig that imported curves came from"), 0, *imported);
    for (const auto& [setup, limit] : recorded)
        if (const auto known = m_session.project()->setupOf(setup))
            addLimit(tr("Limit of %1, as these pulls were recorded").arg(qs(known->name)), setup, limit);
}

void RigStage::fill() {
    const auto* data = m_session.study();
    fillLimits();
    m_state->setVisible(!data || std::any_of(data->pulls.begin(), data->pulls.end(),
                                             [](const auto& p) { return p.curve != 0; }));
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
