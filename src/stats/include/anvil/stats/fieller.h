// The interval of a ratio of two means without the logarithm: Fieller's.
#pragma once

#include <anvil/stats/summary.h>

namespace anvil::stats {

/// The 95 % interval of mean a over mean b by Fieller's theorem (1954) for independent groups, each by its
/// own spread, with the degrees of freedom of Welch and Satterthwaite on the ratio's scale. Empty: a side is
/// censored or has fewer than two values, a mean that is not positive, or b so uncertain that the interval
/// has no ends.
std::optional<std::pair<double, double>> fiellerInterval(const Summary& a, const Summary& b);

} // namespace anvil::stats
