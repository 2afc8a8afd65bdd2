// The density of the location at one scale, tabulated.
#pragma once

#include "location_scale.h"

namespace anvil::stats {

/// ∝ L(μ) at one σ, on an even grid of μ.
struct Slice {
    double scale = 0, top = 0;              ///< σ, and the μ of the greatest likelihood
    double logIntegral = 0;                 ///< ln ∫L dμ
    double from = 0, step = 0;              ///< the grid
    std::vector<double> density, cumulated; ///< over it; ∫ is 1
    double exact = 0, logSum = 0; ///< of a Weibull in closed form, without a grid: r, and ln Σ e^(y/σ)
    /// P(μ ≤ location).
    double below(double location) const;
    /// The μ below which a share u lies, 0 < u < 1.
    double drawn(double u) const;
    /// The expected value of a function of μ.
    template <class F> double expected(const F& f) const {
        double sum = 0;
        if (exact > 0) { // at the middles of equal shares
            constexpr int strata = 256;
            for (int k = 0; k < strata; ++k)
                sum += f(drawn((k + 0.5) / strata));
            return sum / strata;
        }
        for (std::size_t k = 0; k < density.size(); ++k) // its ends are nothing
            sum += density[k] * f(from + step * static_cast<double>(k));
        return step * sum;
    }
};

/// Whether a Weibull sample holds exact and above values only, so that μ is integrated in closed form:
/// e^(−μ/σ)·Σ e^(y/σ) has the gamma law with the number of exact values (Lawless 2003, 5.4).
bool isClosed(Family family, const std::vector<Observation>& all);

/// At σ = `scale`; `from` is somewhere near the top. For a likelihood that is concave in μ, as all of these
/// are.
Slice sliceAt(Family family, const std::vector<Observation>& all, double scale, double from);

} // namespace anvil::stats
