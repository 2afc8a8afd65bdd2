#include <anvil/curve/curve.h>

#include <algorithm>
#include <cmath>

namespace anvil::curve {
namespace {

/// As many samples as these estimates look at, evenly strided.
constexpr std::size_t places = 65536;
constexpr double longestLagSeconds = 0.020;
constexpr std::size_t leastLongestLag = 16;

std::vector<double> strided(std::span<const double> load) {
    const std::size_t stride = (load.size() + places - 1) / places;
    std::vector<double> out;
    out.reserve(std::min(load.size(), places));
    for (std::size_t i = 0; i < load.size(); i += std::max<std::size_t>(1, stride))
        out.push_back(load[i]);
    return out;
}

/// Whether nine steps of ten between successive samples that differ are `step` itself: a synthetic ramp.
bool evenRamp(std::span<const double> values, double step, double dust) {
    std::size_t steps = 0, even = 0;
    for (std::size_t i = 1; i < values.size(); ++i) {
        const double s = std::abs(values[i] - values[i - 1]);
        if (s <= dust) continue;
        ++steps;
        even += std::abs(s - step) <= 1e-6 * step;
    }
    return steps > 0 && static_cast<double>(even) >= 0.9 * static_cast<double>(steps);
}

} // namespace

double resolution(std::span<const double> load) {
    const auto inOrder = strided(load);
    auto v = inOrder;
    std::sort(v.begin(), v.end());
    if (v.size() < 3) return 0;
    const double dust = 1e-9 * std::max(std::abs(v.front()), std::abs(v.back()));
    double smallest = 0;
    std::size_t repeats = 0;
    std::vector<std::size_t> levels; ///< how many samples show a value that more than one shows
    for (std::size_t i = 0; i < v.size();) {
        std::size_t j = i + 1;
        while (j < v.size() && v[j] - v[j - 1] <= dust)
            ++j;
        if (j - i > 1) {
            repeats += j - i;
            levels.push_back(j - i);
        }
        if (j < v.size() && (smallest == 0 || v[j] - v[j - 1] < smallest)) smallest = v[j] - v[j - 1];
        i = j;
    }
    if (smallest == 0 || static_cast<double>(repeats) < 0.05 * static_cast<double>(v.size())) return 0;
    // The smallest gap carries the rounding of the decimals it was written in; the small gaps together less.
    double sum = 0, multiples = 0;
    for (std::size_t i = 1; i < v.size(); ++i)
        if (const double gap = v[i] - v[i - 1]; gap > dust && gap < 10 * smallest) {
            sum += gap;
            multiples += std::round(gap / smallest);
        }
    const double q = sum / multiples;
    std::size_t gaps = 0, odd = 0;
    for (std::size_t i = 1; i < v.size(); ++i)
        if (const double gap = v[i] - v[i - 1]; gap > dust) {
            ++gaps;
            odd += std::abs(gap / q - std::round(gap / q)) > 0.1;
        }
    if (odd * 100 > gaps) return 0;
    std::sort(levels.rbegin(), levels.rend());
    for (std::size_t k = 0; k < std::min<std::size_t>(3, levels.size()); ++k)
        repeats -= levels[k]; // where it stood still
    const bool onlyStill = static_cast<double>(repeats) < 0.05 * static_cast<double>(v.size());
    return onlyStill && evenRamp(inOrder, q, dust) ? 0 : smallest;
}

std::size_t longestLag(std::span<const double> time) {
    const std::size_t n = time.size();
    if (n < 2 || !(time[n - 1] > time[0])) return leastLongestLag;
    const double rate = static_cast<double>(n - 1) / (time[n - 1] - time[0]);
    return std::max(leastLongestLag,
                    static_cast<std::size_t>(std::min(longestLagSeconds * rate, static_cast<double>(n))));
}

double noise(std::span<const double> load, double resolution, std::size_t longestLag) {
    const std::size_t n = load.size();
    double worst = resolution / std::sqrt(12.0);
    std::vector<double> d;
    for (std::size_t lag = 1; lag <= longestLag; lag *= 2) {
        if (n <= 2 * lag || (lag > 1 && lag * 400 > n)) break;
        const std::size_t count = n - 2 * lag, stride = (count + places - 1) / places;
        d.clear();
        for (std::size_t i = 0; i < count; i += stride)
            d.push_back(std::abs(load[i + 2 * lag] - 2 * load[i + lag] + load[i]));
        const auto mid = d.begin() + static_cast<std::ptrdiff_t>(d.size() / 2);
        std::nth_element(d.begin(), mid, d.end());
        worst = std::max(worst, 1.4826 * *mid / std::sqrt(6.0));
    }
    return worst;
}

} // namespace anvil::curve
