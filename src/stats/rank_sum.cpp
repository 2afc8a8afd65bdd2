#include <anvil/stats/rank_sum.h>

#include <algorithm>
#include <cmath>
#include <vector>

namespace anvil::stats {
namespace {

/// P(U ≤ u) where every order is as likely: the number of ways by the recurrence of Mann and Whitney.
double tailOf(std::size_t m, std::size_t n, double u) {
    std::vector<double> ways(m * n + 1, 0);
    ways[0] = 1;
    for (std::size_t i = 1; i <= m; ++i) { // Gaussian binomial, factor by factor
        for (std::size_t k = ways.size(); k-- > n + i;)
            ways[k] -= ways[k - n - i];
        for (std::size_t k = i; k < ways.size(); ++k)
            ways[k] += ways[k - i];
    }
    double all = 0, below = 0;
    for (std::size_t k = 0; k < ways.size(); ++k) {
        all += ways[k];
        if (static_cast<double>(k) <= u) below += ways[k];
    }
    return below / all;
}

} // namespace

std::optional<double> mannWhitneyP(std::span<const double> a, std::span<const double> b) {
    if (a.empty() || b.empty()) return std::nullopt;
    std::vector<std::pair<double, bool>> all;
    for (const double x : a)
        all.emplace_back(x, true);
    for (const double x : b)
        all.emplace_back(x, false);
    std::sort(all.begin(), all.end());
    const auto m = static_cast<double>(a.size()), n = static_cast<double>(b.size()), both = m + n;
    double ranks = 0, ties = 0;
    for (std::size_t i = 0; i < all.size();) {
        std::size_t j = i;
        while (j < all.size() && all[j].first == all[i].first)
            ++j;
        const auto t = static_cast<double>(j - i), rank = static_cast<double>(i) + (t + 1) / 2;
        ties += t * t * t - t;
        for (; i < j; ++i)
            if (all[i].second) ranks += rank;
    }
    const double u = ranks - m * (m + 1) / 2;
    if (ties == 0 && both <= 20)
        return std::min(1.0,
                        2 * std::min(tailOf(a.size(), b.size(), u), tailOf(a.size(), b.size(), m * n - u)));
    const double variance = m * n / 12 * (both + 1 - ties / (both * (both - 1)));
    if (!(variance > 0)) return std::nullopt;
    const double off = std::max(0.0, std::abs(u - m * n / 2) - 0.5);
    return std::min(1.0, std::erfc(off / std::sqrt(2 * variance)));
}

} // namespace anvil::stats
