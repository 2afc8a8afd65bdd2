// The k-th least of many numbers, several at once.
#pragma once

#include <array>
#include <span>
#include <vector>

namespace anvil::stats {

/// The values that would stand at these places if all were sorted. By counting in even bins and sorting only
/// those asked for, so that a pass over the numbers is most of the work. `values` is not empty and holds
/// finite numbers; the places lie below its size.
std::array<double, 4> orderStatistics(std::span<const double> values, std::array<std::size_t, 4> places);

} // namespace anvil::stats
