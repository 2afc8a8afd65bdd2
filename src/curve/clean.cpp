#include <anvil/curve/curve.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>

namespace anvil::curve {
namespace {

constexpr std::size_t maxDisplacedPlaces = 10;

bool inOrder(const Curve& c) {
    const std::size_t n = c.force.size();
    for (std::size_t i = 0; i < n; ++i)
        if (!std::isfinite(c.force[i]) || !std::isfinite(c.time[i]) || (i && !(c.time[i] > c.time[i - 1])))
            return false;
    return std::all_of(c.displacement.begin(), c.displacement.end(),
                       [](double d) { return std::isfinite(d); });
}

void spreadEqualStamps(std::vector<double>& time, std::size_t& spread) {
    const std::size_t n = time.size();
    double lastStep = 0;
    for (std::size_t i = 0; i < n;) {
        std::size_t j = i + 1;
        while (j < n && time[j] == time[i])
            ++j;
        const double stamp = time[i];
        const double step = j < n ? time[j] - stamp : lastStep > 0 ? lastStep : 1.0;
        if (j - i > 1) {
            for (std::size_t k = i; k < j; ++k)
                time[k] = stamp + step * static_cast<double>(k - i) / static_cast<double>(j - i);
            spread += j - i;
        }
        lastStep = step;
        i = j;
    }
}

/// The greatest magnitude held for four samples: blind to spikes of up to three.
double sustainedExtreme(std::span<const double> f) {
    if (f.size() < 4)
        return f.empty() ? 0 : std::abs(*std::max_element(f.begin(), f.end(), [](double a, double b) {
            return std::abs(a) < std::abs(b);
        }));
    double best = 0;
    for (std::size_t i = 0; i + 3 < f.size(); ++i) {
        const double low = std::min(std::min(f[i], f[i + 1]), std::min(f[i + 2], f[i + 3]));
        const double high = std::max(std::max(f[i], f[i + 1]), std::max(f[i + 2], f[i + 3]));
        best = std::max(best, std::max(low, -high));
    }
    return best;
}

} // namespace

Ordered order(const Curve& raw) {
    Ordered out;
    const std::size_t n = raw.force.size();
    if (raw.time.size() == n && inOrder(raw)) {
        out.time = raw.time;
        out.force = raw.force;
        out.displacement = raw.displacement;
        return out;
    }
    const bool hasTime = raw.time.size() == n, hasDisplacement = raw.displacement.size() == n && n > 0;
    Curve& c = out.storage;
    c.time.reserve(n);
    c.force.reserve(n);
    for (std::size_t i = 0; i < n; ++i) {
        const double t = hasTime ? raw.time[i] : static_cast<double>(i);
        const double f = raw.force[i], d = hasDisplacement ? raw.displacement[i] : 0;
        if (!std::isfinite(t) || !std::isfinite(f) || !std::isfinite(d)) {
            ++out.dropped;
            continue;
        }
        std::size_t place = c.time.size();
        while (place > 0 && c.time[place - 1] > t && c.time.size() - place <= maxDisplacedPlaces)
            --place;
        if (c.time.size() - place > maxDisplacedPlaces) { // a larger step back: the run ends here
            out.otherRuns = n - i;
            break;
        }
        bool repeated = false;
        for (std::size_t k = place; hasTime && k > 0 && c.time[k - 1] == t && !repeated; --k)
            repeated = c.force[k - 1] == f && (!hasDisplacement || c.displacement[k - 1] == d) && k == place;
        if (repeated) {
            ++out.dropped;
            continue;
        }
        out.moved += place < c.time.size();
        const auto at = static_cast<std::ptrdiff_t>(place);
        c.time.insert(c.time.begin() + at, t);
        c.force.insert(c.force.begin() + at, f);
        if (hasDisplacement) c.displacement.insert(c.displacement.begin() + at, d);
    }
    spreadEqualStamps(c.time, out.spread);
    out.time = c.time;
    out.force = c.force;
    out.displacement = c.displacement;
    return out;
}

std::vector<Curve> splitAtClockResets(const Curve& raw) {
    const std::size_t n = raw.force.size();
    std::vector<Curve> runs;
    std::size_t start = 0;
    const auto cut = [&](std::size_t end) {
        const auto part = [&](const std::vector<double>& v) {
            return v.empty() ? v
                             : std::vector<double>(v.begin() + static_cast<std::ptrdiff_t>(start),
                                                   v.begin() + static_cast<std::ptrdiff_t>(end));
        };
        if (end > start) runs.push_back({part(raw.time), part(raw.force), part(raw.displacement)});
        start = end;
    };
    for (std::size_t i = 1; i < n && raw.time.size() == n; ++i) {
        if (!(raw.time[i] < raw.time[i - 1])) continue;
        std::size_t place = i;
        while (place > start && i - place <= maxDisplacedPlaces && raw.time[place - 1] > raw.time[i])
            --place;
        if (i - place > maxDisplacedPlaces) cut(i);
    }
    cut(n);
    return runs;
}

double resolution(std::span<const double> force) {
    const double peak = sustainedExtreme(force);
    const double dust = 1e-9 * peak;
    double smallest = 0;
    std::size_t steps = 0, zero = 0;
    for (std::size_t i = 1; i < force.size(); ++i) {
        const double step = std::abs(force[i] - force[i - 1]);
        const double level = std::abs(force[i]);
        if (level >= 0.1 * peak && level <= 0.9 * peak) {
            ++steps;
            zero += step <= dust;
        }
        if (step > dust && (smallest == 0 || step < smallest)) smallest = step;
    }
    return steps > 0 && static_cast<double>(zero) >= 0.05 * static_cast<double>(steps) ? smallest : 0;
}

double noise(std::span<const double> force, double resolution) {
    constexpr std::size_t places = 65536;
    const std::size_t n = force.size();
    double worst = resolution / std::sqrt(12.0);
    std::vector<double> d;
    for (const std::size_t lag : {1U, 2U, 4U, 8U, 16U}) {
        if (n <= 2 * lag || (lag > 1 && lag * 400 > n)) break;
        const std::size_t count = n - 2 * lag, stride = (count + places - 1) / places;
        d.clear();
        for (std::size_t i = 0; i < count; i += stride)
            d.push_back(std::abs(force[i + 2 * lag] - 2 * force[i + lag] + force[i]));
        const auto mid = d.begin() + static_cast<std::ptrdiff_t>(d.size() / 2);
        std::nth_element(d.begin(), mid, d.end());
        worst = std::max(worst, 1.4826 * *mid / std::sqrt(6.0));
    }
    return worst;
}

std::vector<std::size_t> removeSpikes(std::span<double> f, double noise, double resolution) {
    const double gap = std::max(6 * noise, 3 * resolution);
    const std::size_t n = f.size();
    std::vector<std::size_t> found;
    const auto offMedian = [&](std::size_t at) {
        std::array<double, 11> w{};
        const std::size_t from = at >= 5 ? at - 5 : 0, to = std::min(n, at + 6);
        const std::size_t count = to - from;
        const auto median = [&] {
            std::nth_element(w.begin(), w.begin() + count / 2, w.begin() + count);
            return w[count / 2];
        };
        std::copy(f.begin() + static_cast<std::ptrdiff_t>(from), f.begin() + static_cast<std::ptrdiff_t>(to),
                  w.begin());
        const double m = median();
        for (std::size_t k = 0; k < count; ++k)
            w[k] = std::abs(f[from + k] - m);
        const double mad = median();
        return std::abs(f[at] - m) > std::max(6 * 1.4826 * mad, gap);
    };
    for (std::size_t i = 1; i + 1 < n; ++i) {
        if (std::abs(f[i] - f[i - 1]) <= gap) continue;
        for (std::size_t k = 1; k <= 3 && i + k < n; ++k) {
            const double a = f[i - 1], b = f[i + k];
            const double high = std::max(a, b) + gap, low = std::min(a, b) - gap;
            bool above = true, below = true;
            for (std::size_t j = i; j < i + k; ++j) {
                above = above && f[j] > high;
                below = below && f[j] < low;
            }
            if (!above && !below) continue;
            bool spike = true;
            for (std::size_t j = i; j < i + k && spike; ++j)
                spike = offMedian(j);
            if (!spike) continue;
            for (std::size_t j = i; j < i + k; ++j) {
                f[j] = a + (b - a) * static_cast<double>(j - i + 1) / static_cast<double>(k + 1);
                found.push_back(j);
            }
            i += k - 1;
            break;
        }
    }
    return found;
}

} // namespace anvil::curve
