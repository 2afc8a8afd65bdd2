#include "widgets/offer_rows.h"

#include "shell/session.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QPushButton>

namespace anvil::app {

namespace {

constexpr int mostShown = 3;

} // namespace

OfferRows::OfferRows(QWidget* parent) : QWidget(parent) {
    m_layout = new QVBoxLayout(this);
    m_layout->setContentsMargins(0, 0, 0, 0);
    m_layout->setSpacing(4);
}

void OfferRows::show(const pages::Offers& offers) {
    while (auto* item = m_layout->takeAt(0)) {
        if (item->widget()) { // it may be what has just been clicked
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
    if (offers.offers.empty()) {
        auto* none = plainLabel(qs(offers.none));
        none->setWordWrap(true);
        return m_layout->addWidget(none);
    }
    const int all = static_cast<int>(offers.offers.size());
    const int shown = m_unfolded || all <= mostShown + 1 ? all : mostShown;
    for (int i = 0; i < shown; ++i)
        m_layout->addWidget(rowOf(offers.offers[static_cast<std::size_t>(i)], i == 0 && offers.first));
    if (shown == all) return;
    auto* more = new QPushButton(tr("%1 more").arg(all - shown));
    connect(more, &QPushButton::clicked, this, [this, offers] {
        m_unfolded = true;
        show(offers);
    });
    m_layout->addWidget(more, 0, Qt::AlignLeft);
}

QWidget* OfferRows::rowOf(const pages::Offer& offer, bool first) {
    auto* row = new QWidget;
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* text = plainLabel(qs(offer.sentence));
    text->setWordWrap(true);
    text->setTextInteractionFlags(Qt::TextSelectableByMouse);
    layout->addWidget(text, 1);
    for (const auto& [key, title, action] : offer.buttons) {
        auto* button = new QPushButton(qs(title));
        button->setObjectName(first ? QStringLiteral("primary") : qs(key));
        button->setAccessibleDescription(text->text());
        first = false;
        connect(button, &QPushButton::clicked, this, [this, action = action] { emit wanted(action); });
        layout->addWidget(button);
    }
    return row;
}

} // namespace anvil::app
