// From what a sensor shows to what is true: zero, sign and a calibration table.
#pragma once

#include <anvil/quantity/error.h>
#include <anvil/quantity/unit.h>
#include <memory>
#include <span>
#include <string>
#include <vector>

namespace anvil::rig {

/// One line of a calibration table, both in SI: what the sensor showed and what was true.
struct CalibrationPoint {
    double reading = 0, truth = 0;
    bool operator==(const CalibrationPoint&) const = default;
};

/// A value and whether it was read within the calibrated range.
struct Calibrated {
    double value = 0;
    bool inside = true; ///< false: beyond the table's end, a guess along the last chord; to be shown as one
};

/// The straight line through a table by least squares, and how far each point lies off it.
struct CalibrationFit {
    double slope = 1, offset = 0;
    std::vector<double> residuals; ///< truth − line, in the order of the points by reading
    double worst = 0;              ///< greatest |residual|
};

/// A calibration table as a curve: monotone cubic through the points (Fritsch & Carlson 1980; straight chords
/// for fewer than four), beyond them the last chord. Without points: one to one.
class Calibration {
public:
    Calibration() = default;
    /// Error: one point only, two equal readings, a table that goes up and down, a number that is none.
    static Expected<Calibration> make(std::vector<CalibrationPoint> points);

    Calibrated operator()(double reading) const;
    bool empty() const { return m_points.empty(); }
    const std::vector<CalibrationPoint>& points() const { return m_points; } ///< by reading
    double low() const { return m_points.front().reading; }
    double high() const { return m_points.back().reading; }
    /// Error: fewer than two points.
    Expected<CalibrationFit> line() const;

private:
    std::vector<CalibrationPoint> m_points;
    std::shared_ptr<const void> m_cubic; ///< boost's interpolator; shared, since it cannot change
};

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
