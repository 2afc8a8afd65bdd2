// Weakest link: the parts in the load path, and how often each goes first.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QComboBox;
class QLabel;
class QTableWidget;

namespace anvil::app {

class ChainPanel : public QWidget {
    Q_OBJECT
public:
    explicit ChainPanel(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    void edited(int row, int column);
    void addFromResults();
    Session& m_session;
    bool m_filling = false;
    QTableWidget* m_table;
    QLabel* m_sentence;
    QComboBox* m_results;
};

} // namespace anvil::app
