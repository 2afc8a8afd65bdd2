// From what an instrument shows to what is true: a calibration table as a curve.
#pragma once

#include <anvil/quantity/error.h>
#include <memory>
#include <vector>

namespace anvil::quantity {

/// One line of a calibration table, both in SI: what the instrument showed and what was true.
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

    Calibrated operator()(double reading) const;    ///< what is true where `reading` is shown
    bool empty() const { return m_points.empty(); } ///< all is true as it is shown
    const std::vector<CalibrationPoint>& points() const { return m_points; } ///< by reading
    double low() const { return m_points.front().reading; } ///< least reading; of a table that is not empty
    double high() const { return m_points.back().reading; } ///< greatest reading, likewise
    /// Error: fewer than two points.
    Expected<CalibrationFit> line() const;

private:
    std::vector<CalibrationPoint> m_points;
    std::shared_ptr<const void> m_cubic; ///< boost's interpolator; shared, since it cannot change
};

} // namespace anvil::quantity
