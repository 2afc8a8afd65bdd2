// Rig: how it is reached, what it can do, how the load gets to the piece; and the limit of imported curves.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QLabel;
class QLineEdit;
class QTabWidget;

namespace anvil::app {

class RigStage : public QWidget {
    Q_OBJECT
public:
    explicit RigStage(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    void apply();
    Session& m_session;
    QLabel *m_sentence, *m_state, *m_card, *m_imported;
    QLineEdit* m_limit;
    QWidget* m_body;
    QTabWidget* m_tabs;
};

} // namespace anvil::app
