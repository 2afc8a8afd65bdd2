// Method: how it is tested, what is the same for every piece, and where a square differs.
#pragma once

#include "widgets/panel.h"

class QCheckBox;
class QComboBox;
class QGridLayout;
class QSpinBox;

namespace anvil::app {

class InputLines;
class MethodCards;
class PictureView;
class SquareBox;

class MethodPanel : public Panel {
    Q_OBJECT
public:
    explicit MethodPanel(Session& session, QWidget* parent = nullptr);

private:
    QLayout* makePulled();
    QLayout* makeSame();
    QLayout* makeApart();
    static void addLine(QGridLayout* grid, const QString& text, QWidget* widget);
    void fill() override;
    void savePulled();
    void saveSquare();
    /// Reads a length a second, such as "10 mm/min"; nothing when it is empty.
    bool speedFrom(QLineEdit* edit, std::optional<double>& target);
    QString speedText(const std::optional<double>& value) const;
    MethodCards* m_cards;
    InputLines* m_inputs;
    PictureView* m_sketch;
    QComboBox *m_squareMethod, *m_otherEnd;
    SquareBox* m_square;
    QLabel *m_about, *m_otherEndLabel;
    QLineEdit *m_connector, *m_speed, *m_squareConnector, *m_squareSpeed;
    QSpinBox* m_joints;
    QCheckBox* m_reused;
};

} // namespace anvil::app
