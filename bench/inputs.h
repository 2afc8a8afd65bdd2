// What the benchmarks run on; made once.
#pragma once

#include <anvil/curve/curve.h>
#include <string>

namespace anvil::bench {

/// A size, or a thousandth of it where ANVIL_BENCH_TINY is set: then the numbers mean nothing, but everything
/// is run once.
std::size_t sized(std::size_t n);

/// A three-column log of so many rows: time, force, displacement, as a logger prints them.
const std::string& log(std::size_t rows);

/// A pull of n samples: zero, a straight rise with noise, a break and a tail.
curve::Curve pull(std::size_t n);

} // namespace anvil::bench
