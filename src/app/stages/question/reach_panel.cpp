#include "stages/question/reach_panel.h"

#include "widgets/edited.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include "widgets/unit_tail.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>
#include <anvil/plan/reach.h>
#include <anvil/project/rig_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::app {

using quantity::Dimension;

ReachPanel::ReachPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    auto* rig = new QHBoxLayout;
    const auto add = [&](const QString& text, QLineEdit*& edit, const char* name, const QString& hint,
                         int width) {
        rig->addWidget(plainLabel(text));
        edit = field(name, hint, width);
        rig->addWidget(edit);
        whenEdited(edit, this, [this] { save(); });
    };
    m_rig = new QComboBox;
    m_rig->setObjectName("reachRig");
    m_rig->setAccessibleName(tr("The rig to pull on"));
    setTip(m_rig, tr("The rig to pull on: what it can do is kept with it"));
    rig->addWidget(m_rig);
    connect(m_rig, &QComboBox::activated, this, [this] {
        m_session.tell(project::planRig(*m_session.project(), m_session.studyId(),
                                        m_rig->currentData().toString().toStdString()));
    });
    add(tr("Rig limit"), m_limit, "reachLimit", tr("such as 5 kN"), 120);
    setTip(m_limit, tr("The most the rig can pull, at the piece"));
    add(tr("Cell limit"), m_cell, "reachCell", tr("such as 2 kN"), 120);
    setTip(m_cell, tr("The most the load cell can show"));
    add(tr("Ratio"), m_ratio, "reachRatio", tr("1"), 56);
    setTip(m_ratio,
           tr("What one at the cell is at the piece: 2 for a two-part line with the cell in one part"));
    add(tr("Travel"), m_travel, "reachTravel", tr("such as 300 mm"), 130);
    setTip(m_travel, tr("How far the rig can move"));
    new UnitTail(m_limit, m_session, Dimension::force);
    new UnitTail(m_cell, m_session, Dimension::force);
    new UnitTail(m_travel, m_session, Dimension::length);
    rig->addStretch();
    layout->addLayout(rig);
    auto* pictures = new QWidget;
    auto* column = new QVBoxLayout(pictures);
    column->setContentsMargins(0, 0, 0, 0);
    m_bars = new PictureView;
    m_bars->setObjectName("reachBars");
    column->addWidget(m_bars);
    m_travelHead = plainLabel(tr("How far the rig has to move"));
    m_travelHead->setObjectName("section");
    column->addWidget(m_travelHead);
    m_travelBars = new PictureView;
    m_travelBars->setObjectName("travelBars");
    column->addWidget(m_travelBars);
    column->addStretch();
    auto* area = new QScrollArea;
    area->setWidget(pictures);
    area->setWidgetResizable(true);
    pictures->setAutoFillBackground(false);
    area->viewport()->setAutoFillBackground(false);
    layout->addWidget(area, 1);
    m_sentence = wrappedLabel("reachSentence");
    layout->addWidget(m_sentence);
    follow(true);
}

void ReachPanel::fill() {
    const auto* data = m_session.study();
    const auto rig = data ? data->reach : domain::RigReach{};
    fillRigs();
    const auto shown = [](const std::optional<double>& v, const quantity::Unit& unit) {
        return v ? qs(quantity::withUnit(*v, unit)) : QString();
    };
    m_limit->setText(shown(rig.limit, *m_session.units().force));
    m_cell->setText(shown(rig.cell, *m_session.units().force));
    m_travel->setText(shown(rig.travel, *m_session.units().length));
    m_ratio->setText(qs(quantity::shortest(rig.ratio)));
    m_bars->setBuild([this](double width) {
        const auto* now = m_session.study();
        return now ? chart::reachBars(*now, m_session.verdict(now->study.goal.metric),
                                      *m_session.units().force, width)
                   : chart::Picture{};
    });
    m_travelHead->setVisible(rig.travel.has_value());
    m_travelBars->setVisible(rig.travel.has_value());
    m_travelBars->setBuild([this](double width) {
        const auto* now = m_session.study();
        return now ? chart::travelBars(*now, m_session.readings(), *m_session.units().length, width)
                   : chart::Picture{};
    });
    const auto* option = data ? data->option(m_session.option()) : nullptr;
    const auto* condition = data ? data->condition(m_session.condition()) : nullptr;
    if (option && condition)
        m_sentence->setText(tr("%1, %2: %3")
                                .arg(qs(option->name), qs(condition->name),
                                     qs(plan::squareRoom(*data, m_session.readings(),
                                                         m_session.verdict(data->study.goal.metric),
                                                         option->id, condition->id)
                                            .sentence)));
    else
        m_sentence->setText(tr("Select a square on the board to read about it here."));
}

void ReachPanel::fillRigs() {
    const auto* data = m_session.study();
    const auto planned = data ? data->study.plan.rig : std::string();
    m_rig->clear();
    m_rig->addItem(planned.empty() ? tr("Which rig?") : tr("no rig"), QString());
    bool live = false;
    if (m_session.project())
        for (const auto& [id, setup] : m_session.project()->rigs()) {
            m_rig->addItem(qs(setup.name), qs(setup.name));
            live = live || (setup.name == planned && !setup.address.empty());
        }
    m_rig->setCurrentIndex(std::max(0, m_rig->findData(qs(planned))));
    m_rig->setVisible(m_rig->count() > 1);
    for (auto* edit :
         {m_limit, m_cell, m_ratio, m_travel}) { // what is connected is set up where it is connected
        edit->setReadOnly(live);
        if (live) setTip(edit, tr("Set in Rig, with its connection"));
    }
}

void ReachPanel::save() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    auto rig = data->reach;
    const auto refusal = tr("A limit of zero or less cannot be.");
    if (!readOptional(m_limit, Dimension::force, rig.limit, refusal) ||
        !readOptional(m_cell, Dimension::force, rig.cell, refusal) ||
        !readOptional(m_travel, Dimension::length, rig.travel, refusal))
        return;
    const auto ratio = quantity::parseNumber(m_ratio->text().toStdString());
    if (!m_session.tell(ratio)) return;
    if (!(*ratio > 0))
        return m_session.say(
            tr("A ratio of zero or less cannot be: give what one at the cell is at the piece."), true);
    if (edited(m_ratio)) rig.ratio = *ratio;
    if (rig == data->reach) return;
    m_session.tell(project::tellReach(*m_session.project(), m_session.studyId(), rig));
}

} // namespace anvil::app
