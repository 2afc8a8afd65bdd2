#include "widgets/unit_question.h"

#include "widgets/panel.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <anvil/quantity/print.h>
#include <anvil/words/unlikely.h>
#include <utility>

namespace anvil::app {

UnitQuestion::UnitQuestion(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    m_text = wrappedLabel("unitQuestion");
    column->addWidget(m_text);
    auto* row = new QHBoxLayout;
    m_meant = new QPushButton;
    m_meant->setObjectName("unitMeant");
    m_asTyped = new QPushButton;
    m_asTyped->setObjectName("unitAsTyped");
    row->addWidget(m_meant);
    row->addWidget(m_asTyped);
    row->addStretch();
    column->addLayout(row);
    hide();
    connect(m_asTyped, &QPushButton::clicked, this, [this] {
        hide();
        if (const auto keep = std::exchange(m_keep, {})) keep(m_typedText);
    });
    connect(m_meant, &QPushButton::clicked, this, [this] {
        hide();
        if (const auto keep = std::exchange(m_keep, {})) keep(m_meantText);
    });
    connect(&session, &Session::leaving, this, &QWidget::hide); // it is of what stood then
    connect(&session, &Session::changed, this, &QWidget::hide);
}

bool UnitQuestion::ask(const quantity::Entry& typed, const std::vector<double>& fellows,
                       std::function<void(const QString& text)> keep) {
    const auto odd = results::unlikely(typed, fellows);
    if (!odd) {
        hide();
        return false;
    }
    m_keep = std::move(keep);
    m_typedText = qs(quantity::print(typed));
    m_meant->setVisible(odd->meant);
    if (odd->meant) {
        m_meantText = qs(quantity::print(results::asMeant(typed, *odd->meant)));
        m_meant->setText(tr("It was %1").arg(m_meantText));
    }
    m_asTyped->setText(tr("Keep %1").arg(m_typedText));
    m_text->setText(qs(words::sentence(*odd, typed)));
    m_session.say(m_text->text(), true);
    show();
    (odd->meant ? m_meant : m_asTyped)->setFocus();
    return true;
}

} // namespace anvil::app
