#include <anvil/curve/curve.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace anvil::curve {
namespace {

constexpr std::size_t longestSpike = 3, linePoints = 5;

double medianOf(double* values, std::size_t count) {
    std::nth_element(values, values + count / 2, values + count);
    return values[count / 2];
}

/// The line through up to five neighbouring samples that one bad one among them does not turn: the median of
/// the slopes between all pairs (Theil 1950, Sen 1968). Index 0 is sample `from`.
struct NeighbourLine {
    double slope = 0, level = 0;
    std::size_t from = 0;
    double at(std::size_t i) const {
        return level + slope * (static_cast<double>(i) - static_cast<double>(from));
    }
};

NeighbourLine through(std::span<const double> f, std::size_t from, std::size_t to) {
    std::array<double, linePoints*(linePoints - 1) / 2> slopes{};
    std::array<double, linePoints> rests{};
    std::size_t count = 0;
    for (std::size_t i = from; i < to; ++i)
        for (std::size_t j = i + 1; j < to; ++j)
            slopes[count++] = (f[j] - f[i]) / static_cast<double>(j - i);
    NeighbourLine line{count ? medianOf(slopes.data(), count) : 0, 0, from};
    for (std::size_t i = from; i < to; ++i)
        rests[i - from] = f[i] - line.slope * static_cast<double>(i - from);
    line.level = medianOf(rests.data(), to - from);
    return line;
}

/// Whether f[first … last] stands off the way the signal takes on both sides of it, and the two sides agree.
bool comesBack(std::span<const double> f, std::size_t first, std::size_t last, double gap) {
    const std::size_t from = first >= linePoints ? first - linePoints : 0,
                      to = std::min(f.size(), last + 1 + linePoints);
    const auto before = through(f, from, first), after = through(f, last + 1, to);
    const bool above = f[first] > before.at(first);
    double height = 0;
    for (std::size_t i = first; i <= last; ++i) {
        const double sign = above ? 1 : -1;
        const double least = std::min(sign * (f[i] - before.at(i)), sign * (f[i] - after.at(i)));
        if (!(least > gap)) return false;
        height = i == first ? least : std::min(height, least);
    }
    const std::size_t middle = (first + last) / 2;
    const double slack = std::max(gap, 0.25 * height);
    return std::abs(before.at(middle) - after.at(middle)) <= slack &&
           std::abs(f[first - 1] - before.at(first - 1)) <= slack &&
           std::abs(f[last + 1] - after.at(last + 1)) <= slack;
}

/// Whether a sample lies off the way the eleven around it take (fewer at the ends): off the straight line
/// through the medians of both sides by more than six times their own spread about it. Without the line a
/// steep fall would pass for spread, and hide what stands out of it.
bool offMedian(std::span<const double> f, std::size_t at, double gap) {
    std::array<double, 11> w{};
    const std::size_t from = at >= 5 ? at - 5 : 0, to = std::min(f.size(), at + 6);
    const std::size_t count = to - from;
    const auto sideOf = [&](std::size_t first, std::size_t last) {
        std::array<double, 5> side{};
        std::copy(f.begin() + static_cast<std::ptrdiff_t>(first),
                  f.begin() + static_cast<std::ptrdiff_t>(last), side.begin());
        return medianOf(side.data(), last - first);
    };
    const double before = sideOf(from, at), after = sideOf(at + 1, to);
    const double apart = 0.5 * static_cast<double>(count); // between the middles of the sides
    const double slope = (after - before) / apart;
    for (std::size_t k = 0; k < count; ++k)
        w[k] = f[from + k] - slope * static_cast<double>(k);
    const double own = w[at - from];
    const double m = medianOf(w.data(), count);
    for (std::size_t k = 0; k < count; ++k)
        w[k] = std::abs(w[k] - m);
    return std::abs(own - m) > std::max(6 * 1.4826 * medianOf(w.data(), count), gap);
}

bool isSpike(std::span<const double> f, std::size_t first, std::size_t length, double gap) {
    const std::size_t last = first + length - 1;
    const double high = std::max(f[first - 1], f[last + 1]) + gap,
                 low = std::min(f[first - 1], f[last + 1]) - gap;
    bool above = true, below = true;
    for (std::size_t i = first; i <= last; ++i) {
        above = above && f[i] > high;
        below = below && f[i] < low;
    }
    if (!above && !below) return false;
    for (std::size_t i = first; i <= last; ++i)
        if (!offMedian(f, i, gap)) return false;
    return comesBack(f, first, last, gap);
}

} // namespace

std::vector<std::size_t> removeSpikes(std::span<double> f, double noise, double resolution) {
    const double gap = std::max(6 * noise, 3 * resolution);
    const std::size_t n = f.size();
    std::vector<std::size_t> found;
    for (std::size_t i = 1; i + 1 < n; ++i) {
        if (std::abs(f[i] - f[i - 1]) <= gap) continue;
        for (std::size_t length = std::min(longestSpike, n - 1 - i); length > 0; --length) {
            if (!isSpike(f, i, length, gap)) continue;
            const double a = f[i - 1], b = f[i + length];
            for (std::size_t k = 0; k < length; ++k) {
                f[i + k] = a + (b - a) * static_cast<double>(k + 1) / static_cast<double>(length + 1);
                found.push_back(i + k);
            }
            i += length - 1;
            break;
        }
    }
    return found;
}

} // namespace anvil::curve
