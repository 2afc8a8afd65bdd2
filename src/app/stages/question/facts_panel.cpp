#include "stages/question/facts_panel.h"

#include "theme/theme.h"
#include "widgets/keep_picture.h"
#include "widgets/paste.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QTableWidget>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {
namespace {

enum Column { name, kind, grade, rating, ratingBasis, cost, currency, weight, geometry, supply, columns };

/// Puts what was typed into the option: a text, or the number of a cell that holds one (empty: none).
void put(domain::Option& o, int column, const std::string& text, const std::optional<double>& number) {
    switch (static_cast<Column>(column)) {
    case name:
        o.name = text;
        break;
    case kind:
        o.kind = text;
        break;
    case grade:
        o.grade = text;
        break;
    case rating:
        o.rating = number;
        break;
    case ratingBasis:
        o.ratingBasis = text;
        break;
    case cost:
        o.unitCost = number;
        break;
    case currency:
        o.currency = text;
        break;
    case weight:
        o.weight = number;
        break;
    case geometry:
        o.geometry = text;
        break;
    case supply:
        o.supply = text;
        break;
    case columns:
        break;
    }
}

} // namespace

FactsPanel::FactsPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    m_table = new QTableWidget(0, columns);
    giveTableMenu(m_table);
    m_table->setObjectName("options");
    m_table->setHorizontalHeaderLabels({tr("Option"), tr("Kind"), tr("Grade"), tr("Rating"),
                                        tr("Rating says"), tr("Cost each"), tr("Currency"), tr("Weight"),
                                        tr("Geometry"), tr("Where it is got")});
    setTip(m_table->horizontalHeaderItem(Column::geometry),
           tr("Sizes and shape in words, such as: 6 mm pin, 20° taper"));
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(grown(26));
    m_table->horizontalHeader()->setStretchLastSection(true);
    layout->addWidget(m_table, 1);
    auto* row = new QHBoxLayout;
    auto* hint = wrappedLabel("faint");
    hint->setText(
        tr("Type in a cell, or copy a block in your spreadsheet and paste it at the selected cell."));
    auto* button = new QPushButton(icon("clipboard-paste"), tr("Paste facts"));
    button->setObjectName("pasteFacts");
    row->addWidget(hint, 1);
    row->addWidget(button);
    layout->addLayout(row);
    m_conditions =
        makeTable({tr("Condition"), tr("sets"), tr("and"), tr("and"), tr("and")}, "conditionLevels");
    m_conditions->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    setTip(
        m_conditions->horizontalHeaderItem(1),
        tr("One thing a cell, such as: salt-soaked. Conditions that differ in two things at once cannot tell "
           "which of them made the difference"));
    layout->addWidget(m_conditions);
    connect(m_conditions, &QTableWidget::cellChanged, this, &FactsPanel::levelEdited);
    connect(m_table, &QTableWidget::cellChanged, this, &FactsPanel::edited);
    connect(button, &QPushButton::clicked, this, &FactsPanel::paste);
    auto* keys = new QShortcut(QKeySequence::Paste, m_table, this, [this] { paste(); });
    keys->setContext(Qt::WidgetShortcut);
    follow();
}

void FactsPanel::fill() {
    const auto* data = m_session.study();
    m_conditions->setVisible(data != nullptr);
    if (!data) return m_table->setRowCount(0);
    m_table->setRowCount(static_cast<int>(data->options.size()));
    for (int i = 0; i < m_table->rowCount(); ++i) {
        const auto& o = data->options[static_cast<std::size_t>(i)];
        const QStringList cells{
            qs(o.name),        qs(o.kind),
            qs(o.grade),       o.rating ? m_session.force(*o.rating) : QString(),
            qs(o.ratingBasis), o.unitCost ? qs(quantity::fixed(*o.unitCost, 2)) : QString(),
            qs(o.currency),    o.weight ? qs(quantity::shortest(*o.weight * 1000) + " g") : QString(),
            qs(o.geometry),    qs(o.supply)};
        for (int k = 0; k < columns; ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            setTip(item, cells[k]);
            if (k == rating || k == cost || k == weight)
                item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            m_table->setItem(i, k, item);
        }
    }
    m_table->resizeColumnsToContents();
    m_table->setColumnWidth(name, std::clamp(m_table->columnWidth(name), 120, 220));
    fillConditions(*data);
}

