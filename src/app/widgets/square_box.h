// Chooses a square of the board: an option in a condition. It follows the selection and leads it.
#pragma once

#include "shell/session.h"
#include <QComboBox>

namespace anvil::app {

class SquareBox : public QComboBox {
    Q_OBJECT
public:
    explicit SquareBox(Session& session, QWidget* parent = nullptr);

private:
    void fill();
    Session& m_session;
};

} // namespace anvil::app
