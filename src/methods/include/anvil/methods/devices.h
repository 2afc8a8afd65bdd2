// What each device of a hauling system loses, from what several systems gave.
#pragma once

#include <anvil/quantity/error.h>
#include <optional>
#include <string>
#include <vector>

namespace anvil::methods {

/// How a line is led: over a redirect at the input, if there is one, and over devices from the input on.
struct Reeving {
    std::string redirect{};           ///< the device at the input that only turns the line; empty: none
    std::vector<std::string> devices; ///< the nearest to the input first
    bool operator==(const Reeving&) const = default;
};

/// What it gives where each device passes on the share `efficiency` of what it gets:
/// e₀·(1 + e₁ + e₁e₂ + …).
double advantageOf(const Reeving& reeving, const std::vector<double>& redirectAndDevices);

/// A measured advantage of a reeving; `sd`: of the measured value, 0: as good as the others.
struct Hauled {
    Reeving reeving;
    double advantage = 0, sd = 0;
};

/// What a device passes on.
struct DeviceEfficiency {
    std::string device;
    std::optional<double> efficiency;      ///< 0 … 1; empty where it cannot be told apart
    std::optional<double> standardError;   ///< empty with as many unknowns as rigs, or at an end of the range
    bool atLimit = false;                  ///< it came out at 0 or 1
    std::vector<std::string> notApartFrom; ///< devices whose shares only go together
};

/// The efficiencies that fit best by least squares, bounded to 0 … 1 (Gauss–Newton with a ridge that is
/// lessened, Levenberg 1944, on the free ones; standard errors from the curvature, Seber and Wild 2003 §2.1).
/// Error: no rig, or an advantage that is not above zero.
Expected<std::vector<DeviceEfficiency>> deviceEfficiencies(const std::vector<Hauled>& rigs);

/// The best place for a device: what each order of the same devices would give, by trying them all; eight
/// devices at most.
struct Order {
    std::vector<std::string> devices; ///< the nearest to the input first
    double advantage = 0;
};
/// Best first. Empty: more than eight devices, or one without an efficiency.
std::vector<Order> everyOrder(const Reeving& reeving, const std::vector<DeviceEfficiency>& known);

} // namespace anvil::methods
