// Calibration: from reading to true load, and looks at a known weight.
#pragma once

#include "shell/rig_desk.h"
#include "widgets/panel.h"

class QComboBox;
class QListWidget;
class QPushButton;
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
    /// The further channel whose table is shown; below 0: the load.
    int channel() const;
    std::vector<rig::CalibrationPoint>& tableOf(rig::Setup& setup) const;
    const quantity::Unit& unit() const;
    double rawNow(const work::Live& live) const;
    QComboBox* m_channel;
    QPushButton* m_look;
    QTableWidget* m_table;
    PictureView* m_picture;
    QLabel* m_sentence;
    QLineEdit *m_calibrated, *m_expires, *m_known, *m_tolerance;
    QListWidget* m_checks;
};

} // namespace anvil::app
