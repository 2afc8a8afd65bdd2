#include <anvil/stats/pooled.h>

#include <algorithm>
#include <anvil/stats/summary.h>
#include <cmath>
#include <vector>

namespace anvil::stats {
namespace {

/// Summary of the logarithms; nothing where there are none.
std::optional<Summary> ofLogs(std::span<const double> values) {
    std::vector<Value> logs;
    for (const double x : values) {
        if (!(x > 0)) return std::nullopt;
        logs.push_back({std::log(x), State::exact, std::log(x)});
    }
    return logs.empty() ? std::nullopt : std::optional(summarise(logs));
}

} // namespace

std::optional<PooledSpread> pooledSpread(std::span<const std::span<const double>> groups) {
    PooledSpread out;
    for (const auto& g : groups) {
        const auto s = ofLogs(g);
        if (!s || !s->sd) continue;
        const auto df = static_cast<double>(s->n) - 1;
        out.variance += df * *s->sd * *s->sd;
        out.df += df;
    }
    if (out.df == 0) return std::nullopt;
    out.variance /= out.df;
    return out;
}

std::optional<double> pooledP(std::span<const double> a, std::span<const double> b,
                              const PooledSpread& spread) {
    const auto x = ofLogs(a), y = ofLogs(b);
    if (!x || !y || !(spread.variance > 0)) return std::nullopt;
    const double se =
        std::sqrt(spread.variance * (1 / static_cast<double>(x->n) + 1 / static_cast<double>(y->n)));
    return std::min(1.0, 2 * studentUpperTail(spread.df, std::abs(*x->mean - *y->mean) / se));
}

} // namespace anvil::stats
