#include "shell/ledger_line.h"

#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace anvil::app {

LedgerLine::LedgerLine(const QString& add, QWidget* form, QWidget* parent)
    : QWidget(parent), m_add(add), m_form(form) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    m_row = new QHBoxLayout;
    m_row->setSpacing(8);
    m_fact = plainLabel();
    m_fact->setWordWrap(true);
    m_fact->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_row->addWidget(m_fact, 1);
    m_edit = new QPushButton;
    m_edit->setObjectName("quiet");
    m_row->addWidget(m_edit, 0, Qt::AlignTop);
    layout->addLayout(m_row);
    layout->addWidget(m_form);
    m_form->hide();
    connect(m_edit, &QPushButton::clicked, this, [this] { open(!isOpen()); });
    refresh();
}

void LedgerLine::setSign(QWidget* sign) { m_row->insertWidget(0, sign, 0, Qt::AlignTop); }

void LedgerLine::setFact(const QString& fact) {
    m_fact->setText(fact);
    refresh();
}

void LedgerLine::open(bool open) {
    m_form->setVisible(open);
    if (open && m_form->focusPolicy() != Qt::NoFocus) m_form->setFocus();
    refresh();
}

bool LedgerLine::isOpen() const { return m_form->isVisibleTo(this); }

void LedgerLine::refresh() {
    const bool known = !m_fact->text().isEmpty();
    m_fact->setVisible(known);
    m_edit->setText(isOpen() ? tr("done") : known ? tr("edit") : m_add);
    m_edit->setAccessibleName(known ? tr("edit: %1").arg(m_fact->text()) : m_add);
    m_row->setAlignment(m_edit, known ? Qt::AlignTop | Qt::AlignRight : Qt::AlignLeft);
}

} // namespace anvil::app
