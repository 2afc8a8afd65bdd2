#include <anvil/stats/floors.h>

#include <algorithm>
#include <anvil/stats/density.h>
#include <anvil/stats/power.h>
#include <cmath>
#include <vector>

namespace anvil::stats {
namespace {

std::optional<double> aboveZero(double v) {
    return std::isfinite(v) && v > 0 ? std::optional(v) : std::nullopt;
}

/// One family's floors of one sample, by the shortest way.
class Source {
public:
    Source(Family family, std::span<const Value> values, const Summary& s) : m_family(family), m_n(s.n) {
        if (s.censored() || family == Family::weibull) {
            m_density = Density::of(family, values);
            return;
        }
        std::vector<Value> on;
        for (const auto& v : values)
            if (v.exact()) {
                if (family == Family::lognormal && !(v.value > 0)) return;
                const double y = family == Family::lognormal ? std::log(v.value) : v.value;
                on.push_back({y, Bound::exact, y});
            }
        const auto complete = summarise(on);
        if (complete.sd && *complete.sd > 0) m_complete = complete;
    }
    std::optional<double> floor(double share, double confidence) const {
        if (m_density) return aboveZero(m_density->floor(share, confidence));
        if (!m_complete) return std::nullopt;
        const double y =
            *m_complete->mean - toleranceFactor(static_cast<int>(m_n), share, confidence) * *m_complete->sd;
        return aboveZero(m_family == Family::lognormal ? std::exp(y) : y);
    }

private:
    Family m_family;
    std::size_t m_n;
    std::optional<Summary> m_complete;
    std::optional<Density> m_density;
};

} // namespace

Floors floorsOf(std::span<const Value> values) {
    const auto s = summarise(values);
    Floors f;
    f.lowest = s.lowest;
    f.meanMinus3Sd = s.meanMinus3Sd;
    const auto exact = std::count_if(values.begin(), values.end(), [](const Value& v) { return v.exact(); });
    if (exact < 3) return f;
    const Source normal(Family::normal, values, s);
    f.normal90_95 = normal.floor(0.90, 0.95);
    f.normal95_95 = normal.floor(0.95, 0.95);
    f.normal99_95 = normal.floor(0.99, 0.95);
    f.lognormal90_95 = Source(Family::lognormal, values, s).floor(0.90, 0.95);
    f.weibull90_95 = Source(Family::weibull, values, s).floor(0.90, 0.95);
    return f;
}

std::optional<double> floorOf(Family family, std::span<const Value> values, double share, double confidence) {
    const auto exact = std::count_if(values.begin(), values.end(), [](const Value& v) { return v.exact(); });
    if (exact < 3) return std::nullopt;
    return Source(family, values, summarise(values)).floor(share, confidence);
}

} // namespace anvil::stats
