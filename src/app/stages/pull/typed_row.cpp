#include "stages/pull/typed_row.h"

#include "shell/preferences.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <anvil/domain/outcomes.h>
#include <anvil/methods/method.h>
#include <anvil/plan/next.h>
#include <anvil/results/evidence.h>
#include <anvil/work/entry_commands.h>

namespace anvil::app {

TypedRow::TypedRow(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    m_piece = plainLabel();
    m_piece->setObjectName("typedPiece");
    row->addWidget(m_piece);
    row->addWidget(m_value = field("typedValue", tr("4.2 kN, >9 kN, 4…5 kN, ~12 N, 12 ± 1 N"), 220));
    setTip(m_value,
           tr("Off a display, with its doubt. Steps: what held and what it failed at, as 3…3.5 kN."));
    m_broke = new QComboBox;
    m_broke->setObjectName("typedBroke");
    m_broke->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    m_broke->setMinimumContentsLength(12);
    row->addWidget(m_broke);
    auto* keepIt = new QPushButton(tr("Keep"));
    keepIt->setObjectName("keepTyped");
    auto* lost = new QPushButton(tr("Number lost"));
    lost->setObjectName("typedLost");
    auto* other = new QPushButton(tr("Another piece"));
    other->setObjectName("typedOther");
    for (auto* b : {keepIt, lost, other})
        row->addWidget(b);
    row->addStretch();
    connect(keepIt, &QPushButton::clicked, this, [this] { keep(false); });
    connect(m_value, &QLineEdit::returnPressed, this, [this] { keep(false); });
    connect(lost, &QPushButton::clicked, this, [this] { keep(true); });
    connect(other, &QPushButton::clicked, this, [this] {
        if (m_next) m_skipped.insert(m_next);
        refill();
    });
    follow();
}

void TypedRow::fill() {
    const auto* data = m_session.study();
    const auto* next = data ? plan::nextSpecimen(*data, m_skipped) : nullptr;
    if (data && !next && !m_skipped.empty()) { // round again
        m_skipped.clear();
        next = plan::nextSpecimen(*data);
    }
    m_next = next ? next->id : 0;
    m_piece->setText(next ? tr("%1, %2, %3:")
                                .arg(qs(next->label), qs(data->optionAt(next->option).name),
                                     qs(data->conditionAt(next->condition).name))
                          : tr("No piece waits to be pulled; a number needs one."));
    for (auto* w : findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly))
        if (w != m_piece) w->setVisible(next != nullptr);
    const auto before = m_broke->currentText();
    m_broke->clear();
    m_broke->addItem(tr("what broke?"), QString());
    if (data)
        for (const auto& part : domain::breakableParts(*data))
            m_broke->addItem(qs(part), qs(part));
    m_broke->setCurrentIndex(std::max(0, m_broke->findText(before)));
}

void TypedRow::keep(bool lost) {
    if (!m_session.project() || !m_next) return;
    if (!lost && m_value->text().trimmed().isEmpty())
        return m_session.say(tr("Type what was read, or say that the number was lost."), true);
    const auto* data = m_session.study();
    work::TypedPull typed;
    typed.specimen = m_next;
    typed.text = lost ? std::string() : m_value->text().trimmed().toStdString();
    typed.fallback = &methods::unitFor(*results::typedMetric(*data), m_session.units());
    typed.part = m_broke->currentData().toString().toStdString();
    typed.performedAt = m_session.now().toString(Qt::ISODate).toStdString();
    typed.operatorName = preferences::operatorName().toStdString();
    const auto label = m_piece->text();
    const auto made = work::addTypedPull(*m_session.project(), typed);
    if (!m_session.tell(made)) return;
    m_session.selectPull(*made);
    m_session.say(tr("%1 kept. Ctrl+Z takes it back.").arg(label.section(',', 0, 0)));
    m_value->clear();
    m_broke->setCurrentIndex(0);
    m_value->setFocus();
}

} // namespace anvil::app
