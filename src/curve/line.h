// Least-squares line over index ranges of a long signal, in O(1) per range after one pass.
#pragma once

#include <cstddef>
#include <span>
#include <vector>

namespace anvil::curve {

struct LineFit {
    double slope = 0, intercept = 0, standardError = 0, r2 = 0, residualSd = 0;
    std::size_t samples = 0;
};

/// Prefix sums at no more than `maxNodes` places; ranges begin and end at nodes, the sums use every sample.
class LineSums {
public:
    static constexpr std::size_t maxNodes = 20000;

    LineSums(std::span<const double> x, std::span<const double> y, std::size_t first, std::size_t last);

    std::size_t nodes() const { return m_at.size(); }
    std::size_t index(std::size_t node) const { return m_at[node]; }
    /// The line through samples index(a) … index(b), both included.
    LineFit fit(std::size_t a, std::size_t b) const;

private:
    struct Sums {
        double n = 0, x = 0, y = 0, xx = 0, xy = 0, yy = 0;
    };
    static void add(Sums& sums, double dx, double dy);
    std::span<const double> m_x, m_y;
    double m_x0, m_y0;
    std::vector<std::size_t> m_at;
    std::vector<Sums> m_before; ///< sums over all samples before the node
};

/// The line through samples first … last.
LineFit fitLine(std::span<const double> x, std::span<const double> y, std::size_t first, std::size_t last);

} // namespace anvil::curve
