// Boost's distributions, without exceptions: what cannot be told is NaN, and whoever asks looks.
#pragma once

#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <optional>

namespace anvil::stats {

namespace quietly {
using namespace boost::math::policies;
using Policy = policy<domain_error<ignore_error>, pole_error<ignore_error>, overflow_error<ignore_error>,
                      evaluation_error<ignore_error>, rounding_error<ignore_error>>;
/// In double throughout, a relative error of some 1e-14: a large family asks for tens of thousands.
using InDouble = normalise<Policy, promote_double<false>>::type;
using StudentsT = boost::math::students_t_distribution<double, InDouble>;
using NonCentralT = boost::math::non_central_t_distribution<double, Policy>;
using Normal = boost::math::normal_distribution<double, Policy>;
} // namespace quietly

/// The value if it is a number; else nothing.
inline std::optional<double> finite(double v) { return std::isfinite(v) ? std::optional(v) : std::nullopt; }

} // namespace anvil::stats
