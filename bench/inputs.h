// What the benchmarks run on; made once.
#pragma once

#include <anvil/curve/curve.h>
#include <string>

namespace anvil::bench {

/// A three-column log of so many rows: time, force, displacement, as a logger prints them.
const std::string& log(std::size_t rows);

/// A pull of n samples: zero, a straight rise with noise, a break and a tail.
curve::Curve pull(std::size_t n);

} // namespace anvil::bench
