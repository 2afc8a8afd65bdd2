#include "widgets/undo_keys.h"

#include "widgets/edited.h"
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QCoreApplication>
#include <QKeyEvent>
#include <QPlainTextEdit>
#include <QTextDocument>

namespace anvil::app {
namespace {

const QLineEdit* lineIn(QObject* watched) {
    if (auto* edit = qobject_cast<QLineEdit*>(watched)) return edit;
    if (auto* box = qobject_cast<QComboBox*>(watched)) return box->lineEdit();
    if (auto* box = qobject_cast<QAbstractSpinBox*>(watched)) return box->findChild<QLineEdit*>();
    return nullptr;
}

/// Nothing of this field's own could be taken back.
bool untouched(QObject* watched) {
    if (const auto* edit = lineIn(watched)) return edit->text().isEmpty() || !edited(edit);
    if (const auto* text = qobject_cast<QPlainTextEdit*>(watched))
        return text->document()->isEmpty() || !text->document()->isUndoAvailable();
    return false;
}

} // namespace

UndoKeys::UndoKeys(QObject* parent) : QObject(parent) {
    QCoreApplication::instance()->installEventFilter(this);
}

bool UndoKeys::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::ShortcutOverride) return false;
    auto* key = static_cast<QKeyEvent*>(event);
    if (!key->matches(QKeySequence::Undo) && !key->matches(QKeySequence::Redo)) return false;
    if (!untouched(watched)) return false;
    event->ignore(); // not this field's: the window's shortcut follows
    return true;
}

} // namespace anvil::app
