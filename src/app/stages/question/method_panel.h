// Method: how it is tested, what is wanted of it, what is the same for every piece, and where a square
// differs.
#pragma once

#include "widgets/panel.h"

class QCheckBox;
class QComboBox;
class QGridLayout;
class QSpinBox;

namespace anvil::app {

class PictureView;

class MethodPanel : public Panel {
    Q_OBJECT
public:
    explicit MethodPanel(Session& session, QWidget* parent = nullptr);

private:
    QLayout* makeMethod();
    QLayout* makeTargets();
    QLayout* makePulled();
    void fill() override;
    void saveTargets();
    void savePulled();
    void saveSquare();
    /// Reads a length a second, such as "10 mm/min"; nothing when it is empty.
    bool speedFrom(QLineEdit* edit, std::optional<double>& target);
    QString speedText(const std::optional<double>& value) const;
    QComboBox *m_method, *m_direction, *m_squareMethod, *m_otherEnd;
    QLabel *m_about, *m_square, *m_to, *m_otherEndLabel;
    PictureView* m_picture;
    QLineEdit *m_part, *m_need, *m_ceiling, *m_low, *m_high, *m_connector, *m_speed, *m_squareConnector,
        *m_squareSpeed;
    QSpinBox* m_joints;
    QCheckBox* m_reused;
};

} // namespace anvil::app
