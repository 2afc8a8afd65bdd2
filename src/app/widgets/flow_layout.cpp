#include "widgets/flow_layout.h"

#include <QWidget>
#include <algorithm>

namespace anvil::app {

namespace {

constexpr int between = 6, lines = 4;

/// As large as it would be, and as high as its wrapped words need at that width.
QSize sizeOf(const QLayoutItem& item) {
    auto size = item.sizeHint();
    if (item.hasHeightForWidth()) size.setHeight(std::max(size.height(), item.heightForWidth(size.width())));
    return size;
}

} // namespace

FlowLayout::FlowLayout(QWidget* parent) : QLayout(parent) { setContentsMargins(0, 0, 0, 0); }

FlowLayout::~FlowLayout() { qDeleteAll(m_items); }

QLayoutItem* FlowLayout::takeAt(int index) {
    return index >= 0 && index < m_items.size() ? m_items.takeAt(index) : nullptr;
}

QSize FlowLayout::sizeHint() const { return {600, heightForWidth(600)}; }

QSize FlowLayout::minimumSize() const {
    QSize out;
    for (const auto* item : m_items)
        if (!item->isEmpty()) out = out.expandedTo(item->minimumSize());
    return out;
}

void FlowLayout::setGeometry(const QRect& rect) {
    QLayout::setGeometry(rect);
    arrange(rect, true);
}

int FlowLayout::arrange(const QRect& rect, bool place) const {
    std::vector<std::pair<QLayoutItem*, int>> line; // and where it begins
    int x = rect.x(), y = rect.y(), high = 0;
    const auto finish = [&] {
        for (const auto& [item, at] : line) {
            const auto size = sizeOf(*item);
            if (place)
                item->setGeometry({at, y + (high - size.height()) / 2, std::min(size.width(), rect.width()),
                                   size.height()});
        }
        line.clear();
    };
    for (auto* item : m_items) {
        if (item->isEmpty()) continue; // hidden
        const auto size = sizeOf(*item);
        if (!line.empty() && x + size.width() > rect.x() + rect.width()) {
            finish();
            y += high + lines;
            x = rect.x();
            high = 0;
        }
        line.emplace_back(item, x);
        high = std::max(high, size.height());
        x += size.width() + between;
    }
    finish();
    return y + high - rect.y();
}

} // namespace anvil::app
