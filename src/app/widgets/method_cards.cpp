#include "widgets/method_cards.h"

#include "shell/session.h"
#include "theme/theme.h"
#include "widgets/panel.h"
#include "widgets/picture_button.h"
#include "widgets/plain_text.h"
#include <QGridLayout>
#include <QLineEdit>
#include <QVBoxLayout>
#include <algorithm>
#include <anvil/chart/method_card.h>
#include <anvil/methods/method.h>
#include <utility>

namespace anvil::app {

namespace {

int cardWidth() { return grown(116); }
constexpr double drawnAt = 0.58;

} // namespace

MethodCards::MethodCards(QWidget* parent) : QWidget(parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    m_search = field("methodSearch", tr("find one by a word: glue, bend, wire, screw …"), 340);
    m_search->setAccessibleName(tr("Find a method"));
    layout->addWidget(m_search);
    m_cards = new QWidget;
    m_grid = new QGridLayout(m_cards);
    m_grid->setContentsMargins(0, 0, 0, 0);
    m_grid->setSpacing(6);
    layout->addWidget(m_cards);
    auto* nothing = plainLabel(
        tr("No method answers to that word. Try what is done to the piece: pull, press, bend, twist."));
    nothing->setWordWrap(true);
    layout->addWidget(m_nothing = nothing);
    for (const auto* method : methods::all()) {
        auto* button = new PictureButton(chart::methodCard(*method), qs(method->title));
        button->setScale(drawnAt);
        button->setCheckable(true);
        setTip(button, qs(method->measures));
        const std::string key(method->key);
        connect(button, &QAbstractButton::clicked, this, [this, key] {
            m_folded = m_folding && !(m_folded && key == m_chosen);
            choose(key);
            arrange();
            emit picked();
        });
        m_all.push_back({key, button});
    }
    connect(m_search, &QLineEdit::textChanged, this, &MethodCards::arrange);
    arrange();
}

void MethodCards::choose(const std::string& key) {
    m_chosen = key;
    if (key.empty() && std::exchange(m_folded, false)) arrange();
    for (const auto& card : m_all)
        card.button->setChecked(card.key == key);
}

void MethodCards::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    if (std::max(1, width() / cardWidth()) != m_columns) arrange();
}

/// Those that are found, best first, as many to a row as there is room for.
void MethodCards::arrange() {
    for (const auto& card : m_all) {
        m_grid->removeWidget(card.button);
        card.button->hide();
    }
    for (int c = 0; c < m_grid->columnCount(); ++c)
        m_grid->setColumnStretch(c, 0);
    m_columns = std::max(1, width() / cardWidth());
    m_search->setVisible(!m_folded);
    int place = 0;
    for (const auto* method : methods::search(m_search->text().toStdString())) {
        const auto card =
            std::find_if(m_all.begin(), m_all.end(), [&](const Card& c) { return c.key == method->key; });
        if (card == m_all.end() || (m_folded && card->key != m_chosen)) continue;
        m_grid->addWidget(card->button, place / m_columns, place % m_columns);
        card->button->show();
        ++place;
    }
    for (int c = 0; c < m_columns; ++c)
        m_grid->setColumnStretch(c, 1);
    m_nothing->setVisible(place == 0);
}

} // namespace anvil::app
