#include "parts.h"

#include <algorithm>
#include <cmath>

namespace anvil::curve {
namespace {

/// Without displacement: a fall that lasts longer than this share of the time it rose before is no slip.
constexpr double longestFallShare = 0.1;
/// With it: below this share of the pace before the fall the piece stands still.
constexpr double standingShare = 0.1;
/// A fall shorter than so many samples is looked at over so many: a coarse displacement moves in steps.
constexpr std::size_t leastReach = 10;

/// The smallest way the displacement moves by between samples: its own resolution.
double leastStep(std::span<const double> x, std::size_t from, std::size_t to) {
    double least = 0;
    for (std::size_t i = from + 1; i <= to; ++i)
        if (const double step = std::abs(x[i] - x[i - 1]); step > 0 && (least == 0 || step < least))
            least = step;
    return least;
}

/// What the displacement did over a fall.
enum class Way { on, notOn, unknown };

Way wayOver(std::span<const double> x, std::span<const double> t, std::size_t departure, std::size_t top,
            std::size_t trough) {
    const std::size_t end = std::min(std::max(trough, top + leastReach), x.size() - 1);
    const double lasted = t[end] - t[top], before = t[top] - t[departure];
    if (!(before > 0) || !(lasted > 0)) return Way::unknown;
    const double pace = (x[top] - x[departure]) / before, expected = std::abs(pace) * lasted;
    const double along = pace >= 0 ? x[end] - x[top] : x[top] - x[end];
    const double step = leastStep(x, departure, end);
    if (along < -std::max(step, standingShare * expected)) return Way::notOn;
    if (expected < 3 * step) return along > 0 ? Way::on : Way::unknown; // too coarse to tell
    return along > standingShare * expected ? Way::on : Way::notOn;
}

} // namespace

std::optional<std::size_t> firstSlip(std::span<const double> f, std::span<const double> t,
                                     std::span<const double> x, std::size_t departure, std::size_t peak,
                                     double noise, double resolution) {
    if (peak <= departure) return std::nullopt;
    const std::size_t m = std::max<std::size_t>(1, (peak - departure) / 1000);
    const std::size_t blocks = (peak - departure + m - 1) / m;
    const auto begin = [&](std::size_t block) { return departure + block * m; };
    std::vector<double> mean(blocks);
    for (std::size_t b = 0; b < blocks; ++b) {
        const std::size_t end = std::min(begin(b) + m, peak);
        for (std::size_t i = begin(b); i < end; ++i)
            mean[b] += f[i];
        mean[b] /= static_cast<double>(end - begin(b));
    }
    const auto least = [&](double top) {
        return std::max({0.03 * top, 0.01 * f[peak], 8 * noise, 2 * resolution});
    };
    std::size_t top = 0, rising = 0; ///< since the departure, or since it was last let down
    for (std::size_t b = 0; b < blocks; ++b) {
        if (mean[b] >= mean[top]) top = b;
        if (mean[top] <= 0.1 * f[peak] || mean[top] - mean[b] <= least(mean[top])) continue;
        std::size_t trough = b; // until it has clearly turned again
        for (std::size_t c = b;
             c < blocks && mean[c] - mean[trough] <= std::max(8 * noise, 0.1 * (mean[top] - mean[trough]));
             ++c)
            if (mean[c] < mean[trough]) trough = c;
        const std::size_t from = top > 0 ? begin(top - 1) : departure,
                          to = std::max(std::min(begin(top) + 2 * m, begin(b)), from + 1);
        const auto at =
            static_cast<std::size_t>(std::max_element(f.begin() + static_cast<std::ptrdiff_t>(from),
                                                      f.begin() + static_cast<std::ptrdiff_t>(to)) -
                                     f.begin());
        const auto way = x.empty() ? Way::unknown : wayOver(x, t, departure, at, begin(trough));
        const bool quick = t[begin(trough)] - t[at] <= longestFallShare * (t[at] - t[begin(rising)]);
        if (way == Way::on || (way == Way::unknown && quick)) return at;
        b = top = rising = trough; // let down, or left standing: what comes after is looked at afresh
    }
    return std::nullopt;
}

} // namespace anvil::curve
