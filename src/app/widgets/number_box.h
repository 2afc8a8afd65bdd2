// A box for a number that may be typed with a point or a comma, whatever the desktop's language says.
#pragma once

#include <QDoubleSpinBox>

namespace anvil::app {

class NumberBox : public QDoubleSpinBox {
    Q_OBJECT
public:
    explicit NumberBox(QWidget* parent = nullptr);
    /// Shows a number that may have more digits than there is room for.
    void showNumber(double exact);
    /// The number: to the last digit as it was shown where nobody changed it.
    double exact() const;
    /// Whether somebody changed what was shown.
    bool changed() const { return value() != m_shown; }

protected:
    QValidator::State validate(QString& text, int& position) const override;
    double valueFromText(const QString& text) const override;
    QString textFromValue(double value) const override;

private:
    double m_exact = 0, m_shown = 0;
};

} // namespace anvil::app
