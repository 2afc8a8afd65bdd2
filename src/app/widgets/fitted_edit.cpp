#include "widgets/fitted_edit.h"

#include <algorithm>

namespace anvil::app {

FittedEdit::FittedEdit(const char* name, const QString& hint, int widest) : m_widest(widest) {
    setObjectName(QLatin1String(name));
    setPlaceholderText(hint);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
    connect(this, &QLineEdit::textChanged, this, [this] { updateGeometry(); });
}

void FittedEdit::setHint(const QString& hint) {
    setPlaceholderText(hint);
    updateGeometry();
}

QSize FittedEdit::sizeHint() const {
    const auto& shown = text().isEmpty() ? placeholderText() : text();
    return {std::clamp(fontMetrics().horizontalAdvance(shown) + 22 + textMargins().right(), 56, m_widest),
            QLineEdit::sizeHint().height()};
}

} // namespace anvil::app
