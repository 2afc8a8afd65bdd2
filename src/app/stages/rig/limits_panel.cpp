#include "stages/rig/limits_panel.h"

#include "shell/rig_desk.h"
#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/plain_text.h"
#include "widgets/unit_tail.h"
#include <QCheckBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <anvil/project/study_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

using quantity::Dimension;

LimitsPanel::LimitsPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    auto* columns = new QHBoxLayout;
    columns->setSpacing(32);
    columns->addLayout(makeAbilities());
    columns->addLayout(makeLines());
    columns->addStretch();
    layout->addLayout(columns);
    m_problems = wrappedLabel("finding");
    layout->addWidget(m_problems);
    layout->addStretch();
    connect(&session.rig(), &RigDesk::changed, this, [this] {
        if (isVisible()) refill();
    });
    follow();
}

void LimitsPanel::addHead(QGridLayout* form, const QString& text) {
    auto* head = plainLabel(text);
    head->setObjectName("section");
    form->addWidget(head, form->rowCount(), 0, 1, 2);
}

void LimitsPanel::addField(QGridLayout* form, const QString& text, QLineEdit*& edit, const char* name,
                           const QString& hint) {
    edit = field(name, hint, 170);
    edit->setMinimumWidth(grown(140));
    const int row = form->rowCount();
    form->addWidget(plainLabel(text), row, 0);
    form->addWidget(edit, row, 1);
    whenEdited(edit, this, [this] { save(); });
}

QLayout* LimitsPanel::makeAbilities() {
    auto* form = new QGridLayout;
    form->setHorizontalSpacing(12);
    form->setVerticalSpacing(6); // else it takes that between the columns
    addHead(form, tr("What it can do"));
    addField(form, tr("The rig pulls at most"), m_rig, "limitRig", tr("such as 5 kN"));
    addField(form, tr("The cell shows at most"), m_cell, "limitCell", tr("such as 2 kN"));
    addField(form, tr("It moves at most"), m_travel, "limitTravel", tr("such as 300 mm"));
    addField(form, tr("Smallest step it shows"), m_resolution, "limitResolution", tr("such as 1 N"));
    addField(form, tr("Wanted speed"), m_speed, "limitSpeed", tr("60 mm/min"));
    for (auto* edit : {m_rig, m_cell, m_resolution})
        new UnitTail(edit, m_session, Dimension::force);
    new UnitTail(m_travel, m_session, Dimension::length);
    new UnitTail(m_speed, m_session, Dimension::speed);
    m_flipped = new QCheckBox(tr("Reads negative when pulled"));
    m_flipped->setObjectName("flipped");
    form->addWidget(m_flipped, form->rowCount(), 0, 1, 2);
    addHead(form, tr("How much it gives way"));
    addField(form, tr("Gives way itself"), m_stretch, "limitStretch", tr("mm for each kN"));
    auto* guided = new QPushButton(tr("Measure it with a rigid bar"));
    guided->setObjectName("measureStretch");
    auto* bar = new QPushButton(tr("From the selected pull"));
    bar->setObjectName("stretchFromPull");
    form->addWidget(guided, form->rowCount(), 0, 1, 2, Qt::AlignLeft);
    form->addWidget(bar, form->rowCount(), 0, 1, 2, Qt::AlignLeft);
    form->setRowStretch(form->rowCount(), 1);
    connect(guided, &QPushButton::clicked, this, &LimitsPanel::pullRigidBar);
    connect(m_flipped, &QCheckBox::clicked, this, &LimitsPanel::save);
    connect(bar, &QPushButton::clicked, this, &LimitsPanel::stretchFromPull);
    return form;
}

QLayout* LimitsPanel::makeLines() {
    auto* form = new QGridLayout;
    form->setHorizontalSpacing(12);
    form->setVerticalSpacing(6); // else it takes that between the columns
    addHead(form, tr("During a pull"));
    addField(form, tr("Pause and look every"), m_look, "lookEvery", tr("such as 500 N"));
    addField(form, tr("Ends by itself when still for"), m_hold, "holdSeconds", tr("such as 30 s"));
    new UnitTail(m_look, m_session, Dimension::force);
    new UnitTail(m_hold, m_session, Dimension::time);
    addHead(form, tr("Lines sent to it"));
    addField(form, tr("Send when armed"), m_onArm, "onArm", tr("none"));
    addField(form, tr("Send when stopped"), m_onStop, "onStop", tr("none"));
    addField(form, tr("Send to zero"), m_onZero, "onZero", tr("none"));
    addField(form, tr("Send at a pause"), m_onPause, "onPause", tr("none"));
    addField(form, tr("Send to go on"), m_onResume, "onResume", tr("none"));
    form->setRowStretch(form->rowCount(), 1);
    return form;
}

