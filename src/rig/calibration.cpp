#include <anvil/rig/calibration.h>

#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::rig {

bool Check::passed() const { return known > 0 && std::abs(shown - known) <= tolerance * known; }

namespace {
std::string howFarOff(const Check& c) {
    if (!(c.known > 0)) return "a check needs something known above zero";
    return fmt::format("{} off, {} {}", quantity::percent(std::abs(c.shown - c.known) / c.known),
                       c.passed() ? "within" : "more than", quantity::percent(c.tolerance));
}
} // namespace

std::string sentence(const Check& c, const quantity::Unit& unit) {
    return fmt::format("Shown {} for {}: {}.", quantity::withUnit(c.shown, unit),
                       quantity::withUnit(c.known, unit), howFarOff(c));
}

std::vector<std::string> problems(const CalibrationRecord& record, const std::string& whose,
                                  const std::string& today) {
    std::vector<std::string> out;
    const auto prefix = whose.empty() ? whose : whose + ": ";
    if (const auto table = Calibration::make(record.points); !table)
        out.push_back(prefix + table.error().message);
    if (!record.until.empty() && record.until < today)
        out.push_back(fmt::format("{}The calibration ran out on {}.", prefix, record.until));
    if (!record.checks.empty() && !record.checks.back().passed())
        out.push_back(fmt::format("{}The last look at a known weight did not pass: {}.", prefix,
                                  howFarOff(record.checks.back())));
    return out;
}

} // namespace anvil::rig