void FactsPanel::fillConditions(const domain::StudyData& data) {
    m_conditions->setRowCount(static_cast<int>(data.conditions.size()));
    for (int i = 0; i < m_conditions->rowCount(); ++i) {
        const auto& c = data.conditions[static_cast<std::size_t>(i)];
        for (int k = 0; k < m_conditions->columnCount(); ++k) {
            const auto level = static_cast<std::size_t>(k) - 1;
            auto* item = new QTableWidgetItem(k == 0                    ? qs(c.name)
                                              : level < c.levels.size() ? qs(c.levels[level])
                                                                        : QString());
            if (k == 0) item->setFlags(item->flags() & ~Qt::ItemIsEditable); // it is named on the board
            m_conditions->setItem(i, k, item);
        }
    }
    // As high as its rows, up to six.
    const int rows = std::clamp(m_conditions->rowCount(), 1, 6);
    m_conditions->setFixedHeight(rows * m_conditions->verticalHeader()->defaultSectionSize() + 34);
    m_conditions->setVisible(m_conditions->rowCount() > 1);
}

void FactsPanel::levelEdited(int row, int) {
    const auto* data = m_session.study();
    if (filling() || !data || row >= static_cast<int>(data->conditions.size())) return;
    std::vector<std::string> levels;
    for (int k = 1; k < m_conditions->columnCount(); ++k)
        if (const auto* item = m_conditions->item(row, k); item && !item->text().trimmed().isEmpty())
            levels.push_back(item->text().simplified().toStdString());
    const auto& c = data->conditions[static_cast<std::size_t>(row)];
    if (levels == c.levels) return;
    m_session.tell(m_session.project()->changeCondition(c.id, tr("What \"%1\" sets").arg(qs(c.name)),
                                                        [&](domain::Condition& x) { x.levels = levels; }));
}

void FactsPanel::edited(int row, int column) {
    const auto* data = m_session.study();
    if (filling() || !data || row >= static_cast<int>(data->options.size())) return;
    const auto& option = data->options[static_cast<std::size_t>(row)];
    const auto text = m_table->item(row, column)->text().simplified();
    std::optional<double> value;
    if (column == rating || column == cost || column == weight) {
        if (!text.isEmpty()) {
            const auto entry = column == cost
                                   ? Expected<quantity::Entry>(fail(""))
                                   : m_session.read(text, column == rating ? quantity::Dimension::force
                                                                           : quantity::Dimension::mass);
            if (entry && (entry->bound != quantity::Bound::exact ||
                          entry->precision == quantity::Precision::plusMinus)) {
                m_session.say(
                    tr("\"%1\" is no one number: a rating is what the maker promises at least.").arg(text),
                    true);
                return refill();
            }
            if (entry) m_session.heard(*entry);
            const auto number = column == cost ? quantity::parseNumber(text.toStdString())
                                               : entry.map([](const auto& e) { return e.si; });
            if (!number || *number < 0) {
                m_session.say(!number          ? qs(number.error().message)
                              : column == cost ? tr("A cost below zero cannot be.")
                                               : tr("Less than nothing cannot be."),
                              true);
                return refill();
            }
            value = *number;
        }
    }
    if (!m_session.tell(m_session.project()->changeOption(
            option.id, tr("Option \"%1\"").arg(qs(option.name)),
            [&](domain::Option& o) { put(o, column, text.toStdString(), value); })))
        refill();
}

void FactsPanel::paste() {
    if (!m_session.project()) return;
    int taken = 0;
    m_session.project()->together([&] { taken = pasteInto(*m_table); });
    m_session.say(taken == 0   ? tr("There is nothing new to paste.")
                  : taken == 1 ? tr("1 fact taken.")
                               : tr("%1 facts taken; one Ctrl+Z takes them back.").arg(taken),
                  taken == 0);
}

} // namespace anvil::app
