// Results of a table before they are taken in.
#include "shell/import_sheet.h"

#include "theme/theme.h"
#include "widgets/path_question.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/words/unlikely.h>

namespace anvil::app {

ValuesSheet::ValuesSheet(Session& session, const QByteArray& bytes, const QString& sourceName,
                         QWidget* parent)
    : QDialog(parent), m_session(session), m_source(sourceName) {
    setWindowTitle(tr("Import results"));
    setObjectName("valuesSheet");
    resize(720, 480);
    auto* layout = new QVBoxLayout(this);
    auto* head = plainLabel();
    head->setObjectName("big");
    head->setWordWrap(true);
    layout->addWidget(head);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    auto table =
        tables::readValues(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
    if (!table) {
        head->setText(tr("%1: %2.").arg(sourceName, qs(table.error().message)));
        auto* help = plainLabel(tr("One row a piece, with the headings option, condition, value, unit and "
                                   "standing:\n\noption\tcondition\tvalue\tunit\tstanding\nWedge "
                                   "socket\tPlain\t4.21\tkN\texact\nWedge socket\tPlain\t4.40\tkN\tabove"));
        help->setObjectName("faint");
        layout->addWidget(help);
        layout->addStretch();
        layout->addWidget(buttons);
        return;
    }
    m_tableData = std::move(*table);
    const auto& rows = m_tableData->rows;
    head->setText(rows.size() == 1 ? tr("1 result") : tr("%1 results").arg(rows.size()));
    QStringList trouble;
    for (const auto& p : m_tableData->problems)
        trouble << tr("Line %1 %2 (left out).").arg(p.line).arg(qs(p.reason));
    const auto odd = project::unlikelyRows(*m_tableData, nullptr);
    for (const auto& o : odd)
        trouble.prepend(tr("Line %1: %2").arg(o.line).arg(qs(words::sentence(o.odd, o.told))));
    if (!trouble.isEmpty()) {
        auto* label = plainLabel(trouble.mid(0, 6).join("\n"));
        label->setObjectName("trouble");
        label->setWordWrap(true);
        layout->addWidget(label);
    }
    const bool needsUnit = std::any_of(rows.begin(), rows.end(), [](const auto& r) { return !r.unit; });
    if (needsUnit) {
        auto* row = new QHBoxLayout;
        row->addWidget(plainLabel(tr("The table names no unit. The values are in")));
        m_unit = new QComboBox;
        m_unit->setObjectName("valueUnit");
        for (const char* u : {"", "N", "kN", "kgf", "lbf", "N/mm", "J"})
            m_unit->addItem(*u ? QString::fromUtf8(u) : tr("choose…"), QString::fromUtf8(u));
        row->addWidget(m_unit);
        row->addStretch();
        layout->addLayout(row);
    }
    auto* view = new QTableWidget(static_cast<int>(rows.size()), 5);
    view->setHorizontalHeaderLabels({tr("Option"), tr("Condition"), tr("Value"), tr("Unit"), tr("Standing")});
    view->verticalHeader()->hide();
    view->setEditTriggers(QAbstractItemView::NoEditTriggers);
    view->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 0; i < view->rowCount(); ++i) {
        const auto& r = rows[static_cast<std::size_t>(i)];
        const QStringList cells{qs(r.option), qs(r.condition), qs(r.asTyped),
                                r.unit ? qs(std::string(r.unit->symbol)) : tr("?"),
                                QString::fromUtf8(domain::word(domain::standingOf(r.value)))};
        for (int k = 0; k < 5; ++k)
            view->setItem(i, k, new QTableWidgetItem(cells[k]));
    }
    layout->addWidget(view, 1);
    layout->addWidget(new PathQuestion(m_session));
    m_go = buttons->addButton(odd.empty() ? tr("Import") : tr("Import as it stands"),
                              QDialogButtonBox::AcceptRole);
    m_go->setObjectName("primary");
    connect(m_go, &QPushButton::clicked, this, &ValuesSheet::import);
    if (m_unit) {
        m_go->hide();
        connect(m_unit, &QComboBox::activated, this,
                [this] { m_go->setVisible(!m_unit->currentData().toString().isEmpty()); });
    }
    layout->addWidget(buttons);
}

void ValuesSheet::import() {
    if (!m_session.project()) return;
    domain::StudyData into;
    into.study = project::studyFor({}, static_cast<int>(m_session.project()->studies().size()));
    if (const auto* data = m_session.study()) into = *data;
    const auto* unit = m_unit ? &quantity::unit(m_unit->currentData().toString().toStdString()) : nullptr;
    if (const auto said = project::readThrough(*m_session.project(), into);
        !said && into.study.id && into.study.plan.readAt.empty())
        return void(m_session.tell(said)); // asked below the table
    const auto done = project::importValues(*m_session.project(), into, *m_tableData, unit, m_source);
    if (!m_session.tell(done)) return reject();
    m_imported = done->pulls;
    m_session.tell(m_session.project()->adopt(done->journal, done->what));
    accept();
}

} // namespace anvil::app
