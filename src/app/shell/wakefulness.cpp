#include "shell/wakefulness.h"

#include <QDBusMessage>
#include <QVariant>

namespace anvil::app {
namespace {

QDBusMessage call(const char* method) {
    return QDBusMessage::createMethodCall("org.freedesktop.ScreenSaver", "/org/freedesktop/ScreenSaver",
                                          "org.freedesktop.ScreenSaver", QString::fromLatin1(method));
}

constexpr int patienceMs = 300; // a desktop that does not answer must not hold up the window

} // namespace

void Wakefulness::keep(bool on, const QString& why) {
    if (on == m_on) return;
    m_on = on;
    if (!m_bus.isConnected()) return;
    if (on) {
        const auto answer =
            m_bus.call(call("Inhibit") << QStringLiteral("Jaunty Anvil") << why, QDBus::Block, patienceMs);
        if (answer.type() == QDBusMessage::ReplyMessage && !answer.arguments().isEmpty())
            m_cookie = answer.arguments().first().toUInt();
        return;
    }
    if (m_cookie) m_bus.call(call("UnInhibit") << m_cookie, QDBus::NoBlock);
    m_cookie = 0;
}

} // namespace anvil::app
