#include "stages/pull/gauge_panel.h"

#include "shell/preferences.h"
#include "widgets/edited.h"
#include "widgets/plain_text.h"
#include "widgets/unit_question.h"
#include "widgets/unit_tail.h"
#include <QCheckBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/plan/next.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>

namespace anvil::app {
namespace {

QString when(const std::optional<double>& at) {
    return at ? QDateTime::fromSecsSinceEpoch(static_cast<qint64>(*at)).toString("ddd d MMM, hh:mm")
              : QString();
}

} // namespace

GaugePanel::GaugePanel(Session& session, QWidget* parent) : Panel(session, parent) {
    setObjectName("gaugePanel");
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    m_sentence = wrappedLabel("sentence");
    layout->addWidget(m_sentence);
    auto* row = new QHBoxLayout;
    row->addWidget(plainLabel(tr("Read again every")));
    row->addWidget(m_every = field("gaugeEvery", tr("such as 1 d, 6 h"), 110));
    new UnitTail(m_every, m_session, quantity::Dimension::time);
    row->addStretch();
    layout->addLayout(row);
    m_table = makeTable({tr("Piece"), tr("Last read"), tr("Gauge"), tr("Creep"), tr("Due")}, "gauges");
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_table->setSelectionMode(QAbstractItemView::SingleSelection);
    layout->addWidget(m_table, 1);
    layout->addWidget(m_piece = wrappedLabel("nextPiece"));
    auto* reading = new QHBoxLayout;
    reading->addWidget(plainLabel(tr("Gauge now")));
    reading->addWidget(m_value = field("gaugeValue", tr("such as 14.2 mm"), 150));
    new UnitTail(m_value, m_session, quantity::Dimension::length);
    m_unloaded = new QCheckBox(tr("It has been unloaded"));
    m_unloaded->setObjectName("gaugeUnloaded");
    setTip(m_unloaded, tr("From this reading on the gauge tells how much comes back"));
    reading->addWidget(m_unloaded);
    auto* keepIt = new QPushButton(tr("Keep, next piece"));
    keepIt->setObjectName("primary");
    reading->addWidget(keepIt);
    reading->addStretch();
    layout->addLayout(reading);
    layout->addWidget(m_question = new UnitQuestion(m_session));
    connect(m_table, &QTableWidget::currentCellChanged, this, [this] { showChosen(); });
    connect(keepIt, &QPushButton::clicked, this, &GaugePanel::keep);
    connect(m_value, &QLineEdit::returnPressed, this, &GaugePanel::keep);
    connect(m_value, &QLineEdit::textEdited, m_question, &QWidget::hide);
    whenEdited(m_every, this, [this] { saveEvery(); });
    follow();
}

void GaugePanel::showEvent(QShowEvent* event) {
    Panel::showEvent(event);
    m_value->setFocus();
}

void GaugePanel::fill() {
    const auto* data = m_session.study();
    if (!data) return;
    const auto before = m_first ? Id{0} : chosen();
    m_first = false;
    m_rows = plan::gauges(*data, static_cast<double>(m_session.now().toSecsSinceEpoch()));
    const auto every = data->study.plan.gaugeEvery;
    m_every->setText(every ? qs(quantity::asEntered(
                                 *every, quantity::unit(*every >= quantity::unit("d").factor ? "d" : "h")))
                           : QString());
    const auto due = std::count_if(m_rows.begin(), m_rows.end(), [](const auto& g) { return g.due; });
    m_sentence->setText(m_rows.empty() ? tr("Every gauge has been read to its end. See the verdict.")
                        : due == 0     ? tr("No gauge is to be read now.")
                        : due == 1     ? tr("One gauge is to be read now.")
                                       : tr("%1 gauges are to be read now.").arg(due));
    m_table->setRowCount(static_cast<int>(m_rows.size()));
    for (int r = 0; r < m_table->rowCount(); ++r) {
        const auto& g = m_rows[static_cast<std::size_t>(r)];
        const auto* piece = &data->specimenAt(g.specimen);
        const auto* pull = data->pull(g.pull);
        const auto told = pull ? results::told(*data, *pull) : tl::unexpected(Error{});
        m_table->setItem(
            r, 0,
            new QTableWidgetItem(tr("%1   %2, %3")
                                     .arg(qs(piece->label), qs(data->optionAt(piece->option).name),
                                          qs(data->conditionAt(piece->condition).name))));
        m_table->setItem(r, 1, new QTableWidgetItem(g.lastAt ? when(g.lastAt) : tr("not yet")));
        m_table->setItem(
            r, 2,
            new QTableWidgetItem(g.lastValue ? qs(quantity::withUnit(*g.lastValue, *m_session.units().length))
                                             : QString()));
        m_table->setItem(r, 3,
                         new QTableWidgetItem(told ? qs(quantity::withUnit(told->number.value->value,
                                                                           *m_session.units().length))
                                                   : QString()));
        m_table->setItem(r, 4, new QTableWidgetItem(g.due ? tr("\u25b6 now") : when(g.dueAt)));
    }
    const auto at = std::find_if(m_rows.begin(), m_rows.end(),
                                 [&](const plan::GaugeState& g) { return g.specimen == before; });
    if (!m_rows.empty()) m_table->selectRow(at == m_rows.end() ? 0 : static_cast<int>(at - m_rows.begin()));
    showChosen();
}

void GaugePanel::saveEvery() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    auto every = data->study.plan.gaugeEvery;
    if (!readOptional(m_every, quantity::Dimension::time, every, tr("A time of nothing or less cannot be.")))
        return refill();
    if (every == data->study.plan.gaugeEvery) return;
    m_session.tell(project::changePlan(*m_session.project(), m_session.studyId(), tr("When gauges are read"),
                                       [&](domain::Plan& p) { p.gaugeEvery = every; }));
}

