// Keeps the screen from going dark while somebody at the rig cannot touch it.
#pragma once

#include <QDBusConnection>
#include <QString>

namespace anvil::app {

/// Asks the desktop by its screen-saver interface on the session bus; does nothing where there is none.
class Wakefulness {
public:
    explicit Wakefulness(const QDBusConnection& bus = QDBusConnection::sessionBus()) : m_bus(bus) {}
    ~Wakefulness() { keep(false, {}); }
    Wakefulness(const Wakefulness&) = delete;
    Wakefulness& operator=(const Wakefulness&) = delete;
    /// On: the screen stays on until it is off again. `why` is what the desktop may show of it.
    void keep(bool on, const QString& why);
    bool kept() const { return m_cookie != 0; }

private:
    QDBusConnection m_bus;
    uint m_cookie = 0;
    bool m_on = false;
};

} // namespace anvil::app
