#include <anvil/stats/drawn_pair.h>

#include "distributions.h"
#include "order_statistics.h"
#include <algorithm>
#include <cmath>
#include <limits>

namespace anvil::stats {
namespace {

/// Which way the ratio may go beyond what is drawn.
struct Open {
    bool up, down;
};

Open openOf(const DrawnSide& a, const DrawnSide& b) {
    return {a.only == Bound::above || b.only == Bound::below,
            a.only == Bound::below || b.only == Bound::above};
}

std::vector<double> differences(const DrawnSide& a, const DrawnSide& b) {
    std::vector<double> logs(a.logs.size());
    for (std::size_t k = 0; k < logs.size(); ++k)
        logs[k] = a.logs[k] - b.logs[k];
    return logs;
}

/// Both ends from order statistics of the differences, open where bounds leave them so.
std::optional<std::pair<double, double>> endsOf(double low, double high, Open open) {
    const double from = open.down ? 0 : std::exp(low),
                 to = open.up ? std::numeric_limits<double>::infinity() : std::exp(high);
    if ((!open.up && !std::isfinite(to)) || std::isnan(from)) return std::nullopt;
    return std::pair(from, to);
}

/// How many draws lie beyond an end of an interval at this level.
std::size_t beyond(std::size_t draws, double level) {
    return static_cast<std::size_t>(static_cast<double>(draws) * level / 2);
}

} // namespace

Comparison compareDrawn(const DrawnSide& a, const DrawnSide& b, double margin) {
    Comparison c;
    const auto draws = a.logs.size();
    const auto open = openOf(a, b);
    if (draws == 0 || b.logs.size() != draws || (open.up && open.down)) return c;
    const auto logs = differences(a, b);
    std::size_t atMostOne = 0, atLeastOne = 0, low = 0, high = 0;
    const double edge = std::log1p(margin);
    for (const double log : logs) {
        atMostOne += log <= 0;
        atLeastOne += log >= 0;
        low += log <= -edge;
        high += log >= edge;
    }
    const auto n = static_cast<double>(draws);
    const auto share = [&](std::size_t count) { return std::max(1.0, static_cast<double>(count)) / n; };
    const auto out = beyond(draws, 0.05);
    const auto ends = orderStatistics(logs, {(draws - 1) / 2, draws / 2, out, draws - 1 - out});
    c.test = PairTest::censored;
    c.ratio = finite(std::exp(0.5 * (ends[0] + ends[1])));
    c.atLeast = open.up;
    c.atMost = open.down;
    if (!c.ratio) return c;
    c.ratioInterval = endsOf(ends[2], ends[3], open);
    const auto wrong = open.up ? atMostOne : open.down ? atLeastOne : std::min(atMostOne, atLeastOne);
    c.p = std::min(1.0, std::max(1 / n, 2 * static_cast<double>(wrong) / n));
    if (!open.up && !open.down) {
        c.tostP = std::max(share(low), share(high));
        if (*c.tostP < 0.05) c.drawnSame = drawnInterval(a, b, 0.10);
    }
    return c;
}

std::optional<std::pair<double, double>> drawnInterval(const DrawnSide& a, const DrawnSide& b, double level) {
    if (a.logs.empty() || a.logs.size() != b.logs.size()) return std::nullopt;
    const auto logs = differences(a, b);
    const auto out = beyond(logs.size(), level);
    const auto ends = orderStatistics(logs, {out, logs.size() - 1 - out, out, out});
    return endsOf(ends[0], ends[1], openOf(a, b));
}

} // namespace anvil::stats
