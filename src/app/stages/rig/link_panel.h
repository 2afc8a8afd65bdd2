// Connection: where the rig is reached, what arrives, and what its columns mean.
#pragma once

#include "widgets/panel.h"

class QComboBox;
class QPlainTextEdit;
class QPushButton;
class QTableWidget;

namespace anvil::app {

class LinkPanel : public Panel {
    Q_OBJECT
public:
    explicit LinkPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void tick();
    void guess();
    void save();
    void saveColumns();
    QLineEdit *m_name, *m_address, *m_rate, *m_forceQuery, *m_travelQuery, *m_moreQueries;
    QComboBox* m_protocol;
    QPushButton *m_connect, *m_guess;
    QLabel *m_state, *m_value, *m_queries, *m_further, *m_meaning;
    QPlainTextEdit* m_lines;
    QTableWidget* m_columns;
};

} // namespace anvil::app
