#include "stages/pull/gauge_panel.h"

#include "shell/preferences.h"
#include "widgets/plain_text.h"
#include <QCheckBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/plan/next.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <anvil/work/entry_commands.h>
#include <anvil/work/plan_commands.h>

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
    row->addStretch();
    layout->addLayout(row);
    m_table = makeTable({tr("Piece"), tr("Last read"), tr("Gauge"), tr("Creep"), tr("Due")}, "gauges");
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_table->setSelectionMode(QAbstractItemView::SingleSelection);
    layout->addWidget(m_table, 1);
    auto* reading = new QHBoxLayout;
    reading->addWidget(plainLabel(tr("Gauge now")));
    reading->addWidget(m_value = field("gaugeValue", tr("such as 14.2 mm"), 130));
    m_unloaded = new QCheckBox(tr("It has been unloaded"));
    m_unloaded->setObjectName("gaugeUnloaded");
    setTip(m_unloaded, tr("From this reading on the gauge tells how much comes back"));
    reading->addWidget(m_unloaded);
    auto* keepIt = new QPushButton(tr("Keep, next piece"));
    keepIt->setObjectName("primary");
    reading->addWidget(keepIt);
    reading->addStretch();
    layout->addLayout(reading);
    connect(keepIt, &QPushButton::clicked, this, &GaugePanel::keep);
    connect(m_value, &QLineEdit::returnPressed, this, &GaugePanel::keep);
    connect(m_every, &QLineEdit::editingFinished, this, &GaugePanel::saveEvery);
    follow();
}

void GaugePanel::showEvent(QShowEvent* event) {
    Panel::showEvent(event);
    m_value->setFocus();
}

void GaugePanel::fill() {
    const auto* data = m_session.study();
    if (!data) return;
    const int row = m_table->currentRow();
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
    if (!m_rows.empty()) m_table->selectRow(std::clamp(row, 0, m_table->rowCount() - 1));
}

void GaugePanel::saveEvery() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    auto every = data->study.plan.gaugeEvery;
    if (!readOptional(m_every, quantity::Dimension::time, quantity::unit("h"), every,
                      tr("A time of nothing or less cannot be.")))
        return refill();
    if (every == data->study.plan.gaugeEvery) return;
    m_session.tell(work::changePlan(*m_session.project(), m_session.studyId(), tr("When gauges are read"),
                                    [&](domain::Plan& p) { p.gaugeEvery = every; }));
}

void GaugePanel::keep() {
    const auto row = static_cast<std::size_t>(std::max(0, m_table->currentRow()));
    if (!m_session.project() || row >= m_rows.size()) return;
    const auto entry = quantity::parseEntry(m_value->text().toStdString(), quantity::Dimension::length,
                                            m_session.units().length);
    if (!m_session.tell(entry)) return;
    const auto made =
        work::addGaugeReading(*m_session.project(), m_rows[row].specimen,
                              {static_cast<double>(m_session.now().toSecsSinceEpoch()), entry->si},
                              m_unloaded->isChecked(), preferences::operatorName().toStdString());
    if (!m_session.tell(made)) return;
    m_session.selectPull(*made);
    m_value->clear();
    m_unloaded->setChecked(false);
    refill();
    m_table->selectRow(0); // what is due first
    m_value->setFocus();
}

} // namespace anvil::app
