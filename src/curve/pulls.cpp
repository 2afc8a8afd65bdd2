#include <anvil/curve/curve.h>

#include <algorithm>
#include <cmath>
#include <optional>

namespace anvil::curve {
namespace {

/// Shares of the greatest load in the log: a pull rises above the first, between two it stays under the
/// second.
constexpr double loadedShare = 0.3, quietShare = 0.04;
/// So long, at least, it must stay there.
constexpr double quietSeconds = 1;
constexpr std::size_t quietSamples = 5, quietSamplesWithoutClock = 20;
/// The way down over the way up between 10 and 40 % of a pull's own greatest load: below, it broke off.
constexpr double brokeOffRatio = 0.25;
/// Share of a pull's travel by which the displacement goes back, unloaded, before another piece.
constexpr double wentBackShare = 0.5;

/// Loads as distances from the level without load, worked out as they are asked for: a log can be long.
class Loads {
public:
    explicit Loads(const std::vector<double>& load) : m_load(load) {
        std::vector<double> head(load.begin(), load.begin() + 5);
        std::nth_element(head.begin(), head.begin() + 2, head.end());
        m_zero = head[2];
    }
    std::size_t size() const { return m_load.size(); }
    double operator[](std::size_t i) const { return std::abs(m_load[i] - m_zero); }
    /// Held for four samples from here on: blind to short spikes.
    double held(std::size_t i) const {
        if (i + 3 >= size()) return (*this)[i];
        return std::min(std::min((*this)[i], (*this)[i + 1]), std::min((*this)[i + 2], (*this)[i + 3]));
    }

private:
    const std::vector<double>& m_load;
    double m_zero = 0;
};

/// From the first to the last loaded sample of one rise and fall.
struct Hump {
    std::size_t first = 0, last = 0;
};

std::vector<Hump> humpsOf(const Loads& load, double top) {
    std::vector<Hump> humps;
    bool inside = false;
    for (std::size_t i = 0; i < load.size(); ++i) {
        const double held = load.held(i);
        if (held > loadedShare * top) {
            if (!inside) humps.push_back({i, i});
            humps.back().last = i;
            inside = true;
        } else if (held < quietShare * top) {
            inside = false;
        }
    }
    return humps;
}

/// The stretch without load between two humps, or nothing where it is too short.
std::optional<Hump> quietBetween(const Curve& c, const Loads& load, double top, const Hump& a,
                                 const Hump& b) {
    std::size_t first = a.last, last = b.first, quiet = 0;
    while (first < b.first && load[first] >= quietShare * top)
        ++first;
    while (last > first && load[last - 1] >= quietShare * top)
        --last;
    for (std::size_t i = first; i < last; ++i)
        quiet += load[i] < quietShare * top;
    if (quiet < (c.time.empty() ? quietSamplesWithoutClock : quietSamples)) return {};
    if (!c.time.empty() && c.time[last - 1] - c.time[first] < quietSeconds) return {};
    return Hump{first, last};
}

/// Whether the piece of this hump let go, or was let down.
bool brokeOff(const Curve& c, const Loads& load, const Hump& hump, std::size_t quiet) {
    double own = 0;
    for (std::size_t i = hump.first; i <= hump.last; ++i)
        own = std::max(own, load[i]);
    const double high = 0.4 * own, low = 0.1 * own;
    std::size_t highDown = quiet;
    while (highDown > hump.first && load[highDown] < high)
        --highDown;
    std::size_t lowDown = highDown;
    while (lowDown < quiet && load[lowDown] >= low)
        ++lowDown;
    std::size_t highUp = hump.first;
    while (highUp < highDown && load[highUp] < high)
        ++highUp;
    std::size_t lowUp = highUp;
    while (lowUp > 0 && load[lowUp] >= low)
        --lowUp;
    if (!c.travel.empty()) {
        const auto& x = c.travel;
        const double up = x[highUp] - x[lowUp], down = x[lowDown] - x[highDown];
        if (up != 0 && down / up < -0.05) return false; // it sprang back as it was let down
    }
    const auto lasted = [&](std::size_t from, std::size_t to) {
        return c.time.empty() ? static_cast<double>(to - from) : c.time[to] - c.time[from];
    };
    return lasted(highDown, lowDown) < brokeOffRatio * lasted(lowUp, highUp);
}

/// Whether the displacement went back over the stretch without load by much of what the pull, that began at
/// sample `begin`, had travelled.
bool wentBack(const Curve& c, std::size_t begin, const Hump& pull, const Hump& quiet) {
    if (c.travel.empty()) return false;
    const auto& x = c.travel;
    const double direction = x[pull.last] >= x[begin] ? 1 : -1;
    double travel = 0, farthest = direction * x[quiet.first], back = 0;
    for (std::size_t i = begin; i <= pull.last; ++i)
        travel = std::max(travel, direction * (x[i] - x[begin]));
    for (std::size_t i = quiet.first; i < quiet.last; ++i) {
        farthest = std::max(farthest, direction * x[i]);
        back = std::max(back, farthest - direction * x[i]);
    }
    return back > wentBackShare * travel && back > 0;
}

} // namespace

Curve part(const Curve& c, std::size_t from, std::size_t to) {
    const auto cut = [&](const std::vector<double>& v) {
        if (v.empty()) return v;
        return std::vector<double>(v.begin() + static_cast<std::ptrdiff_t>(from),
                                   v.begin() + static_cast<std::ptrdiff_t>(to));
    };
    Curve out{cut(c.time), cut(c.load), cut(c.travel), {}, c.loadKind, c.travelKind};
    for (const auto& other : c.others)
        out.others.push_back({other.name, other.unit, cut(other.values)});
    return out;
}

std::vector<Rows> pullsIn(const Curve& c, Cut cut) {
    const std::size_t n = c.load.size();
    if (n < 100) return {};
    const Loads load(c.load);
    double top = 0;
    for (std::size_t i = 0; i + 3 < n; ++i)
        top = std::max(top, load.held(i));
    const auto humps = humpsOf(load, top);
    std::vector<std::size_t> cuts{0};
    Hump pull = humps.empty() ? Hump{} : humps.front();
    for (std::size_t k = 1; k < humps.size(); ++k) {
        const auto quiet = quietBetween(c, load, top, pull, humps[k]);
        if (quiet && (cut == Cut::atEveryRise || brokeOff(c, load, pull, quiet->first) ||
                      wentBack(c, cuts.back(), pull, *quiet))) {
            cuts.push_back(quiet->first + (quiet->last - quiet->first) / 2);
            pull = humps[k];
        } else {
            pull.last = humps[k].last; // a cycle: the next fall decides for the whole
        }
    }
    if (cuts.size() < 2) return {};
    cuts.push_back(n);
    std::vector<Rows> pulls;
    for (std::size_t k = 0; k + 1 < cuts.size(); ++k)
        pulls.push_back({cuts[k], cuts[k + 1]});
    return pulls;
}

std::vector<Curve> splitAtPulls(const Curve& c, Cut cut) {
    std::vector<Curve> pulls;
    for (const auto& rows : pullsIn(c, cut))
        pulls.push_back(part(c, rows.from, rows.to));
    return pulls;
}

} // namespace anvil::curve
