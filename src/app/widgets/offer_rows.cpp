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
    if (offers.sentences.empty()) {
        auto* none = plainLabel(qs(offers.none));
        none->setWordWrap(true);
        return m_layout->addWidget(none);
    }
    const int all = static_cast<int>(offers.sentences.size());
    const int shown = m_unfolded || all <= mostShown + 1 ? all : mostShown;
    for (int i = 0; i < shown; ++i)
        m_layout->addWidget(rowOf(offers, i));
    if (shown == all) return;
    auto* more = new QPushButton(tr("%1 more").arg(all - shown));
    connect(more, &QPushButton::clicked, this, [this, offers] {
        m_unfolded = true;
        show(offers);
    });
    m_layout->addWidget(more, 0, Qt::AlignLeft);
}

QWidget* OfferRows::rowOf(const pages::Offers& offers, int which) {
    auto* row = new QWidget;
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* text = plainLabel(qs(offers.sentences[static_cast<std::size_t>(which)]));
    text->setWordWrap(true);
    text->setTextInteractionFlags(Qt::TextSelectableByMouse);
    layout->addWidget(text, 1);
    bool first = which == 0 && offers.first;
    for (const auto& [key, title] : offers.actions) {
        auto* button = new QPushButton(qs(title));
        button->setObjectName(first ? QStringLiteral("primary") : qs(key));
        button->setAccessibleDescription(text->text());
        first = false;
        connect(button, &QPushButton::clicked, this,
                [this, which, key = qs(key)] { emit acted(objectName(), key, which); });
        layout->addWidget(button);
    }
    return row;
}

} // namespace anvil::app
