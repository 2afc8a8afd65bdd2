// Says when something is due: a step of the preparation, a gauge to be read again.
#pragma once

#include "shell/session.h"

namespace anvil::app {

class DueWatch : public QObject {
    Q_OBJECT
public:
    explicit DueWatch(Session& session);
    /// Looks now; also done every twenty seconds.
    void look();

private:
    Session& m_session;
    QString m_told; ///< what was last said to be due
};

} // namespace anvil::app
