// From what a sensor shows to what is true: zero, sign and a calibration table.
#pragma once

#include <anvil/quantity/calibration.h>
#include <anvil/quantity/error.h>
#include <anvil/quantity/unit.h>
#include <string>
#include <vector>

namespace anvil::rig {

using quantity::Calibrated;
using quantity::Calibration;
using quantity::CalibrationFit;
using quantity::CalibrationPoint;

/// What a look at something known, such as a weight, said of a sensor.
struct Check {
    std::string at;                                ///< ISO 8601
    double known = 0, shown = 0, tolerance = 0.01; ///< SI, SI, share of the known
    std::string unit = "N";                        ///< the SI unit of both
    bool passed() const;
    bool operator==(const Check&) const = default;
};
/// "Shown 98.6 N for 98.1 N: 0.5 % off, within 1 %." In a unit of what it measures.
std::string sentence(const Check& check, const quantity::Unit& unit);

/// Everything on record about how a sensor's readings become true.
struct CalibrationRecord {
    std::vector<CalibrationPoint> points;
    std::string from, until; ///< yyyy-mm-dd; empty: not on record
    std::vector<Check> checks;
    bool operator==(const CalibrationRecord&) const = default;
};

/// What is wrong with a record, as sentences; each begins with `whose` and a colon where it is not empty.
/// `today` is yyyy-mm-dd and tells whether it has run out.
std::vector<std::string> problems(const CalibrationRecord& record, const std::string& whose,
                                  const std::string& today);

} // namespace anvil::rig
