// Forecasts: who expects what of a square before it is pulled, and how right they were.
#pragma once

#include "widgets/panel.h"

class QTableWidget;

namespace anvil::app {

class NumberBox;
class SquareBox;

class ForecastPanel : public Panel {
    Q_OBJECT
public:
    explicit ForecastPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void save();
    void forget();
    SquareBox* m_square;
    QLabel* m_scores;
    QLineEdit *m_value, *m_travel, *m_goesFirst, *m_by, *m_source;
    NumberBox* m_spread;
    QTableWidget* m_table;
};

} // namespace anvil::app