Id GaugePanel::chosen() const {
    const auto row = static_cast<std::size_t>(std::max(0, m_table->currentRow()));
    return row < m_rows.size() ? m_rows[row].specimen : 0;
}

void GaugePanel::showChosen() {
    const auto* data = m_session.study();
    const auto* piece = data ? data->specimen(chosen()) : nullptr;
    m_question->hide(); // it was of what stood above
    m_piece->setText(piece ? tr("%1   %2, %3")
                                 .arg(qs(piece->label), qs(data->optionAt(piece->option).name),
                                      qs(data->conditionAt(piece->condition).name))
                           : QString());
}

void GaugePanel::keep() {
    const auto* data = m_session.study();
    const auto piece = chosen();
    if (!m_session.project() || !data || !piece) return;
    const auto entry = m_session.read(m_value->text(), quantity::Dimension::length);
    if (!m_session.tell(entry)) return;
    std::vector<double> before;
    for (const auto& pull : data->pulls)
        if (pull.specimen == piece)
            for (const auto& reading : pull.outcome.entered.gauge)
                before.push_back(reading.value);
    if (m_question->ask(*entry, before, [this](const QString& text) { keepReading(text); })) return;
    keepReading(m_value->text());
}

void GaugePanel::keepReading(const QString& text) {
    const auto entry = m_session.read(text, quantity::Dimension::length);
    if (!m_session.tell(entry)) return;
    m_session.heard(*entry);
    m_first = true;
    const auto made = project::addGaugeReading(
        *m_session.project(), chosen(), {static_cast<double>(m_session.now().toSecsSinceEpoch()), entry->si},
        m_unloaded->isChecked(), preferences::operatorName().toStdString());
    if (!m_session.tell(made)) {
        m_first = false;
        return;
    }
    m_session.selectPull(*made);
    m_value->setText({}); // without a history: Ctrl+Z is the project's then
    m_unloaded->setChecked(false);
    m_value->setFocus();
}

} // namespace anvil::app
