// Parts of a report, made one by one.
#pragma once

#include <anvil/report/document.h>

namespace anvil::report {

inline QString text(std::string_view s) {
    return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}

/// Every pull with what it showed of the method's first metrics, how it stands and what was said of it.
Table pullTable(const Source& source, const Units& units);

/// What every channel showed at the instants that were marked; no rows where nothing was.
Table steadyTable(const Source& source, const Units& units);

/// How it was tested, so that others can repeat it: method, speed, what the steps of a scale mean, and the
/// rigs with their load path and calibration.
QStringList testedHow(const Source& source, const Units& units);

} // namespace anvil::report
