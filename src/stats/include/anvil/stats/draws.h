// Random numbers that are the same on every machine: no distribution of the standard library.
#pragma once

#include <cmath>
#include <cstdint>

namespace anvil::stats {

/// A stream (SplitMix64; Steele, Lea and Flood 2014).
class Draws {
public:
    explicit Draws(std::uint64_t stream) : m_state(stream) {}
    /// The next 64 bits.
    std::uint64_t bits() {
        std::uint64_t z = m_state += 0x9e3779b97f4a7c15ULL;
        z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
        z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
        return z ^ (z >> 31);
    }
    /// Between 0 and 1, neither of them.
    double uniform() { return (static_cast<double>(bits() >> 11) + 0.5) * 0x1p-53; }
    /// A whole number from 0 to below `n`, each as likely; n > 0.
    std::uint64_t below(std::uint64_t n) {
        const std::uint64_t limit = (~std::uint64_t{0} / n) * n;
        std::uint64_t draw = bits();
        while (draw >= limit)
            draw = bits();
        return draw % n;
    }
    /// Standard normal (polar method, Marsaglia and Bray 1964).
    double normal() {
        if (m_kept) {
            m_kept = false;
            return m_second;
        }
        double x = 0, y = 0, r = 0;
        do {
            x = 2 * uniform() - 1;
            y = 2 * uniform() - 1;
            r = x * x + y * y;
        } while (r >= 1 || r == 0);
        const double f = std::sqrt(-2 * std::log(r) / r);
        m_second = y * f;
        m_kept = true;
        return x * f;
    }
    /// Student's t with any number of degrees of freedom (polar method, Bailey 1994).
    double student(double df) {
        double u = 0, w = 0;
        do {
            u = 2 * uniform() - 1;
            const double v = 2 * uniform() - 1;
            w = u * u + v * v;
        } while (w > 1 || w == 0);
        return u * std::sqrt(df * (std::pow(w, -2 / df) - 1) / w);
    }
    /// χ² with any number of degrees of freedom (Marsaglia and Tsang 2000).
    double chiSquared(double df) {
        const bool small = df < 2;
        const double shape = small ? df / 2 + 1 : df / 2, d = shape - 1.0 / 3, c = 1 / std::sqrt(9 * d);
        for (;;) {
            double x = 0, v = 0;
            do {
                x = normal();
                v = 1 + c * x;
            } while (v <= 0);
            v = v * v * v;
            if (std::log(uniform()) < 0.5 * x * x + d - d * v + d * std::log(v))
                return 2 * d * v * (small ? std::pow(uniform(), 2 / df) : 1);
        }
    }

private:
    std::uint64_t m_state;
    double m_second = 0;
    bool m_kept = false;
};

} // namespace anvil::stats
