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

} // namespace

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
    while (from > 0 && f[from - 1] >= floor)
        --from;
    while (to < f.size() && f[to] >= floor)
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
    // … at the end of a rise that is straight, steep, and meets that level at the corner.
    const std::size_t before = std::min(std::max(size, leastTop), from);
    const auto up = fitLine(counted(before), f.subspan(from - before, before), 0, before - 1);
    const double level = std::accumulate(top.begin(), top.end(), 0.0) / static_cast<double>(top.size());
    const double middle = static_cast<double>(before) + 0.5 * static_cast<double>(size - 1);
    const double beyond = up.intercept + up.slope * middle - level;
    if (!(beyond > std::max({0.01 * f[peak], 8 * resolution, 6 * noise})) ||
        up.residualSd > std::max(1.5 * noise, 0.002 * f[peak]))
        return false;
    const double corner = (level - up.intercept) / up.slope - static_cast<double>(before);
    const double reach = 6 * noise / up.slope; // where the noise lifts the rise into the top
    return std::abs(corner) <= std::max(2.0, 0.05 * static_cast<double>(size)) + reach;
}

} // namespace anvil::curve
