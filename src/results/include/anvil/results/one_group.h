// What the values of one square say by themselves: fitted families, floors, values that stand apart.
#pragma once

#include <anvil/results/groups.h>
#include <anvil/stats/density.h>
#include <anvil/stats/floors.h>
#include <anvil/stats/outliers.h>
#include <array>

namespace anvil::results {

/// Shape and scale of a Weibull fit with their 95 % intervals.
struct WeibullIntervals {
    std::pair<double, double> shape, scale;
};

struct OneGroup {
    std::array<std::optional<stats::Fit>, 3> fits; ///< by stats::Family
    std::optional<WeibullIntervals> weibull;       ///< from three exact values on
    stats::Floors floors;
    std::optional<std::vector<stats::Outlier>>
        outliers; ///< by the order of the group's values; empty: cannot be told

    /// The fit of a family; empty where there is none.
    const std::optional<stats::Fit>& fit(stats::Family family) const {
        return fits[static_cast<std::size_t>(family)];
    }
};

/// What the values of a group say by themselves, those set aside left out; in the unit of the values.
OneGroup analyse(const Group& group);

/// A value that stands apart from its group.
struct Apart {
    std::size_t group = 0, value = 0; ///< index of the group, and of the value in it
    double p = 0;
};
/// Of all groups, in their order.
std::vector<Apart> apartOf(const std::vector<Group>& groups);

} // namespace anvil::results
