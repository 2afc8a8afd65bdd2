#include <anvil/stats/fieller.h>

#include <cmath>

namespace anvil::stats {

std::optional<std::pair<double, double>> fiellerInterval(const Summary& a, const Summary& b) {
    if (a.censored() || b.censored() || !a.mean || !b.mean || !a.sd || !b.sd) return {};
    const double ma = *a.mean, mb = *b.mean;
    if (!(ma > 0) || !(mb > 0)) return {};
    const double va = *a.sd * *a.sd / static_cast<double>(a.n), vb = *b.sd * *b.sd / static_cast<double>(b.n);
    const double r = ma / mb, rest = va + r * r * vb;
    if (!(rest > 0)) return std::pair(r, r); // no spread at all
    const double df =
        rest * rest /
        (va * va / static_cast<double>(a.n - 1) + r * r * r * r * vb * vb / static_cast<double>(b.n - 1));
    const double t = studentQuantile(df, 0.975), g = t * t * vb / (mb * mb);
    if (!(g < 1)) return {};
    const double half = t / mb * std::sqrt(va + r * r * vb - g * va);
    return std::pair((r - half) / (1 - g), (r + half) / (1 - g));
}

} // namespace anvil::stats
