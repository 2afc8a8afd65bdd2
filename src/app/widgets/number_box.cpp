#include "widgets/number_box.h"

#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

NumberBox::NumberBox(QWidget* parent) : QDoubleSpinBox(parent) {
    setKeyboardTracking(false);
    setLocale(QLocale::c());
}

void NumberBox::showNumber(double exact) {
    m_exact = exact;
    setValue(exact);
    m_shown = value();
}

double NumberBox::exact() const { return changed() ? value() : m_exact; }

QValidator::State NumberBox::validate(QString& text, int&) const {
    auto plain = text;
    if (plain.endsWith(suffix())) plain.chop(suffix().size());
    plain = plain.trimmed();
    if (plain.isEmpty() || plain == QLatin1String("-") || plain.endsWith('.') || plain.endsWith(','))
        return QValidator::Intermediate;
    const auto number = quantity::parseNumber(plain.toStdString());
    if (!number) return QValidator::Intermediate; // such as "1,250": said when it is left
    return *number >= minimum() && *number <= maximum() ? QValidator::Acceptable : QValidator::Intermediate;
}

double NumberBox::valueFromText(const QString& text) const {
    auto plain = text;
    if (plain.endsWith(suffix())) plain.chop(suffix().size());
    return quantity::parseNumber(plain.trimmed().toStdString()).value_or(value());
}

QString NumberBox::textFromValue(double value) const {
    return QString::fromStdString(quantity::fixed(value, decimals()));
}

} // namespace anvil::app
