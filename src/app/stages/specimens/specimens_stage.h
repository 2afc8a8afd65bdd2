// Specimens: the pieces, their labels and squares; a mislabelled piece is moved here.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QComboBox;
class QLabel;
class QTableWidget;

namespace anvil::app {

class SpecimensStage : public QWidget {
    Q_OBJECT
public:
    explicit SpecimensStage(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    void follow();
    Session& m_session;
    bool m_filling = false;
    QLabel* m_sentence;
    QTableWidget* m_table;
    QComboBox *m_option, *m_condition;
};

} // namespace anvil::app
