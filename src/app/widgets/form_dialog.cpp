#include "widgets/form_dialog.h"

#include "shell/session.h"
#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace anvil::app {

FormDialog::FormDialog(const QString& title, const QString& said, const QString& action, QWidget* parent)
    : QDialog(parent) {
    setWindowTitle(title);
    setMinimumWidth(grown(440));
    auto* layout = new QVBoxLayout(this);
    auto* text = plainLabel(said);
    text->setWordWrap(true);
    layout->addWidget(text);
    m_fields = new QFormLayout;
    layout->addLayout(m_fields);
    m_error = plainLabel();
    m_error->setObjectName("warning");
    m_error->setWordWrap(true);
    m_error->hide();
    layout->addWidget(m_error);
    auto* buttons = new QDialogButtonBox;
    auto* go = buttons->addButton(action, QDialogButtonBox::AcceptRole);
    go->setObjectName("primary");
    buttons->addButton(QDialogButtonBox::Cancel);
    layout->addWidget(buttons);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    connect(buttons, &QDialogButtonBox::accepted, this, [this] {
        const auto ok = m_done ? m_done() : Expected<void>{};
        if (ok) return accept();
        m_error->setText(qs(ok.error().message));
        m_error->show();
    });
}

QLineEdit* FormDialog::addField(const QString& title, const QString& text, const QString& hint) {
    auto* edit = new QLineEdit(text);
    edit->setPlaceholderText(hint);
    edit->setAccessibleName(title);
    m_fields->addRow(title, edit);
    return edit;
}

void FormDialog::showField(QLineEdit* field, bool visible) { m_fields->setRowVisible(field, visible); }

void FormDialog::addWide(QWidget* widget) { m_fields->addRow(widget); }

void FormDialog::onDone(std::function<Expected<void>()> done) { m_done = std::move(done); }

} // namespace anvil::app
