#include "location_slice.h"

#include "distributions.h"

#include <algorithm>
#include <boost/math/special_functions/gamma.hpp>
#include <cmath>

namespace anvil::stats {
namespace {

constexpr std::size_t columns = 161; // of the grid
constexpr double reach = 40;         // ln: what lies that far below the top is nothing

/// ln L by μ at one σ. What exact values say is summed up once: of a group of thousands only the bounds are
/// asked again.
class LogLikelihood {
public:
    LogLikelihood(Family family, const std::vector<Observation>& all, double scale)
        : m_family(family), m_scale(scale) {
        double sum = 0;
        for (const auto& o : all) {
            if (o.bound != Bound::exact) {
                m_bounds.push_back(o);
                continue;
            }
            ++m_exact;
            sum += o.y;
            m_greatest = std::max(m_greatest, o.y);
        }
        if (m_exact == 0) return;
        m_mean = sum / m_exact;
        for (const auto& o : all)
            if (o.bound == Bound::exact) {
                m_squares += (o.y - m_mean) * (o.y - m_mean);
                if (family == Family::weibull) m_exponents += std::exp((o.y - m_greatest) / scale);
            }
    }
    double operator()(double location) const {
        double sum =
            stats::logLikelihood(m_family, m_bounds, location, m_scale) - m_exact * std::log(m_scale);
        if (m_exact == 0) return sum;
        const double off = m_mean - location;
        if (m_family == Family::weibull) // Σ z − Σ e^z
            return sum + m_exact * off / m_scale - m_exponents * std::exp((m_greatest - location) / m_scale);
        constexpr double logRoot2Pi = 0.91893853320467274;
        return sum - 0.5 * (m_squares + m_exact * off * off) / (m_scale * m_scale) - m_exact * logRoot2Pi;
    }

private:
    Family m_family;
    double m_scale, m_exact = 0, m_mean = 0, m_squares = 0, m_greatest = -1e308, m_exponents = 0;
    std::vector<Observation> m_bounds;
};

/// The top of a concave function near `from`, by golden steps; `width` is its scale.
double topOf(const LogLikelihood& f, double from, double width) {
    double low = from - width, high = from + width;
    while (f(low) > f(low + width) && f(low) > -1e300)
        low -= 2 * width;
    while (f(high) > f(high - width) && f(high) > -1e300)
        high += 2 * width;
    constexpr double golden = 0.6180339887498949;
    double a = high - golden * (high - low), b = low + golden * (high - low), fa = f(a), fb = f(b);
    for (int i = 0; i < 60 && high - low > 1e-6 * width; ++i) {
        if (fa > fb) {
            high = b;
            b = a;
            fb = fa;
            fa = f(a = high - golden * (high - low));
        } else {
            low = a;
            a = b;
            fa = fb;
            fb = f(b = low + golden * (high - low));
        }
    }
    return 0.5 * (low + high);
}

/// Where the function has fallen by `reach` from its top, going by `step`.
double edge(const LogLikelihood& f, double top, double atTop, double step) {
    double x = top + step;
    for (int i = 0; i < 60 && f(x) > atTop - reach; ++i)
        x = top + (x - top) * 1.6;
    double near = top + (x - top) / 1.6; // and back a little, so that few points are wasted
    for (int i = 0; i < 6; ++i) {
        const double middle = 0.5 * (near + x);
        (f(middle) > atTop - reach ? near : x) = middle;
    }
    return x;
}

// In double: what is lost by it lies far below the error of the grid.
using Quiet =
    boost::math::policies::normalise<quietly::Policy, boost::math::policies::promote_double<false>>::type;

Slice closedSlice(const std::vector<Observation>& all, double scale) {
    Slice out;
    out.scale = scale;
    double greatest = -1e308, exactSum = 0, sum = 0;
    for (const auto& o : all) {
        greatest = std::max(greatest, o.y);
        if (o.bound != Bound::exact) continue;
        ++out.exact;
        exactSum += o.y;
    }
    for (const auto& o : all)
        sum += std::exp((o.y - greatest) / scale);
    out.logSum = greatest / scale + std::log(sum);
    out.top = scale * (out.logSum - std::log(out.exact));
    out.logIntegral = -(out.exact - 1) * std::log(scale) + exactSum / scale - out.exact * out.logSum +
                      std::lgamma(out.exact);
    return out;
}

} // namespace

double Slice::below(double location) const {
    if (exact > 0)
        return boost::math::gamma_q(exact, std::exp(std::min(logSum - location / scale, 700.0)), Quiet());
    const double at = (location - from) / step;
    if (!(at > 0)) return 0;
    const auto k = static_cast<std::size_t>(at);
    if (k + 1 >= cumulated.size()) return 1;
    // Hermite's cubic: the slopes of the cumulated density are the density.
    const double t = at - static_cast<double>(k), p = cumulated[k], q = cumulated[k + 1],
                 m = step * density[k], n = step * density[k + 1];
    return p + t * (m + t * (3 * (q - p) - 2 * m - n + t * (2 * (p - q) + m + n)));
}

double Slice::drawn(double u) const {
    if (exact > 0) return scale * (logSum - std::log(boost::math::gamma_q_inv(exact, u, Quiet())));
    const auto at = std::upper_bound(cumulated.begin(), cumulated.end(), u);
    if (at == cumulated.begin() || at == cumulated.end())
        return at == cumulated.begin() ? from : from + step * (columns - 1);
    // Newton's steps on the cubic between the two columns, kept between the ends that are known.
    const auto k = static_cast<std::size_t>(at - cumulated.begin()) - 1;
    const double p = cumulated[k], q = cumulated[k + 1], m = step * density[k], n = step * density[k + 1];
    const double c2 = 3 * (q - p) - 2 * m - n, c3 = 2 * (p - q) + m + n;
    double low = 0, high = 1, t = (u - p) / (q - p);
    for (int i = 0; i < 30; ++i) {
        const double off = p + t * (m + t * (c2 + t * c3)) - u;
        (off < 0 ? low : high) = t;
        const double slope = m + t * (2 * c2 + t * 3 * c3);
        const double next = slope > 0 ? t - off / slope : 0.5 * (low + high);
        const double to = next > low && next < high ? next : 0.5 * (low + high);
        if (std::abs(to - t) < 1e-12) break;
        t = to;
    }
    return from + step * (static_cast<double>(k) + t);
}

bool isClosed(Family family, const std::vector<Observation>& all) {
    return family == Family::weibull && std::all_of(all.begin(), all.end(), [](const Observation& o) {
               return o.bound == Bound::exact || o.bound == Bound::above;
           });
}

Slice sliceAt(Family family, const std::vector<Observation>& all, double scale, double from) {
    if (isClosed(family, all)) return closedSlice(all, scale);
    const LogLikelihood f(family, all, scale);
    const double width = scale / std::sqrt(static_cast<double>(all.size()));
    Slice out;
    out.scale = scale;
    out.top = topOf(f, from, width);
    const double atTop = f(out.top), high = edge(f, out.top, atTop, 3 * width);
    out.from = edge(f, out.top, atTop, -3 * width);
    out.step = (high - out.from) / static_cast<double>(columns - 1);
    for (std::size_t k = 0; k < columns; ++k)
        out.density.push_back(std::exp(f(out.from + static_cast<double>(k) * out.step) - atTop));
    out.cumulated.assign(columns, 0);
    double sum = 0;
    const auto& d = out.density;
    for (std::size_t k = 0; k + 1 < columns; ++k) {
        const double before = k > 0 ? d[k - 1] : d[k], after = k + 2 < columns ? d[k + 2] : d[k + 1];
        sum += out.step * (13 * (d[k] + d[k + 1]) - before - after) / 24; // of the cubic through four points
        out.cumulated[k + 1] = sum;
    }
    for (auto& x : out.cumulated)
        x /= sum;
    for (auto& x : out.density)
        x /= sum;
    out.logIntegral = sum > 0 ? atTop + std::log(sum) : -1e308;
    return out;
}

} // namespace anvil::stats
