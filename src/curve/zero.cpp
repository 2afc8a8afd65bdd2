#include "parts.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace anvil::curve {
namespace {

constexpr std::size_t leastZero = 5;
/// Over a stretch that is level within its noise a line rises by no more than so many times the noise.
constexpr double flatWithin = 2.5;
/// A stretch that begins at more than this share of the pull's own pace is part of the pull …
constexpr double paceShare = 0.35;
/// … or at less, where it is too short to tell: within so many standard errors of the pace itself.
constexpr double paceErrors = 3;
/// A jump from one zero to the next takes no more samples than this.
constexpr std::size_t longestJump = 3;

struct Stretch {
    double level = 0;
    std::size_t from = 0, end = 0;
    std::size_t size() const { return end - from; }
};

double median(std::vector<double> v) {
    const auto mid = v.begin() + static_cast<std::ptrdiff_t>(v.size() / 2);
    std::nth_element(v.begin(), mid, v.end());
    if (v.size() % 2) return *mid;
    return 0.5 * (*mid + *std::max_element(v.begin(), mid));
}

double levelOf(std::span<const double> f, std::size_t from, std::size_t to) {
    // A median of some ten thousand samples is as good as one of a million.
    const std::size_t stride = std::max<std::size_t>(1, (to - from) / 20000);
    std::vector<double> out;
    for (std::size_t i = from; i < to; i += stride)
        out.push_back(f[i]);
    return median(std::move(out));
}

/// The stretch from `from` on that ends at the first of three consecutive samples more than five noise away.
std::optional<Stretch> stretchFrom(std::span<const double> f, std::size_t from, double noise) {
    const std::size_t n = f.size();
    if (n < from + leastZero) return {};
    Stretch s{levelOf(f, from, from + leastZero), from, n};
    for (int pass = 0; pass < 2; ++pass) {
        std::size_t away = 0, i = from;
        for (; i < n && away < 3; ++i)
            away = std::abs(f[i] - s.level) > 5 * noise ? away + 1 : 0;
        s.end = away == 3 ? i - 3 : n;
        if (s.size() < leastZero) return {};
        s.level = levelOf(f, from, s.end);
    }
    return s;
}

LineFit lineOver(std::span<const double> f, std::size_t from, std::size_t size) {
    std::vector<double> index(size);
    std::iota(index.begin(), index.end(), 0.0);
    return fitLine(index, f.subspan(from, size), 0, size - 1);
}

/// Whether a stretch is level, or at least begins so before the soft start of the pull: one that climbs from
/// its first half on as the pull does is a log that starts loaded.
bool flat(std::span<const double> f, const Stretch& s, double noise, std::size_t extreme) {
    const double rise = lineOver(f, s.from, s.size()).slope * static_cast<double>(s.size() - 1);
    if (std::abs(rise) <= flatWithin * noise) return true;
    if (extreme <= s.end) return false;
    const std::size_t half = std::max<std::size_t>(3, s.size() / 2);
    const double pace = (f[extreme] - s.level) / static_cast<double>(extreme - s.end);
    const double error = noise * std::sqrt(12 / std::pow(static_cast<double>(half), 3));
    const double limit = std::min(std::abs(pace) - paceErrors * error, paceShare * std::abs(pace));
    if (limit < 0.2 * std::abs(pace)) return false; // too few samples to tell its start from the pull
    const double along = std::copysign(1.0, pace) * lineOver(f, s.from, half).slope;
    return along <= limit;
}

/// Whether the level jumps from one stretch to the next: both keep their level up to the jump.
bool jumps(std::span<const double> f, const Stretch& a, const Stretch& b, double noise) {
    constexpr std::size_t reach = 8;
    constexpr double keeps = 1.5; // times the noise, for a mean of so many
    if (a.size() < reach || b.size() < reach) return false;
    const auto mean = [&](std::size_t from) {
        const auto part = f.subspan(from, reach);
        return std::accumulate(part.begin(), part.end(), 0.0) / static_cast<double>(reach);
    };
    return std::abs(mean(a.end - reach) - a.level) <= keeps * noise &&
           std::abs(mean(b.from) - b.level) <= keeps * noise;
}

} // namespace

Baseline findBaseline(std::span<const double> f, double noise, double resolution) {
    Baseline out;
    auto zero = stretchFrom(f, 0, noise);
    if (!zero) return out;
    const auto extreme = static_cast<std::size_t>(std::max_element(f.begin(), f.end(),
                                                                   [&](double a, double b) {
                                                                       return std::abs(a - zero->level) <
                                                                              std::abs(b - zero->level);
                                                                   }) -
                                                  f.begin());
    if (!flat(f, *zero, noise, extreme)) return out;
    const double near = std::max(3 * noise, 2 * resolution);
    for (bool again = true; again && zero->end < f.size();) { // set to zero once more before the load came
        again = false;
        for (std::size_t from = zero->end; from <= zero->end + longestJump && !again; ++from) {
            const auto next = stretchFrom(f, from, noise);
            if (!next || next->size() < 2 * leastZero || next->end >= f.size() ||
                !flat(f, *next, noise, extreme) || !jumps(f, *zero, *next, noise))
                continue;
            // Nearer to nothing than before, and near nothing: a weight put on would have gone the other way.
            if (std::abs(next->level) > near || std::abs(zero->level) <= 2 * std::abs(next->level) ||
                extreme < next->end)
                continue;
            zero = next;
            out.setAgain = again = true;
        }
    }
    out.level = zero->level;
    out.end = zero->end == f.size() ? 0 : zero->end;
    return out;
}

std::optional<std::size_t> jumpUnderLoad(std::span<const double> f, std::size_t departure, std::size_t peak,
                                         double baseline, double noise, double resolution) {
    constexpr std::size_t reach = 8; // samples looked at on either side
    const double least = std::max({10 * noise, 4 * resolution, 0.01 * f[peak]});
    for (std::size_t i = departure + reach; i + reach < peak; ++i) {
        const double step = f[i] - f[i - 1];
        if (std::abs(step) <= least) continue;
        const auto before = lineOver(f, i - reach, reach);
        const auto after = lineOver(f, i, reach);
        const double gap = after.intercept - (before.intercept + before.slope * static_cast<double>(reach));
        const double calm = std::max(3 * noise, 0.05 * std::abs(gap));
        if (std::abs(gap) <= least || before.residualSd > calm || after.residualSd > calm ||
            std::abs(after.slope - before.slope) * static_cast<double>(reach) >
                0.25 * std::abs(gap) + 6 * noise)
            continue;
        // Nothing that is pulled steadily grows stronger at once; a fall is a slip, unless it is just what a
        // zero that was off would be put right by.
        const bool putRight =
            std::abs(gap + baseline) <= std::max({4 * noise, 2 * resolution, 0.05 * std::abs(baseline)});
        if (gap > 0 || putRight) return i;
    }
    return {};
}

} // namespace anvil::curve
