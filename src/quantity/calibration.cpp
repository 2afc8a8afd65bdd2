#include <anvil/quantity/calibration.h>

#include <math.h> // NOLINT: this version of the interpolator calls isnan without its namespace

#include <algorithm>
#include <anvil/quantity/print.h>
#include <boost/math/interpolators/pchip.hpp>
#include <cmath>
#include <fmt/format.h>

namespace anvil::quantity {

using Cubic = boost::math::interpolators::pchip<std::vector<double>>;

Expected<Calibration> Calibration::make(std::vector<CalibrationPoint> points) {
    Calibration c;
    if (points.empty()) return c;
    if (points.size() == 1)
        return fail("One point is no calibration: give at least two, such as nothing and a known weight.");
    for (const auto& p : points)
        if (!std::isfinite(p.reading) || !std::isfinite(p.truth))
            return fail("The calibration table holds something that is no number.");
    std::sort(points.begin(), points.end(),
              [](const auto& a, const auto& b) { return a.reading < b.reading; });
    const double direction = points[1].truth - points[0].truth;
    for (std::size_t i = 1; i < points.size(); ++i) {
        if (points[i].reading == points[i - 1].reading)
            return fail(fmt::format("The reading {} stands twice in the calibration table.",
                                    shortest(points[i].reading)));
        if ((points[i].truth - points[i - 1].truth) * direction <= 0)
            return fail(
                fmt::format("The calibration table turns round near the reading {}: the true load must "
                            "go one way only.",
                            shortest(points[i].reading)));
    }
    if (points.size() >= 4) {
        std::vector<double> x, y;
        for (const auto& p : points) {
            x.push_back(p.reading);
            y.push_back(p.truth);
        }
        c.m_cubic = std::make_shared<const Cubic>(std::move(x), std::move(y));
    }
    c.m_points = std::move(points);
    return c;
}

Calibrated Calibration::operator()(double reading) const {
    if (m_points.empty()) return {reading, true};
    const bool inside = reading >= low() && reading <= high();
    if (inside && m_cubic) return {(*std::static_pointer_cast<const Cubic>(m_cubic))(reading), true};
    auto b = std::upper_bound(m_points.begin(), m_points.end(), reading,
                              [](double r, const auto& p) { return r < p.reading; });
    b = std::clamp(b, m_points.begin() + 1, m_points.end() - 1);
    const auto& a = *(b - 1);
    return {a.truth + (reading - a.reading) * (b->truth - a.truth) / (b->reading - a.reading), inside};
}

Expected<CalibrationFit> Calibration::line() const {
    if (m_points.size() < 2) return fail("A line needs at least two points.");
    const auto n = static_cast<double>(m_points.size());
    double mx = 0, my = 0, xx = 0, xy = 0;
    for (const auto& p : m_points) {
        mx += p.reading / n;
        my += p.truth / n;
    }
    for (const auto& p : m_points) {
        xx += (p.reading - mx) * (p.reading - mx);
        xy += (p.reading - mx) * (p.truth - my);
    }
    CalibrationFit fit;
    fit.slope = xy / xx;
    fit.offset = my - fit.slope * mx;
    for (const auto& p : m_points) {
        fit.residuals.push_back(p.truth - fit.offset - fit.slope * p.reading);
        fit.worst = std::max(fit.worst, std::abs(fit.residuals.back()));
    }
    return fit;
}

} // namespace anvil::quantity
