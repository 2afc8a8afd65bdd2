// What the devices of hauling systems pass on, from what their reevings gave.
#pragma once

#include <anvil/methods/devices.h>
#include <anvil/results/results.h>

namespace anvil::results {

/// One reeving in one condition, as measured and as its devices would have it.
struct MeasuredReeving {
    Id option = 0, condition = 0;
    std::size_t pulls = 0;
    methods::Hauled hauled;            ///< the mean advantage, and its standard error where two pulls tell it
    std::optional<double> predicted{}; ///< from the efficiencies; empty where one cannot be told
};

struct DeviceStudy {
    std::vector<methods::DeviceEfficiency> devices; ///< best first, those that cannot be told last
    std::vector<MeasuredReeving> reevings;
    Id longest = 0;                     ///< the option with the most devices of unlike efficiency
    std::vector<methods::Order> orders; ///< its devices in every order, best first; empty: nothing to try
};

/// Of a study whose plan says how its options are reeved. Error: nothing is reeved, or nothing was measured
/// of what is.
Expected<DeviceStudy> devicesOf(const Results& results);

} // namespace anvil::results
