#include <anvil/stats/pooled.h>

#include <algorithm>
#include <anvil/stats/summary.h>
#include <cmath>
#include <vector>

namespace anvil::stats {

std::optional<LogGroup> logGroup(std::span<const double> values) {
    std::vector<Value> logs;
    logs.reserve(values.size());
    for (const double x : values) {
        if (!(x > 0)) return std::nullopt;
        logs.push_back({std::log(x), Bound::exact, std::log(x)});
    }
    const auto s = summarise(logs);
    if (s.n == 0) return std::nullopt;
    const double sd = s.sd.value_or(0); // rounding is no spread
    return LogGroup{*s.mean, static_cast<double>(s.n - 1) * sd * sd, s.n};
}

std::optional<PooledSpread> pooledSpread(std::span<const std::optional<LogGroup>> groups) {
    PooledSpread out;
    for (const auto& g : groups) {
        if (!g) continue;
        out.variance += g->squares;
        out.df += static_cast<double>(g->n) - 1;
    }
    if (out.df == 0) return std::nullopt;
    out.variance /= out.df;
    return out;
}

std::optional<double> pooledP(const LogGroup& a, const LogGroup& b, const PooledSpread& spread) {
    if (!(spread.variance > 0)) return std::nullopt;
    const double se =
        std::sqrt(spread.variance * (1 / static_cast<double>(a.n) + 1 / static_cast<double>(b.n)));
    return std::min(1.0, 2 * studentUpperTail(spread.df, std::abs(a.mean - b.mean) / se));
}

} // namespace anvil::stats
