#include "stages/question/forecast_panel.h"

#include "theme/theme.h"
#include "widgets/keep_picture.h"
#include "widgets/number_box.h"
#include "widgets/plain_text.h"
#include "widgets/square_box.h"
#include "widgets/unit_tail.h"
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <anvil/methods/method.h>
#include <anvil/plan/forecasts.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/words/values.h>

namespace anvil::app {

using quantity::Dimension;

ForecastPanel::ForecastPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    auto* first = new QHBoxLayout;
    auto* second = new QHBoxLayout;
    const auto add = [](QHBoxLayout* row, const QString& text, QWidget* widget) {
        row->addWidget(plainLabel(text));
        row->addWidget(widget);
    };
    add(first, tr("For"), m_square = new SquareBox(session));
    add(first, tr("I expect"), m_value = field("forecastValue", tr("such as 4.2 kN"), 110));
    new UnitTail(m_value, m_session, [this] {
        const auto* data = m_session.study();
        return data ? std::optional(data->study.goal.metric->dimension) : std::nullopt;
    });
    m_spread = new NumberBox;
    m_spread->setObjectName("forecastSpread");
    m_spread->setRange(0, 200);
    m_spread->setValue(10);
    m_spread->setSuffix(" %");
    add(first, tr("±"), m_spread);
    add(first, tr("after moving"), m_travel = field("forecastTravel", tr("such as 40 mm"), 130));
    new UnitTail(m_travel, m_session, Dimension::length);
    first->addStretch();
    add(second, tr("Going first"), m_goesFirst = field("forecastPart", tr("which part"), 140));
    add(second, tr("says"), m_by = field("forecastBy", tr("who"), 110));
    add(second, tr("from"),
        m_source = field("forecastSource", tr("a rating, an earlier study, a guess"), 270));
    auto* keep = new QPushButton(tr("Keep"));
    keep->setObjectName("keepForecast");
    setTip(keep, tr("Keeps the forecast for this square; one for each who says so"));
    second->addWidget(keep);
    second->addStretch();
    layout->addLayout(first);
    layout->addLayout(second);
    m_table = new QTableWidget(0, 7);
    giveTableMenu(m_table);
    m_table->setObjectName("forecasts");
    m_table->setHorizontalHeaderLabels({tr("Square"), tr("Who"), tr("Expected"), tr("Travel"),
                                        tr("Going first"), tr("From"), tr("Measured")});
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(grown(24));
    m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_table->horizontalHeader()->setStretchLastSection(true);
    layout->addWidget(m_table, 1);
    auto* below = new QHBoxLayout;
    m_scores = wrappedLabel("forecastScores");
    below->addWidget(m_scores, 1);
    auto* forget = new QPushButton(tr("Take the selected one back"));
    forget->setObjectName("forgetForecast");
    below->addWidget(forget);
    layout->addLayout(below);
    connect(keep, &QPushButton::clicked, this, &ForecastPanel::save);
    connect(m_value, &QLineEdit::returnPressed, this, &ForecastPanel::save);
    connect(forget, &QPushButton::clicked, this, &ForecastPanel::forget);
    follow(true);
}

