#include "widgets/edited.h"
#include <QApplication>
#include <QPointer>
#include <QTimer>

namespace anvil::app {
namespace {

constexpr auto shown = "shown"; // the property that holds what the program put there

/// Notes what the program shows; what is being typed is none of that.
void noteShown(QLineEdit* field) {
    if (!field->isModified()) field->setProperty(shown, field->text());
}

} // namespace

bool edited(const QLineEdit* field) {
    if (!field->isModified()) return false;
    const auto before = field->property(shown);
    return !before.isValid() || field->text().trimmed() != before.toString().trimmed();
}

void whenEdited(QLineEdit* field, QObject* context, const std::function<void()>& then) {
    noteShown(field);
    // setText() takes the mark of a change away before it tells of the new text; typing sets it.
    QObject::connect(field, &QLineEdit::textChanged, field, [field] { noteShown(field); });
    // Of a text that is put there once more it tells nothing: asked for where typing may begin.
    QObject::connect(qApp, &QApplication::focusChanged, field, [field](QWidget*, QWidget* now) {
        if (now == field) noteShown(field);
    });
    QObject::connect(field, &QLineEdit::editingFinished, context, [field, then] {
        if (!edited(field)) return;
        const QPointer<QLineEdit> still(field);
        then();
        if (!still) return;
        noteShown(field);
        QTimer::singleShot(0, field, [field] { noteShown(field); }); // what is shown anew a moment later
    });
}

} // namespace anvil::app
