#include "widgets/say.h"

#include <QCoreApplication>
#include <QWidget>

namespace anvil::app {

QEvent::Type SayEvent::kind() {
    static const auto type = static_cast<QEvent::Type>(QEvent::registerEventType());
    return type;
}

void say(QWidget* from, const QString& text, bool problem) {
    SayEvent event(text, problem);
    QCoreApplication::sendEvent(from->window(), &event);
}

} // namespace anvil::app
