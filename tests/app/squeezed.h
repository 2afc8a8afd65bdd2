// Whether what is on show has the room it needs.
#pragma once

#include <QStringList>

class QWidget;

namespace anvil::app {

/// What is wrong with what is on show now in a window, a line each: a control lower than its text, a button
/// outside of the window.
QStringList squeezedIn(QWidget* top);

} // namespace anvil::app
