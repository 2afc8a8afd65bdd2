#include "stages/question/chain_panel.h"

#include "theme/theme.h"
#include "widgets/keep_picture.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <anvil/plan/weakest_link.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::app {
namespace {
enum Columns {
    nameColumn,
    strengthColumn,
    spreadColumn,
    pieceColumn,
    sourceColumn,
    firstColumn,
    columnCount
};
}

ChainPanel::ChainPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    m_sentence = plainLabel();
    m_sentence->setWordWrap(true);
    m_sentence->setObjectName("chainSentence");
    layout->addWidget(m_sentence);
    m_table = new QTableWidget(0, columnCount);
    giveTableMenu(m_table);
    m_table->setObjectName("chain");
    m_table->setHorizontalHeaderLabels({tr("Part in the load path"), tr("Strength"), tr("Spread"),
                                        tr("The piece"), tr("From"), tr("Goes first")});
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(grown(26));
    m_table->horizontalHeader()->setSectionResizeMode(nameColumn, QHeaderView::Stretch);
    layout->addWidget(m_table, 1);
    auto* row = new QHBoxLayout;
    m_results = new QComboBox;
    m_results->setObjectName("chainResults");
    m_results->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    m_results->setMinimumContentsLength(24);
    auto* add = new QPushButton(tr("Add from results"));
    add->setObjectName("chainAdd");
    row->addWidget(m_results);
    row->addWidget(add);
    auto* hint = plainLabel(tr("The last row takes another part; an empty name takes it away."));
    hint->setObjectName("faint");
    hint->setWordWrap(true);
    row->addWidget(hint, 1);
    layout->addLayout(row);
    connect(m_table, &QTableWidget::cellChanged, this, &ChainPanel::edited);
    connect(add, &QPushButton::clicked, this, &ChainPanel::addFromResults);
    connect(&session, &Session::changed, this, &ChainPanel::refresh);
    connect(&session, &Session::unitsChanged, this, &ChainPanel::refresh);
    refresh();
}

void ChainPanel::refresh() {
    m_filling = true;
    const auto* data = m_session.study();
    const auto chain = data ? data->study.plan.chain : std::vector<domain::ChainPart>{};
    const auto first = plan::weakestLink(chain);
    m_table->setRowCount(static_cast<int>(chain.size()) + 1);
    for (int r = 0; r < m_table->rowCount(); ++r) {
        const bool there = r < static_cast<int>(chain.size());
        const auto part = there ? chain[static_cast<std::size_t>(r)] : domain::ChainPart{};
        const QStringList cells{qs(part.name),
                                there ? m_session.force(part.strength) : QString(),
                                there ? qs(quantity::percent(part.cv)) : QString(),
                                QString(),
                                qs(part.source),
                                there && chain.size() > 1
                                    ? qs(quantity::percent(first[static_cast<std::size_t>(r)].probability))
                                    : QString()};
        for (int k = 0; k < columnCount; ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            Qt::ItemFlags flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
            if (k == pieceColumn) {
                flags |= there ? Qt::ItemIsUserCheckable : Qt::NoItemFlags;
                if (there) item->setCheckState(part.specimen ? Qt::Checked : Qt::Unchecked);
            } else if (k != firstColumn) {
                flags |= Qt::ItemIsEditable;
            }
            item->setFlags(flags);
            if (k == strengthColumn || k == spreadColumn || k == firstColumn)
                item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            m_table->setItem(r, k, item);
        }
    }
    const auto warning = plan::weakestSentence(first);
    const bool marked = std::any_of(chain.begin(), chain.end(), [](const auto& p) { return p.specimen; });
    m_sentence->setText(
        chain.size() < 2
            ? tr("Type the parts that the load goes through, with their ratings: will the right one break?")
        : !marked          ? tr("Tick which of them is the piece.")
        : !warning.empty() ? QStringLiteral("\u26a0 ") + qs(warning)
                           : tr("The piece goes first in at least four pulls of five."));
    m_results->clear();
    if (m_session.project())
        for (const auto& s : m_session.project()->studies()) {
            if (s.pulls.empty()) continue;
            for (const auto& g : m_session.project()->verdict(s.study.id, domain::metric("peak")).groups)
                if (g.summary.typical && g.summary.cv && !g.summary.censored())
                    m_results->addItem(tr("%1, %2: %3")
                                           .arg(qs(s.optionAt(g.option).name),
                                                qs(s.conditionAt(g.condition).name),
                                                m_session.force(*g.summary.typical)),
                                       QVariantList{*g.summary.typical, *g.summary.cv,
                                                    qs(s.optionAt(g.option).name), qs(s.study.title)});
        }
    m_filling = false;
}

void ChainPanel::edited(int row, int column) {
    const auto* data = m_session.study();
    if (m_filling || !data) return;
    auto chain = data->study.plan.chain;
    const bool fresh = row >= static_cast<int>(chain.size());
    const auto text = m_table->item(row, column)->text().simplified();
    if (fresh && column != nameColumn) {
        m_session.say(tr("Name the part first."), true);
        return refresh();
    }
    if (fresh) chain.push_back({});
    auto& part = chain[static_cast<std::size_t>(row)];
    const auto refuse = [&](const QString& why) {
        m_session.say(why, true);
        refresh();
    };
    switch (column) {
    case nameColumn:
        if (text.isEmpty())
            chain.erase(chain.begin() + row);
        else
            part.name = text.toStdString();
        break;
    case strengthColumn: {
        const auto entry = m_session.read(text, quantity::Dimension::force);
        if (!entry) return refuse(qs(entry.error().message));
        m_session.heard(*entry);
        if (!(entry->si > 0)) return refuse(tr("A strength of zero or less cannot be."));
        part.strength = entry->si;
        break;
    }
    case spreadColumn: {
        const auto number = quantity::parseNumber(QString(text).remove('%').toStdString());
        if (!number || *number < 0 || *number > 200)
            return refuse(tr("\"%1\" is not a spread: type a percentage, such as 8.").arg(text));
        part.cv = *number / 100;
        break;
    }
    case pieceColumn:
        for (auto& p : chain)
            p.specimen = false;
        chain[static_cast<std::size_t>(row)].specimen =
            m_table->item(row, column)->checkState() == Qt::Checked;
        break;
    case sourceColumn:
        part.source = text.toStdString();
        break;
    default:
        return;
    }
    m_session.tell(project::changePlan(*m_session.project(), m_session.studyId(), tr("Load path"),
                                       [&](domain::Plan& p) { p.chain = chain; }));
}

void ChainPanel::addFromResults() {
    const auto values = m_results->currentData().toList();
    if (values.size() != 4 || !m_session.study())
        return m_session.say(tr("There are no results to take a strength from yet."));
    m_session.tell(
        project::changePlan(*m_session.project(), m_session.studyId(), tr("Load path"), [&](domain::Plan& p) {
            p.chain.push_back({values[2].toString().toStdString(), values[0].toDouble(), values[1].toDouble(),
                               false, values[3].toString().toStdString()});
        }));
}

} // namespace anvil::app
