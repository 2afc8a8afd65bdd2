// What a person changed in a field, told from what the program showed there.
#pragma once

#include <QLineEdit>
#include <functional>

namespace anvil::app {

/// Whether a person typed something else than what the program had put there. Digits that are only shown
/// never come back as data: a field that says "2452 N" of 2451.66 N and was only visited has nothing to save.
bool edited(const QLineEdit* field);

/// Calls `then` once somebody leaves the field, or presses Return in it, having changed what stood there.
void whenEdited(QLineEdit* field, QObject* context, const std::function<void()>& then);

} // namespace anvil::app
