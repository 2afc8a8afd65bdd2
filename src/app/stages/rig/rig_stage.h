// Rig: what the machine can show. Until a rig is connected, only its limit for recorded pulls.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QLabel;
class QLineEdit;

namespace anvil::app {

class RigStage : public QWidget {
    Q_OBJECT
public:
    explicit RigStage(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    void apply();
    Session& m_session;
    QLabel *m_sentence, *m_state, *m_card;
    QLineEdit* m_limit;
    QWidget* m_body;
};

} // namespace anvil::app
