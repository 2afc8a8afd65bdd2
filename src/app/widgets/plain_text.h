// Text that came from a project, a file or a device is shown as it is: never taken for markup, which could
// make the window read any file it names.
#pragma once

#include <QLabel>
#include <QString>

class QPoint;
class QWidget;

namespace anvil::app {

/// A label for plain text. The only way to make one: ./dev lint refuses others.
QLabel* plainLabel(const QString& text = {}, QWidget* parent = nullptr);

/// A text as a tool tip shows it to the letter; Qt takes what looks like markup for markup there.
QString plainTip(const QString& text);
/// Sets the tool tip of a widget, action or item.
template <class T> void setTip(T* of, const QString& text) { of->setToolTip(plainTip(text)); }
/// Shows or, when empty, hides a tool tip now.
void showTip(const QPoint& at, const QString& text, QWidget* of);

} // namespace anvil::app
