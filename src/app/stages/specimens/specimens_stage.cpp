#include "stages/specimens/specimens_stage.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace anvil::app {

SpecimensStage::SpecimensStage(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(16, 14, 16, 14);
    m_sentence = new QLabel;
    m_sentence->setObjectName("sentence");
    m_sentence->setWordWrap(true);
    layout->addWidget(m_sentence);
    m_table = new QTableWidget(0, 5);
    m_table->setObjectName("specimens");
    m_table->setHorizontalHeaderLabels(
        {tr("Label"), tr("Option"), tr("Condition"), tr("Replicate"), tr("Pull")});
    m_table->verticalHeader()->hide();
    m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_table->setSelectionMode(QAbstractItemView::SingleSelection);
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_table->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    layout->addWidget(m_table, 1);
    auto* move = new QHBoxLayout;
    move->addWidget(new QLabel(tr("Wrong label? Move the selected piece to")));
    m_option = new QComboBox;
    m_condition = new QComboBox;
    for (auto* box : {m_option, m_condition}) {
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(10);
        move->addWidget(box, 1);
    }
    auto* button = new QPushButton(tr("Move"));
    button->setObjectName("moveSpecimen");
    move->addWidget(button);
    layout->addLayout(move);
    connect(button, &QPushButton::clicked, this, [this] {
        const auto* item = m_table->item(m_table->currentRow(), 0);
        if (!item) return m_session.say(tr("Select the piece to move first."));
        m_session.tell(m_session.project()->moveSpecimen(item->data(Qt::UserRole).toLongLong(),
                                                         m_option->currentData().toLongLong(),
                                                         m_condition->currentData().toLongLong()));
    });
    connect(m_table, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (const auto* item = m_table->item(row, 4); item && !m_filling)
            m_session.selectPull(item->data(Qt::UserRole).toLongLong());
    });
    connect(&session, &Session::changed, this, &SpecimensStage::refresh);
    connect(&session, &Session::selectionChanged, this, &SpecimensStage::follow);
    refresh();
}

void SpecimensStage::follow() {
    m_filling = true;
    for (int i = 0; i < m_table->rowCount(); ++i)
        if (m_session.pull() && m_table->item(i, 4)->data(Qt::UserRole).toLongLong() == m_session.pull())
            m_table->setCurrentCell(i, 0);
    m_option->setCurrentIndex(m_option->findData(m_session.option()));
    m_condition->setCurrentIndex(m_condition->findData(m_session.condition()));
    m_filling = false;
}

void SpecimensStage::refresh() {
    m_filling = true;
    const auto* data = m_session.study();
    const auto pieces = data ? data->specimens.size() : 0;
    m_sentence->setText(pieces == 0 ? tr("No pieces yet: importing logger files makes one for every run.")
                                    : tr("Every piece has a label of its own; %n piece(s) so far.", nullptr,
                                         static_cast<int>(pieces))
                                          .replace("(s)", pieces == 1 ? "" : "s"));
    m_table->setRowCount(static_cast<int>(pieces));
    m_option->clear();
    m_condition->clear();
    if (data) {
        for (const auto& o : data->options)
            m_option->addItem(qs(o.name), o.id);
        for (const auto& c : data->conditions)
            m_condition->addItem(qs(c.name), c.id);
        int row = 0;
        for (const auto& s : data->specimens) {
            Id pull = 0;
            QString standing = tr("not pulled");
            for (const auto& p : data->pulls)
                if (p.specimen == s.id) {
                    pull = p.id;
                    standing = QString::fromUtf8(study::word(p.standing));
                }
            const auto* o = data->option(s.option);
            const auto* c = data->condition(s.condition);
            const QStringList cells{qs(s.label), o ? qs(o->name) : "", c ? qs(c->name) : "",
                                    QString::number(s.replicate), standing};
            for (int k = 0; k < 5; ++k) {
                auto* item = new QTableWidgetItem(cells[k]);
                item->setData(Qt::UserRole, k == 4 ? pull : s.id);
                m_table->setItem(row, k, item);
            }
            ++row;
        }
    }
    m_filling = false;
    follow();
}

} // namespace anvil::app
