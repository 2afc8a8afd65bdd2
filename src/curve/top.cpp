#include "parts.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace anvil::curve {
namespace {

std::vector<double> counted(std::size_t n) {
    std::vector<double> index(n);
    std::iota(index.begin(), index.end(), 0.0);
    return index;
}

/// The longest run of neighbouring samples equal to the greatest one.
struct Tie {
    std::size_t first = 0, size = 0;
};

Tie longestTie(std::span<const double> f) {
    const double top = *std::max_element(f.begin(), f.end());
    Tie best;
    for (std::size_t i = 0; i < f.size();) {
        if (f[i] != top) {
            ++i;
            continue;
        }
        std::size_t j = i;
        while (j < f.size() && f[j] == top)
            ++j;
        if (j - i > best.size) best = {i, j - i};
        i = j;
    }
    return best;
}

/// Below this share of the pace on the way up the displacement stands still.
constexpr double standingShare = 0.1;

} // namespace

bool stoodStill(std::span<const double> x, std::span<const double> f, std::size_t departure, std::size_t peak,
                double noise) {
    if (x.empty() || peak <= departure) return false;
    std::size_t from = peak, to = peak + 1;
    while (from > departure && f[from - 1] >= f[peak] - 7 * noise)
        --from;
    while (to < f.size() && f[to] >= f[peak] - 7 * noise)
        ++to;
    if (from <= departure || to - from < 2) return false;
    const double pace = std::abs(x[from] - x[departure]) / static_cast<double>(from - departure);
    // The rise into the top and the way down from it still move: look at the middle half.
    const std::size_t quarter = (to - from) / 4;
    const double moved = std::abs(x[to - 1 - quarter] - x[from + quarter]);
    return moved < standingShare * pace * static_cast<double>(to - 1 - from - 2 * quarter);
}

std::size_t peakIndex(std::span<const double> f) {
    const auto tie = longestTie(f);
    return tie.first + (tie.size - 1) / 2;
}

bool flatTop(std::span<const double> f, double noise, double resolution) {
    const auto [start, size] = longestTie(f);
    const double top = f[start];
    if (size < 5) return false;
    if (start < size) return true;
    const auto line = fitLine(counted(size), f.subspan(start - size, size), 0, size - 1);
    const double middle = static_cast<double>(size) + 0.5 * static_cast<double>(size - 1);
    return line.intercept + line.slope * middle - top > std::max({0.01 * top, 8 * resolution, 6 * noise});
}

bool clippedUnderNoise(std::span<const double> f, std::size_t peak, double noise, double resolution) {
    constexpr std::size_t leastTop = 10;
    const double floor = f[peak] - 7 * noise;
    std::size_t from = peak, to = peak + 1;
    // One sample below the floor is noise, two end the top.
    while (from > 0 && (f[from - 1] >= floor || (from > 1 && f[from - 2] >= floor)))
        --from;
    while (to < f.size() && (f[to] >= floor || (to + 1 < f.size() && f[to + 1] >= floor)))
        ++to;
    const std::size_t size = to - from;
    if (size < leastTop || from < leastTop) return false;
    // Level within its noise from corner to corner …
    const std::size_t edge = std::max<std::size_t>(2, size / 20);
    const auto top = f.subspan(from + edge, size - 2 * edge);
    const auto along = fitLine(counted(top.size()), top, 0, top.size() - 1);
    const double rise = along.slope * static_cast<double>(top.size() - 1);
    if (std::abs(rise) >
            std::max(1.5 * noise, 3.5 * noise / std::sqrt(static_cast<double>(top.size()) / 12)) ||
        along.residualSd > 1.3 * noise)
        return false;
    const std::size_t quarter = top.size() / 4;
    const auto mean = [&](std::size_t first, std::size_t last) {
        return std::accumulate(top.begin() + static_cast<std::ptrdiff_t>(first),
                               top.begin() + static_cast<std::ptrdiff_t>(last), 0.0) /
               static_cast<double>(last - first);
    };
    const double outer = 0.5 * (mean(0, quarter) + mean(top.size() - quarter, top.size()));
    const double errors = top.size() < 40 ? 4 : 6; // a short dome bulges by little more than its noise
    if (mean(quarter, top.size() - quarter) - outer >
        errors * noise / std::sqrt(static_cast<double>(top.size())))
        return false; // it bulges
    // … at the end of a rise that is straight, steep, and meets that level at the corner.
    std::size_t high = from; // the upper half of the rise: what bedded in before it is not straight
    while (high > 0 && f[high - 1] > 0.5 * f[peak])
        --high;
    const std::size_t before = std::min({std::max(size, leastTop), std::max(from - high, leastTop), from});
    const auto up = fitLine(counted(before), f.subspan(from - before, before), 0, before - 1);
    const double level = std::accumulate(top.begin(), top.end(), 0.0) / static_cast<double>(top.size());
    const double middle = static_cast<double>(before) + 0.5 * static_cast<double>(size - 1);
    const double beyond = up.intercept + up.slope * middle - level;
    if (!(beyond > std::max({0.01 * f[peak], 8 * resolution, 6 * noise})) ||
        up.residualSd > std::max(1.5 * noise, 0.002 * f[peak]))
        return false;
    const auto halfLine = [&](std::size_t start) {
        return fitLine(counted(before / 2), f.subspan(start, before / 2), 0, before / 2 - 1);
    };
    const auto lower = halfLine(from - before), upper = halfLine(from - before / 2);
    if (upper.slope < 0.8 * lower.slope - 3 * (upper.standardError + lower.standardError))
        return false; // round
    const double corner = (level - up.intercept) / up.slope - static_cast<double>(before);
    const double wide = static_cast<double>(size);
    const double reach =
        std::min(6 * noise / up.slope, 0.06 * wide); // where noise lifts the rise into the top
    return std::abs(corner) <= std::max(2.0, 0.05 * wide) + reach;
}

} // namespace anvil::curve
