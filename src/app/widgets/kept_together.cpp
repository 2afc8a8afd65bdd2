#include "widgets/kept_together.h"

#include <QRegularExpression>

namespace anvil::app {

QString keptTogether(QString text) {
    static const QRegularExpression numberAndUnit(
        QStringLiteral("(\\d) (?=(?:%|N|kN|kgf|lbf|mm|in|J|s|min|h|d|MPa)(?![\\w/\u00b7]))"));
    return text.replace(numberAndUnit, QStringLiteral("\\1\u00a0"));
}

} // namespace anvil::app
