// The project's file is watched for being replaced or deleted by another program while it is open.
#pragma once

#include "shell/session.h"
#include <QTimer>

namespace anvil::app {

class PlaceWatch : public QObject {
    Q_OBJECT
public:
    /// `open` opens a project by its path.
    PlaceWatch(Session& session, QWidget* window, std::function<bool(const QString&)> open);

    /// Looks now. Where the file is not in place any more it is told once, and keeping what is open under
    /// another name is offered. False: it is not in place, and the tester wants to stay with it.
    bool look();

    static constexpr int everyMs = 2000;

private:
    bool offer(const QString& why);
    Session& m_session;
    QWidget* m_window;
    std::function<bool(const QString&)> m_open;
    QTimer m_timer;
    QString m_told; ///< the path it was told of
};

} // namespace anvil::app