void ForecastPanel::fill() {
    const auto* data = m_session.study();
    m_table->setRowCount(0);
    m_scores->clear();
    if (!data) return;
    const auto& verdict = m_session.verdict(data->study.goal.metric);
    const auto& unit = methods::unitFor(*data->study.goal.metric, m_session.units());
    for (const auto& square : data->study.plan.squares) {
        const auto* o = data->option(square.option);
        const auto* c = data->condition(square.condition);
        if (!o || !c) continue;
        const auto group = std::find_if(verdict.groups.begin(), verdict.groups.end(), [&](const auto& g) {
            return g.option == square.option && g.condition == square.condition;
        });
        const auto measured =
            group == verdict.groups.end() ? std::string("–") : words::meanText(group->summary, unit);
        for (const auto& f : square.forecasts) {
            const int row = m_table->rowCount();
            m_table->insertRow(row);
            const QStringList cells{
                tr("%1, %2").arg(qs(o->name), qs(c->name)),
                f.by.empty() ? tr("nobody named") : qs(f.by),
                tr("%1 ± %2").arg(qs(quantity::withUnit(f.value, unit, 3)), qs(quantity::percent(f.cv))),
                f.travel ? qs(quantity::withUnit(*f.travel, *m_session.units().length, 3)) : QString(),
                qs(f.goesFirst),
                qs(f.source),
                qs(measured)};
            for (int k = 0; k < cells.size(); ++k) {
                auto* item = new QTableWidgetItem(cells[k]);
                if (k == 2 || k == 3 || k == 6) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
                m_table->setItem(row, k, item);
            }
            m_table->item(row, 0)->setData(Qt::UserRole, QVariantList{square.option, square.condition});
        }
    }
    QStringList lines;
    for (const auto& score : plan::scoreForecasts(*data, verdict))
        lines << qs(plan::sentence(score));
    m_scores->setText(m_table->rowCount() == 0
                          ? tr("Write down what you expect before you pull; it is scored afterwards.")
                      : lines.isEmpty() ? tr("The forecasts are scored when their squares have been pulled.")
                                        : lines.join("\n"));
}

void ForecastPanel::save() {
    const auto* data = m_session.study();
    if (!data || !m_session.option() || !m_session.condition())
        return m_session.say(tr("Choose the square that you have an expectation of."), true);
    const auto& metric = *data->study.goal.metric;
    const auto entry = m_session.read(m_value->text(), metric.dimension);
    if (!m_session.tell(entry)) return;
    if (!(entry->si > 0)) return m_session.say(tr("An expectation of zero or less cannot be."), true);
    m_session.heard(*entry);
    domain::Forecast f;
    f.by = m_by->text().simplified().toStdString();
    f.value = entry->si;
    f.cv = m_spread->value() / 100;
    if (entry->bound ==
        quantity::Bound::between) { // "88…240 kg" is its middle and what it reaches to either side
        f.value = (entry->si + entry->upperSi) / 2;
        f.cv = (entry->upperSi - entry->si) / 2 / f.value;
    } else if (entry->precision == quantity::Precision::plusMinus) {
        f.cv = entry->plusMinusSi / entry->si;
    } else if (entry->bound == quantity::Bound::above || entry->bound == quantity::Bound::below) {
        return m_session.say(tr("An expectation is a number or a range, such as 4\u20265 kN."), true);
    }
    f.goesFirst = m_goesFirst->text().simplified().toStdString();
    f.source = m_source->text().simplified().toStdString();
    if (!readOptional(m_travel, Dimension::length, f.travel, tr("A travel of zero or less cannot be.")))
        return;
    const auto done =
        project::changePlan(*m_session.project(), m_session.studyId(),
                            tr("Forecast for %1").arg(m_square->currentText()), [&](domain::Plan& p) {
                                auto& all = p.squareFor(m_session.option(), m_session.condition()).forecasts;
                                std::erase_if(all, [&](const auto& old) { return old.by == f.by; });
                                all.push_back(f);
                            });
    if (m_session.tell(done)) {
        m_value->setText({});
        m_travel->setText({});
    }
}

void ForecastPanel::forget() {
    const auto* item = m_table->item(m_table->currentRow(), 0);
    if (!item) return m_session.say(tr("Select the forecast in the table first."), true);
    const auto square = item->data(Qt::UserRole).toList();
    int nth = 0; // of its square
    for (int row = m_table->currentRow() - 1; row >= 0; --row)
        nth += m_table->item(row, 0)->data(Qt::UserRole).toList() == square;
    m_session.tell(project::changePlan(
        *m_session.project(), m_session.studyId(), tr("Forecast taken back"), [&](domain::Plan& p) {
            auto& all = p.squareFor(square[0].toLongLong(), square[1].toLongLong()).forecasts;
            if (nth < static_cast<int>(all.size())) all.erase(all.begin() + nth);
        }));
}

} // namespace anvil::app
