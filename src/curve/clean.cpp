#include <anvil/curve/curve.h>

#include <algorithm>
#include <cmath>

namespace anvil::curve {
namespace {

constexpr std::size_t maxDisplacedPlaces = 10;

/// Where so many rows share the stamp of the row before them the clock is coarse, and two rows that are alike
/// are two readings.
constexpr double coarseClockShare = 0.02;

bool coarseClock(const std::vector<double>& time) {
    std::size_t shared = 0;
    for (std::size_t i = 1; i < time.size(); ++i)
        shared += time[i] == time[i - 1];
    return static_cast<double>(shared) >= coarseClockShare * static_cast<double>(time.size());
}

bool inOrder(const Curve& c) {
    const std::size_t n = c.load.size();
    for (std::size_t i = 0; i < n; ++i)
        if (!std::isfinite(c.load[i]) || !std::isfinite(c.time[i]) || (i && !(c.time[i] > c.time[i - 1])))
            return false;
    return std::all_of(c.travel.begin(), c.travel.end(), [](double d) { return std::isfinite(d); });
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

} // namespace

Ordered order(const Curve& raw) {
    Ordered out;
    const std::size_t n = raw.load.size();
    if (raw.time.size() == n && inOrder(raw)) {
        out.time = raw.time;
        out.load = raw.load;
        out.travel = raw.travel;
        return out;
    }
    const bool hasTime = raw.time.size() == n, hasTravel = raw.travel.size() == n && n > 0;
    const bool repeatsCount = !hasTime || coarseClock(raw.time);
    Curve& c = out.storage;
    c.time.reserve(n);
    c.load.reserve(n);
    for (std::size_t i = 0; i < n; ++i) {
        const double t = hasTime ? raw.time[i] : static_cast<double>(i);
        const double f = raw.load[i], d = hasTravel ? raw.travel[i] : 0;
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
        for (std::size_t k = place; !repeatsCount && k > 0 && c.time[k - 1] == t && !repeated; --k)
            repeated = c.load[k - 1] == f && (!hasTravel || c.travel[k - 1] == d) && k == place;
        if (repeated) {
            ++out.dropped;
            continue;
        }
        out.moved += place < c.time.size();
        const auto at = static_cast<std::ptrdiff_t>(place);
        c.time.insert(c.time.begin() + at, t);
        c.load.insert(c.load.begin() + at, f);
        if (hasTravel) c.travel.insert(c.travel.begin() + at, d);
    }
    spreadEqualStamps(c.time, out.spread);
    out.time = c.time;
    out.load = c.load;
    out.travel = c.travel;
    return out;
}

std::vector<Rows> runsByClock(const Curve& raw) {
    const std::size_t n = raw.load.size();
    std::vector<Rows> runs;
    std::size_t start = 0;
    const auto cut = [&](std::size_t end) {
        if (end > start) runs.push_back({start, end});
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

} // namespace anvil::curve
