// The samples as they were logged, beside those that are read.
#pragma once

#include <anvil/curve/reading.h>
#include <vector>

namespace anvil::curve {

/// The loads as they were logged, spikes and all, at the samples of the cleaned curve: only the zero is taken
/// off and the sign turned as the reading did, so that both lie over each other; N. Empty where the raw curve
/// is another one.
std::vector<double> asLogged(const Curve& raw, const ReadCurve& read, double preload = 0);

/// The loads of a blow behind the low-pass it was read with, at the samples of the cleaned curve; empty where
/// it was read without one.
std::vector<double> filtered(const ReadCurve& read);

} // namespace anvil::curve
