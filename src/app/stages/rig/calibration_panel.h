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
    rig::CalibrationRecord& recordOf(rig::Setup& setup) const;
    const quantity::Unit& unit() const;
    /// The unit of the readings, which stands above them: that of the device's column, else the usual one of
    /// what its display shows.
    const quantity::Unit& readUnit() const;
    /// What it shows now, before and behind its table; nothing and a message when nothing arrives.
    struct Shown {
        double raw = 0, value = 0;
    };
    std::optional<Shown> shown() const;
    QComboBox* m_channel;
    QTableWidget* m_table;
    PictureView* m_picture;
    QLabel *m_sentence, *m_knownLabel;
    QLineEdit *m_calibrated, *m_expires, *m_known, *m_tolerance;
    QListWidget* m_checks;
    QLabel* m_checksHead;
};

} // namespace anvil::app
