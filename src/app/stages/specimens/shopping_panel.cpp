#include "stages/specimens/shopping_panel.h"

#include "theme/theme.h"
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/pages/paper.h>
#include <anvil/pages/sheets.h>
#include <anvil/plan/replication.h>
#include <anvil/project/write_file.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

ShoppingPanel::ShoppingPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    m_sentence = wrappedLabel("stockSentence");
    layout->addWidget(m_sentence);
    m_table = makeTable(
        {tr("What"), tr("Needed"), tr("Made already"), tr("Each"), tr("Together"), tr("Where it is got")},
        "stock");
    m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    for (const int wide : {0, 5})
        m_table->horizontalHeader()->setSectionResizeMode(wide, QHeaderView::Stretch);
    layout->addWidget(m_table, 1);
    auto* save = new QPushButton(tr("Save as CSV…"));
    auto* print = new QPushButton(icon("printer"), tr("Save as PDF…"));
    auto* row = new QHBoxLayout;
    row->addWidget(save);
    row->addWidget(print);
    row->addStretch();
    layout->addLayout(row);
    connect(print, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(this, tr("Save the list"),
                                                       QStringLiteral("shopping.pdf"), tr("PDF (*.pdf)"));
        if (!path.isEmpty() && m_session.study() &&
            m_session.tell(pages::writePdf(pages::stock(*m_session.study()), path)))
            m_session.say(tr("The list is in %1.").arg(path));
    });
    connect(save, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(this, tr("Save the list"),
                                                       QStringLiteral("shopping.csv"), tr("CSV (*.csv)"));
        if (!path.isEmpty()) writeStock(path);
    });
    follow();
}

void ShoppingPanel::fill() {
    const auto* data = m_session.study();
    const auto lines = data ? plan::stock(*data) : std::vector<plan::StockLine>{};
    m_sentence->setText(lines.empty()
                            ? tr("The plan eats nothing yet: type the replicates on the board in Question.")
                            : tr("What the plan needs, with what is made already."));
    m_table->setRowCount(static_cast<int>(lines.size()));
    for (int r = 0; r < m_table->rowCount(); ++r) {
        const auto& l = lines[static_cast<std::size_t>(r)];
        const auto money = [&](const std::optional<double>& v) {
            return v ? qs(quantity::fixed(*v, 2) + (l.currency.empty() ? "" : " " + l.currency))
                     : QStringLiteral("–");
        };
        const QStringList cells{
            qs(l.what),  QString::number(l.needed), QString::number(l.made), money(l.unitCost), money(l.cost),
            qs(l.supply)};
        for (int k = 0; k < cells.size(); ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            if (k > 0 && k + 1 < cells.size()) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            m_table->setItem(r, k, item);
        }
    }
}

bool ShoppingPanel::writeStock(const QString& path) {
    const auto* data = m_session.study();
    const auto bytes = QByteArray::fromStdString(data ? pages::stockCsv(*data) : std::string());
    if (!m_session.tell(project::writeFile(path, bytes))) return false;
    m_session.say(tr("The list is in %1.").arg(path));
    return true;
}

} // namespace anvil::app
