// A rig is never left pulling: it is told to stop before the window closes, the program is ended, the desktop
// session ends, or the machine goes to sleep.
#pragma once

#include "shell/session.h"

class QSocketNotifier;

namespace anvil::app {

class RigGuard : public QObject {
    Q_OBJECT
public:
    explicit RigGuard(Session& session, QWidget* window);
    ~RigGuard() override;

    /// Whether the window may close. Under load the rig is told to stop first, and then it is asked.
    bool mayClose();
    /// SIGTERM, SIGINT and SIGHUP stop the rig, and then the program ends as if it had been closed.
    void watchSignals();

public slots:
    void stopNow();
    void machineSleeps(bool begins); ///< as the login manager says it

private:
    Session& m_session;
    QWidget* m_window;
    QSocketNotifier* m_notifier = nullptr;
};

} // namespace anvil::app
