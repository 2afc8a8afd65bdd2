#include "stages/verdict/trail.h"

#include "theme/theme.h"
#include "widgets/panel.h"
#include "widgets/plain_text.h"
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <anvil/domain/joints.h>
#include <anvil/methods/method.h>
#include <anvil/results/ends.h>
#include <anvil/results/verdict.h>
#include <anvil/words/ranked.h>
#include <anvil/words/values.h>

namespace anvil::app {
namespace {

/// A number of a group: what it is called, its text and how it was made.
struct Told {
    QString title, value, rule;
};

Told told(const domain::StudyData& data, const results::Verdict& verdict, std::size_t group,
          std::string_view column, const quantity::Unit& unit) {
    constexpr std::string_view places[] = {"rank", "option", "condition", "n", "ties", "cost"};
    if (std::find(std::begin(places), std::end(places), column) != std::end(places)) column = "mean";
    const auto table = words::rankedTable(data, verdict, unit);
    const auto k = table.at(column);
    for (const auto& row : table.rows)
        if (row.of == static_cast<long long>(group) && k < table.columns.size())
            return {qs(table.columns[k].title), qs(row.cells[k]),
                    qs(words::ruleOf(column, verdict.groups[group].summary))};
    return {};
}

} // namespace

TrailDialog::TrailDialog(Session& session, domain::Metric metric, const results::Verdict& verdict,
                         std::size_t at, std::string_view column, QWidget* parent)
    : QDialog(parent) {
    const auto& group = verdict.groups[at];
    setWindowTitle(tr("Where from?"));
    setObjectName("trail");
    resize(620, 420);
    const auto* data = session.study();
    const auto& unit = methods::unitFor(*metric, session.units());
    const auto number = told(*data, verdict, at, column, unit);
    auto* layout = new QVBoxLayout(this);
    auto* head = plainLabel(tr("%1 of %2: %3").arg(number.title, qs(metric->noun), number.value));
    head->setObjectName("big");
    head->setWordWrap(true);
    layout->addWidget(head);
    auto* place = plainLabel(tr("%1, %2. %3")
                                 .arg(qs(data->optionAt(group.option).name),
                                      qs(data->conditionAt(group.condition).name), number.rule));
    place->setWordWrap(true);
    layout->addWidget(place);
    auto* table = makeTable({tr("Pull"), tr("Value"), tr("From")}, "trailValues");
    table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table->setSelectionBehavior(QAbstractItemView::SelectRows);
    const auto add = [&](Id pull, Id specimen, const QString& text, const QString& from) {
        const int row = table->rowCount();
        table->insertRow(row);
        auto* label = new QTableWidgetItem(qs(data->specimenAt(specimen).label));
        label->setData(Qt::UserRole, pull);
        table->setItem(row, 0, label);
        table->setItem(row, 1, new QTableWidgetItem(text));
        table->item(row, 1)->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        table->setItem(row, 2, new QTableWidgetItem(from));
    };
    for (const auto& v : group.values) {
        QString from = tr("typed in");
        if (const auto r = session.readings().byPull.find(v.pull); r != session.readings().byPull.end())
            from = tr("its curve of %1 samples").arg(r->second.samples);
        if (v.value.aside) continue;
        if (v.guess) from += tr("; beyond the calibration table: a guess");
        if (const auto* pull = data->pull(v.pull))
            if (const int held = results::jointsThatHeld(*data, *pull, *data->specimen(v.specimen)); held > 0)
                from += held == 1 ? tr("; its other end held at least that")
                                  : tr("; its other %1 joints held at least that").arg(held);
        add(v.pull, v.specimen, qs(words::valueText(v.value, unit, v.guess)), from);
    }
    for (const auto& l : group.leftOut)
        add(l.pull, l.specimen, tr("left out"), qs(l.why));
    table->resizeColumnsToContents();
    table->horizontalHeader()->setStretchLastSection(true);
    table->setCurrentCell(0, 0);
    layout->addWidget(table, 1);
    auto* buttons = new QDialogButtonBox;
    auto* show = buttons->addButton(tr("Show the curve"), QDialogButtonBox::AcceptRole);
    buttons->addButton(QDialogButtonBox::Close);
    layout->addWidget(buttons);
    const auto go = [this, table, &session] {
        if (table->currentRow() < 0) return;
        session.selectPull(table->item(table->currentRow(), 0)->data(Qt::UserRole).toLongLong());
        session.go(Stage::curves);
        accept();
    };
    connect(table, &QTableWidget::cellActivated, this, go);
    connect(show, &QPushButton::clicked, this, go);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    table->setFocus();
}

} // namespace anvil::app