void LimitsPanel::fill() {
    const auto& s = m_session.rig().setup();
    const auto& units = m_session.units();
    const auto shown = [](const std::optional<double>& v, const quantity::Unit& unit) {
        return v ? qs(quantity::withUnit(*v, unit)) : QString();
    };
    m_rig->setText(shown(s.rigLimit, *units.force));
    m_cell->setText(shown(s.cellLimit, *units.force));
    m_travel->setText(shown(s.travel, *units.length));
    m_resolution->setText(shown(s.resolution, *units.force));
    m_speed->setText(shown(s.speed, quantity::unit("mm/s")));
    m_stretch->setText(s.compliance > 0 ? qs(quantity::shortest(s.compliance * 1e6)) : QString());
    m_onArm->setText(qs(s.onArm));
    m_onStop->setText(qs(s.onStop));
    m_onZero->setText(qs(s.onZero));
    m_onPause->setText(qs(s.onPause));
    m_onResume->setText(qs(s.onResume));
    m_hold->setText(s.holdSeconds > 0 ? qs(quantity::asEntered(s.holdSeconds, quantity::unit("s")))
                                      : QString());
    m_look->setText(s.lookEvery > 0 ? qs(quantity::asEntered(s.lookEvery, *units.force)) : QString());
    m_flipped->setChecked(s.flipped);
    QStringList lines;
    if (m_session.rig().setupId())
        for (const auto& p : rig::problems(s, m_session.now().toString("yyyy-MM-dd").toStdString()))
            lines << QStringLiteral("\u26a0 ") + qs(p);
    m_problems->setText(lines.join("\n"));
}

void LimitsPanel::save() {
    if (filling() || !m_session.project()) return;
    auto s = m_session.rig().setup();
    const auto refusal = tr("A limit of zero or less cannot be.");
    const auto positive = [](double v) { return v > 0 ? std::optional(v) : std::nullopt; };
    auto hold = positive(s.holdSeconds), look = positive(s.lookEvery);
    if (!readOptional(m_hold, Dimension::time, hold, tr("A time of nothing or less cannot be.")) ||
        !readOptional(m_look, Dimension::force, look, tr("A step of nothing or less cannot be.")))
        return;
    s.holdSeconds = hold.value_or(0);
    s.lookEvery = look.value_or(0);
    s.onPause = m_onPause->text().trimmed().toStdString();
    s.onResume = m_onResume->text().trimmed().toStdString();
    if (!readOptional(m_rig, Dimension::force, s.rigLimit, refusal) ||
        !readOptional(m_cell, Dimension::force, s.cellLimit, refusal) ||
        !readOptional(m_travel, Dimension::length, s.travel, refusal) ||
        !readOptional(m_resolution, Dimension::force, s.resolution, refusal) ||
        !readOptional(m_speed, Dimension::speed, s.speed, tr("A speed of zero or less cannot be.")))
        return;
    if (!edited(m_stretch)) {
        // stays, to the last digit
    } else if (m_stretch->text().trimmed().isEmpty()) {
        s.compliance = 0;
    } else {
        const auto number = quantity::parseNumber(m_stretch->text().toStdString());
        if (!m_session.tell(number)) return;
        if (*number < 0) return m_session.say(tr("A rig cannot give way by less than nothing."), true);
        s.compliance = *number * 1e-6;
    }
    s.onArm = m_onArm->text().trimmed().toStdString();
    s.onStop = m_onStop->text().trimmed().toStdString();
    s.onZero = m_onZero->text().trimmed().toStdString();
    s.flipped = m_flipped->isChecked();
    m_session.rig().edit([&](rig::Setup& setup) {
        const auto name = setup.name;
        setup = s;
        setup.name = name;
    });
}

void LimitsPanel::pullRigidBar() {
    if (!m_session.rig().inUse() || m_session.rig().setup().practice)
        return m_session.say(tr("Connect the rig first; its travel has to be among what it sends."), true);
    const auto piece = project::addRigCheckPiece(*m_session.project(), m_session.rig().setup().name);
    if (!m_session.tell(piece)) return;
    m_session.showStudy(m_session.project()->studyOfSpecimen(*piece)->study.id);
    m_session.go(Stage::pull);
    m_session.say(tr("Mount a bar that does not give way, pull to about half of the limit, then stop. All "
                     "that moves then is "
                     "the rig."));
}

void LimitsPanel::stretchFromPull() { m_session.rig().takeStretchFrom(m_session.pull()); }

} // namespace anvil::app
