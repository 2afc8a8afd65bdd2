// How many? What a number of replicates buys at the spread to be expected, in difference, money and time.
#pragma once

#include "widgets/panel.h"

class QTableWidget;

namespace anvil::app {

class PictureView;

class HowManyPanel : public Panel {
    Q_OBJECT
public:
    explicit HowManyPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void saveMinutes();
    QLabel *m_spread, *m_costs;
    QLineEdit* m_minutes;
    QTableWidget* m_schools;
    PictureView* m_power;
};

} // namespace anvil::app
