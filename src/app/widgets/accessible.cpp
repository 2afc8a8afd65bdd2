#include "widgets/accessible.h"

#include <QAbstractButton>
#include <QAbstractSpinBox>
#include <QBoxLayout>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QTableWidget>

namespace anvil::app {
namespace {

bool isInput(const QWidget* w) {
    return qobject_cast<const QLineEdit*>(w) || qobject_cast<const QComboBox*>(w) ||
           qobject_cast<const QAbstractSpinBox*>(w);
}

void name(QWidget* input, const QString& text) {
    if (!input->accessibleName().isEmpty() || text.isEmpty()) return;
    input->setAccessibleName(text);
}

/// Items in the order in which they are read: a label, then what it names.
void nameIn(const QLayout* layout) {
    QString said;
    for (int i = 0; i < layout->count(); ++i) {
        auto* item = layout->itemAt(i);
        if (const auto* inner = item->layout()) {
            nameIn(inner);
            continue;
        }
        auto* widget = item->widget();
        if (const auto* label = qobject_cast<QLabel*>(widget)) said = label->text();
        if (widget && isInput(widget)) name(widget, said);
    }
}

void nameInGrid(const QGridLayout* grid) {
    for (int r = 0; r < grid->rowCount(); ++r)
        for (int c = 1; c < grid->columnCount(); ++c) {
            const auto* item = grid->itemAtPosition(r, c);
            const auto* before = grid->itemAtPosition(r, c - 1);
            auto* widget = item ? item->widget() : nullptr;
            const auto* label = before ? qobject_cast<QLabel*>(before->widget()) : nullptr;
            if (widget && label && isInput(widget)) name(widget, label->text());
        }
}

} // namespace

void nameByLabels(QWidget* root) {
    for (auto* layout : root->findChildren<QLayout*>())
        if (const auto* grid = qobject_cast<QGridLayout*>(layout))
            nameInGrid(grid);
        else
            nameIn(layout);
    for (auto* table : root->findChildren<QTableWidget*>()) {
        QStringList heads;
        for (int k = 0; k < table->columnCount(); ++k)
            if (const auto* head = table->horizontalHeaderItem(k)) heads << head->text();
        name(table, heads.join(QStringLiteral(", ")));
    }
    for (auto* area : root->findChildren<QScrollArea*>()) // what is in it has the focus, and scrolls it
        if (area->accessibleName().isEmpty()) area->setFocusPolicy(Qt::NoFocus);
    for (auto* edit : root->findChildren<QLineEdit*>())
        if (!qobject_cast<QAbstractSpinBox*>(edit->parent()) && !qobject_cast<QComboBox*>(edit->parent()))
            name(edit, edit->placeholderText());
}

} // namespace anvil::app
