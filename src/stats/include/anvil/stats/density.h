// What a small sample says of location and scale: the density ∝ L(μ, σ)/σ, by quadrature.
#pragma once

#include <anvil/stats/draws.h>
#include <anvil/stats/fit.h>
#include <vector>

namespace anvil::stats {

/// The density ∝ L(μ, σ)/σ of a family on its location–scale form. For complete normal data its intervals are
/// those of Student's t and its floors those of the non-central t (Jeffreys 1961; Lawless 2003, ch. 5); for
/// any data its bounds keep their promise at small n far better than the profile likelihood's. Relative error
/// of a quantile below 1e-6 of the scale.
class Density {
public:
    /// How fine σ is divided: quantiles of σ itself ask for `fine`.
    enum class Grid { usual, fine };
    /// Empty: no fit, or fewer than three exact values.
    static std::optional<Density> of(Family family, std::span<const Value> values, Grid grid = Grid::usual);

    /// P(μ + c·σ ≥ q).
    double atLeast(double c, double q) const;
    /// P(the family's mean ≥ q), q in the unit of the values.
    double meanAtLeast(double q) const;
    /// P(the next piece ≥ q), q in the unit of the values: the predictive distribution.
    double nextAtLeast(double q) const;
    /// So many draws of μ, whatever σ is.
    std::vector<double> drawn(Draws& random, int draws) const;
    /// The q that μ + c·σ exceeds with this probability, 0 < probability < 1.
    double exceeded(double c, double probability) const;
    /// The value, in the unit of the values, that the family's mean exceeds with this probability.
    double meanExceeded(double probability) const;
    /// The s that σ exceeds with this probability.
    double scaleExceeded(double probability) const;
    /// The lower bound, at a confidence, of the value that a share `share` of all pieces exceeds; in the unit
    /// of the values.
    double floor(double share, double confidence) const;
    const Fit& fit() const { return m_fit; }

    Density(const Density&);
    Density(Density&&) noexcept;
    Density& operator=(const Density&);
    Density& operator=(Density&&) noexcept;
    ~Density();

private:
    Density();
    struct Row; ///< the density of μ at one σ
    /// P(μ > at(σ)).
    template <class At> double exceedingShare(const At& at) const;
    /// Where a falling function of the location crosses zero.
    template <class F> double crossing(const F& f) const;
    Fit m_fit;
    std::vector<Row> m_rows;
};

} // namespace anvil::stats
