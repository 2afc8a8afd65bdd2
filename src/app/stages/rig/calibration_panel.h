// Calibration: from reading to true load, and looks at a known weight.
#pragma once

#include "widgets/panel.h"

class QListWidget;
class QTableWidget;

namespace anvil::app {

class PictureView;

class CalibrationPanel : public Panel {
    Q_OBJECT
public:
    explicit CalibrationPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void edited();
    void takePoint();
    void check();
    void saveDates();
    QTableWidget* m_table;
    PictureView* m_picture;
    QLabel* m_sentence;
    QLineEdit *m_calibrated, *m_expires, *m_known, *m_tolerance;
    QListWidget* m_checks;
};

} // namespace anvil::app
