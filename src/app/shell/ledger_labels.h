// The labels a ledger is made of.
#pragma once

#include "widgets/plain_text.h"
#include <QLabel>

namespace anvil::app {

inline QLabel* sectionLabel(const QString& text) {
    auto* label = plainLabel(text);
    label->setObjectName("section");
    return label;
}

/// Wrapped text that can be selected; `name`: by which it is styled and found.
inline QLabel* ledgerLabel(const char* name) {
    auto* label = plainLabel();
    label->setObjectName(name);
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    label->setTextFormat(Qt::PlainText);
    return label;
}

} // namespace anvil::app
