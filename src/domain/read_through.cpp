#include <anvil/domain/read_through.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::domain {
namespace {

/// The curve of a table; one to one where it is none.
quantity::Calibration curveOf(std::vector<quantity::CalibrationPoint> points) {
    auto made = quantity::Calibration::make(std::move(points));
    return made ? std::move(*made) : quantity::Calibration{};
}

} // namespace

quantity::Calibrated ReadThrough::felt(double read) const {
    const auto inFront = table.empty() ? quantity::Calibrated{read, true} : curveOf(table)(read);
    return {factor * inFront.value + offset, inFront.inside};
}

double ReadThrough::feltDoubt(double read, double u) const {
    if (table.empty()) return std::abs(factor) * u;
    const auto curve = curveOf(table);
    return std::abs(factor * (curve(read + u).value - curve(read - u).value)) / 2;
}

double ReadThrough::pathDoubt(double read) const {
    return doubt * std::abs(table.empty() ? read : curveOf(table)(read).value);
}

double ReadThrough::shown(double load) const {
    const double inFront = (load - offset) / factor;
    if (table.empty()) return inFront;
    auto turned = table;
    for (auto& p : turned)
        std::swap(p.reading, p.truth);
    return curveOf(std::move(turned))(inFront).value;
}

std::string standsBetween(const ReadThrough& path) {
    using quantity::Dimension;
    if (path.shows == Dimension::stress) return "its display shows a pressure";
    if (path.shows == Dimension::voltage) return "its display shows volts";
    if (path.shows != Dimension::force) return "its display shows divisions";
    if (path.factor == 1 && !path.table.empty()) return "its display has a calibration table";
    return fmt::format("the piece feels {} × what its display shows", quantity::significant(path.factor));
}

} // namespace anvil::domain
