#include "widgets/edited.h"

namespace anvil::app {
namespace {

constexpr auto shown = "shown"; // the property that holds what the program put there

} // namespace

bool edited(const QLineEdit* field) {
    if (!field->isModified()) return false;
    const auto before = field->property(shown);
    return !before.isValid() || field->text().trimmed() != before.toString().trimmed();
}

void whenEdited(QLineEdit* field, QObject* context, const std::function<void()>& then) {
    field->setProperty(shown, field->text());
    // setText() takes the mark of a change away before it tells of the new text; typing sets it.
    QObject::connect(field, &QLineEdit::textChanged, field, [field](const QString& text) {
        if (!field->isModified()) field->setProperty(shown, text);
    });
    QObject::connect(field, &QLineEdit::editingFinished, context, [field, then] {
        if (edited(field)) then();
    });
}

} // namespace anvil::app
