// A group in which some values are only bounds, summarised by a family fitted to it.
#pragma once

#include <anvil/stats/fit.h>

namespace anvil::stats {

/// As `summarise`; where some values are bounds and the family can be fitted, mean, sd and cv are the fitted
/// family's, the mean's interval comes from the density ∝ L(μ, σ)/σ (three exact values or more) and the
/// median is Kaplan and Meier's, if it is reached; the typical value is the fitted family's median. Without a
/// fit the mean counts bounds at their limit.
Summary summarise(std::span<const Value> values, Family family);
/// The same without the interval, which takes a hundred times as long.
Summary summariseFast(std::span<const Value> values, Family family);

/// Has a complete group beside others with bounds speak of the same thing as they do: its typical value
/// becomes the median of the fitted family, with its 95 % interval (Student's t on the location of normal and
/// log-normal, else the density). It stays as it was where the family cannot be fitted.
void takeFittedMedian(Summary& summary, std::span<const Value> values, Family family);

} // namespace anvil::stats
