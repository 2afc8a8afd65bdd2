// Curves built from hand-drawn pieces, so that every expected number can be worked out on paper.
#pragma once

#include <anvil/curve/curve.h>
#include <cmath>
#include <cstdint>
#include <vector>

namespace anvil::curve {

/// Noise that is the same on every machine, independent of the simulator.
class Noise {
public:
    explicit Noise(std::uint64_t seed) : m_state(seed * 2654435769U + 12345) {}
    double uniform() {
        m_state = m_state * 6364136223846793005ULL + 1442695040888963407ULL;
        return (static_cast<double>(m_state >> 11) + 0.5) * 0x1.0p-53;
    }
    double normal() { return std::sqrt(-2 * std::log(uniform())) * std::cos(6.283185307179586 * uniform()); }

private:
    std::uint64_t m_state;
};

/// A polygon of (x in m, force in N) corners, travelled at 1 mm/s and sampled `rate` times a second after
/// `before` s of standing still.
inline Curve polygon(const std::vector<std::pair<double, double>>& corners, double rate = 100,
                     double before = 1) {
    Curve c;
    const double speed = 0.001, length = corners.back().first - corners.front().first;
    const auto n = static_cast<std::size_t>(std::llround((before + length / speed) * rate)) + 1;
    for (std::size_t i = 0; i < n; ++i) {
        const double t = static_cast<double>(i) / rate,
                     x = corners.front().first + std::max(0.0, t - before) * speed;
        std::size_t k = 1;
        while (k + 1 < corners.size() && x > corners[k].first + 1e-12)
            ++k;
        const auto& [x0, f0] = corners[k - 1];
        const auto& [x1, f1] = corners[k];
        c.time.push_back(t);
        c.travel.push_back(x);
        c.load.push_back(f0 + (f1 - f0) * std::min(1.0, (x - x0) / (x1 - x0)));
    }
    return c;
}

/// 1 mm of slack, 4 mm up a straight line to 2000 N (500 N/mm), then down to 200 N within 0.1 mm and on for 3
/// mm.
inline Curve brittle(double rate = 100) {
    return polygon({{0, 0}, {0.001, 0}, {0.005, 2000}, {0.0051, 200}, {0.0081, 200}}, rate);
}

} // namespace anvil::curve
