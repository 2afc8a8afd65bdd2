#include "rest.h"

#include <algorithm>
#include <cmath>

namespace anvil::curve {
namespace {

constexpr std::size_t leastRest = 20, reach = 8;
constexpr double restSeconds = 1, goneShare = 0.4, offShare = 0.02;
/// What a broken piece may still hold, as a share of the peak.
constexpr double heldShare = 0.1;

double medianOf(std::vector<double> v) {
    const auto mid = v.begin() + static_cast<std::ptrdiff_t>(v.size() / 2);
    std::nth_element(v.begin(), mid, v.end());
    return *mid;
}

double top(std::span<const double> f) { return *std::max_element(f.begin(), f.end()); }

/// The rest at the end: from behind the last fall from the load, at least 20 samples or a second.
struct Rest {
    std::size_t from = 0;
    double level = 0;
    LineFit line; ///< over time
};

std::optional<Rest> restOf(std::span<const double> f, std::span<const double> t, double noise) {
    const std::size_t n = f.size();
    const double most = top(f);
    const double level =
        medianOf({f.end() - static_cast<std::ptrdiff_t>(std::min(n, std::size_t{9})), f.end()});
    if (level > goneShare * most) return {};
    const double near = std::max(6 * noise, 0.03 * most);
    std::size_t from = n;
    while (from > 0 && std::abs(f[from - 1] - level) <= near)
        --from;
    from += std::min<std::size_t>(3, n - from); // clear of the fall
    const bool enough = from < n && (n - from >= leastRest || t.back() - t[from] >= restSeconds);
    if (!enough || n - from < 5 || from == 0) return {};
    Rest rest{from, medianOf({f.begin() + static_cast<std::ptrdiff_t>(from), f.end()}),
              fitLine(t, f, from, n - 1)};
    return rest;
}

LineFit lineOver(std::span<const double> t, std::span<const double> f, std::size_t from) {
    return fitLine(t, f, from, from + reach - 1);
}

/// The step under load that is `offset` but for what the piece may still hold, or nothing. A pull grows no
/// stronger at once, so that a step up is one of the zero as well.
std::optional<StepBack> stepOf(std::span<const double> f, std::span<const double> t, std::size_t departure,
                               std::size_t end, double offset, double noise, double least) {
    std::optional<StepBack> best;
    double bestMiss = 0;
    const double most = top(f) - std::min(offset, 0.0);
    for (std::size_t i = departure + reach; i + reach < end; ++i) {
        if (std::abs(f[i] - f[i - 1]) < 0.3 * std::abs(offset)) continue;
        const auto before = lineOver(t, f, i - reach), after = lineOver(t, f, i);
        const double gap = after.intercept + after.slope * t[i] - (before.intercept + before.slope * t[i]);
        const double calm = std::max(3 * noise, 0.05 * std::abs(gap));
        if (gap * offset < 0 || std::abs(gap) < least || before.residualSd > calm || after.residualSd > calm)
            continue;
        const double held = offset - gap; // what lies between the step and the rest
        if (held < -std::max(5 * noise, 0.01 * most) || held > heldShare * most) continue;
        if (!best || std::abs(held) < bestMiss) {
            best = StepBack{i, -gap};
            bestMiss = std::abs(held);
        }
    }
    return best;
}

/// The slope of a drift that both ends show, or that the line through them shows and one of them agrees with.
std::optional<DriftOff> driftOf(std::span<const double> f, std::span<const double> t, std::size_t departure,
                                const Rest& rest, double least) {
    constexpr double sure = 4; // standard errors
    if (departure < leastRest) return {};
    const auto start = fitLine(t, f, 0, departure - 1);
    const double lasted = t.back() - t.front();
    const auto significant = [&](const LineFit& l) { return std::abs(l.slope) > sure * l.standardError; };
    const auto carries = [&](double slope) { return std::abs(slope) * lasted > least; };
    const double a = start.slope, b = rest.line.slope;
    const double wa = 1 / std::max(start.standardError * start.standardError, 1e-300),
                 wb = 1 / std::max(rest.line.standardError * rest.line.standardError, 1e-300);
    const double both = (wa * a + wb * b) / (wa + wb);
    if (significant(start) && significant(rest.line) && a * b > 0 && carries(both) &&
        std::abs(a - b) <= 0.5 * std::max(std::abs(a), std::abs(b)))
        return DriftOff{both, false};
    const double middle = 0.5 * (t[0] + t[departure - 1]), end = 0.5 * (t[rest.from] + t.back());
    const double line = rest.level / (end - middle); // the start is at zero
    const auto agrees = [&](const LineFit& l) {
        return significant(l) && l.slope * line > 0 && std::abs(l.slope - line) <= 0.5 * std::abs(line);
    };
    if (rest.level < 0 && carries(line) && (agrees(start) || agrees(rest.line))) return DriftOff{line, true};
    return {};
}

} // namespace

Settled settleZero(std::span<double> f, std::span<const double> t, std::size_t departure, double noise) {
    Settled out;
    const auto rest = restOf(f, t, noise);
    if (!rest || departure == 0) return out;
    const double least = std::max(5 * noise, offShare * top(f));
    if (std::abs(rest->level) > least) {
        out.step = stepOf(f, t, departure, rest->from, rest->level, noise, 0.5 * least);
        if (out.step) {
            for (std::size_t i = out.step->at; i < f.size(); ++i)
                f[i] += out.step->by;
            return out;
        }
    }
    out.drift = driftOf(f, t, departure, *rest, least);
    if (out.drift) {
        const double middle = 0.5 * (t[0] + t[departure - 1]);
        for (std::size_t i = 0; i < f.size(); ++i)
            f[i] -= out.drift->slope * (t[i] - middle);
    } else if (rest->level < -least) {
        out.below = -rest->level;
    }
    return out;
}

std::vector<Gap> gapsUnderLoad(std::span<const double> f, std::span<const double> t) {
    constexpr double steps = 20, seconds = 1, loaded = 0.1, near = 0.8;
    std::vector<Gap> out;
    if (t.size() < 3) return out;
    constexpr std::size_t places = 65536; // evenly strided: a median of so many is as good as one of all
    const std::size_t stride = (t.size() + places - 1) / places;
    std::vector<double> all;
    for (std::size_t i = 1; i < t.size(); i += stride)
        all.push_back(t[i] - t[i - 1]);
    const double least = std::max(steps * medianOf(all), seconds), most = top(f);
    for (std::size_t i = 1; i < t.size(); ++i) {
        const double high = std::max(f[i], f[i - 1]);
        if (t[i] - t[i - 1] > least && high > loaded * most) out.push_back({i - 1, high >= near * most});
    }
    return out;
}

bool pullsDown(std::span<const double> f, std::span<const double> t, double zero) {
    double up = 0, down = 0;
    for (const double v : f) {
        up = std::max(up, v - zero);
        down = std::max(down, zero - v);
    }
    const double half = 0.5 * std::max(up, down);
    double above = 0, below = 0;
    for (std::size_t i = 1; i < f.size(); ++i) {
        const double v = f[i] - zero, step = t[i] - t[i - 1];
        if (v > half) above += step;
        if (v < -half) below += step;
    }
    return above == below ? down > up : below > above;
}

} // namespace anvil::curve
