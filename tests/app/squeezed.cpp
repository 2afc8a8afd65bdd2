#include "squeezed.h"

#include <QAbstractButton>
#include <QAbstractScrollArea>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>

namespace anvil::app {
namespace {

/// The view it scrolls in, if any.
const QWidget* viewportOf(const QWidget* w) {
    for (const auto* p = w->parentWidget(); p; p = p->parentWidget())
        if (const auto* area = qobject_cast<const QAbstractScrollArea*>(p)) return area->viewport();
    return nullptr;
}

QString textOf(const QWidget* w) {
    if (const auto* b = qobject_cast<const QAbstractButton*>(w)) return b->text();
    if (const auto* e = qobject_cast<const QLineEdit*>(w))
        return e->text().isEmpty() ? e->placeholderText() : e->text();
    if (const auto* c = qobject_cast<const QComboBox*>(w)) return c->currentText();
    if (const auto* l = qobject_cast<const QLabel*>(w)) return l->text();
    return {};
}

} // namespace

QStringList squeezedIn(QWidget* top) {
    QStringList out;
    const QRect inside(QPoint(), top->size());
    for (auto* w : top->findChildren<QWidget*>()) {
        const auto text = textOf(w);
        if (!w->isVisible() || text.isEmpty() || w->window() != top) continue;
        const auto name =
            QStringLiteral("%1 \"%2\" (%3)")
                .arg(QString::fromLatin1(w->metaObject()->className()), text.left(40), w->objectName());
        if (w->height() + 1 < w->fontMetrics().height())
            out << name + QStringLiteral(" is %1 px high, its text %2")
                              .arg(w->height())
                              .arg(w->fontMetrics().height());
        const QRect at(w->mapTo(top, QPoint()), w->size());
        if (qobject_cast<QAbstractButton*>(w) && !viewportOf(w) && !inside.contains(at))
            out << name + QStringLiteral(" lies outside the window");
    }
    return out;
}
} // namespace anvil::app
