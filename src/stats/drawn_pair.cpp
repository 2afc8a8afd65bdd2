#include <anvil/stats/drawn_pair.h>

#include "distributions.h"
#include "order_statistics.h"
#include <algorithm>
#include <cmath>

namespace anvil::stats {

Comparison compareDrawn(const DrawnSide& a, const DrawnSide& b, double margin) {
    Comparison c;
    const auto draws = a.logs.size();
    if (draws == 0 || b.logs.size() != draws || (a.atLeast && b.atLeast)) return c;
    std::vector<double> logs(draws);
    std::size_t atMostOne = 0, atLeastOne = 0, low = 0, high = 0;
    const double edge = std::log1p(margin);
    for (std::size_t k = 0; k < draws; ++k) {
        const double log = a.logs[k] - b.logs[k];
        logs[k] = log;
        atMostOne += log <= 0;
        atLeastOne += log >= 0;
        low += log <= -edge;
        high += log >= edge;
    }
    const auto n = static_cast<double>(draws);
    const auto share = [&](std::size_t count) { return std::max(1.0, static_cast<double>(count)) / n; };
    const auto ends = orderStatistics(logs, {(draws - 1) / 2, draws / 2, draws / 40, draws - 1 - draws / 40});
    c.test = PairTest::censored;
    c.ratio = finite(std::exp(0.5 * (ends[0] + ends[1])));
    c.atLeast = a.atLeast;
    c.atMost = b.atLeast;
    if (!c.ratio) return c;
    const double from = std::exp(ends[2]), to = std::exp(ends[3]);
    if (std::isfinite(from) && std::isfinite(to)) c.ratioInterval = {from, to};
    const auto wrong = a.atLeast ? atMostOne : b.atLeast ? atLeastOne : std::min(atMostOne, atLeastOne);
    c.p = std::min(1.0, std::max(1 / n, 2 * static_cast<double>(wrong) / n));
    if (!a.atLeast && !b.atLeast) c.tostP = std::max(share(low), share(high));
    return c;
}

} // namespace anvil::stats
