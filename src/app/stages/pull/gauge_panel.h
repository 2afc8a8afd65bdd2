// Gauges read again over hours and days: what is due, and the reading of each piece.
#pragma once

#include "widgets/panel.h"
#include <anvil/plan/next.h>

class QCheckBox;
class QTableWidget;

namespace anvil::app {

class GaugePanel : public Panel {
    Q_OBJECT
public:
    explicit GaugePanel(Session& session, QWidget* parent = nullptr);

protected:
    void showEvent(QShowEvent* event) override;

private:
    void fill() override;
    void keep();
    void saveEvery();
    QLabel* m_sentence;
    QLineEdit *m_every, *m_value;
    QCheckBox* m_unloaded;
    QTableWidget* m_table;
    std::vector<plan::GaugeState> m_rows;
};

} // namespace anvil::app
