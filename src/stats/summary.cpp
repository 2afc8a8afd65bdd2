#include <anvil/stats/summary.h>

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <numeric>
#include <vector>

namespace anvil::stats {

double studentQuantile(double df, double p) { return boost::math::quantile(boost::math::students_t(df), p); }

double studentUpperTail(double df, double t) {
    return boost::math::cdf(boost::math::complement(boost::math::students_t(df), t));
}

Summary summarise(std::span<const Value> values) {
    Summary s;
    std::vector<double> v;
    double greatest = 0;
    for (const auto& x : values) {
        switch (x.state) {
        case State::aside:
            ++s.aside;
            continue;
        case State::above:
            ++s.above;
            break;
        case State::below:
            ++s.below;
            break;
        case State::between:
            ++s.between;
            break;
        case State::exact:
            break;
        }
        const double high = x.state == State::between ? x.upper : x.value;
        greatest = v.empty() ? high : std::max(greatest, high);
        v.push_back(x.value);
    }
    s.n = v.size();
    if (v.empty()) return s;
    std::sort(v.begin(), v.end());
    const auto n = static_cast<double>(s.n);
    s.min = v.front();
    s.max = greatest;
    s.lowest = s.min;
    const double sum = std::accumulate(v.begin(), v.end(), 0.0), mean = sum / n;
    if (s.censored()) {
        s.basis = MeanBasis::bound;
        if (s.below == 0) s.mean = mean;
        return s;
    }
    s.mean = mean;
    s.median = s.n % 2 ? v[s.n / 2] : 0.5 * (v[s.n / 2 - 1] + v[s.n / 2]);
    if (s.n >= 4) s.dropHighLowMean = std::accumulate(v.begin() + 1, v.end() - 1, 0.0) / (n - 2);
    if (s.n < 2) return s;
    double squares = 0;
    for (const double x : v)
        squares += (x - mean) * (x - mean);
    s.sd = std::sqrt(squares / (n - 1));
    if (mean > 0) s.cv = *s.sd / mean;
    const double half = studentQuantile(n - 1, 0.975) * *s.sd / std::sqrt(n);
    s.meanInterval = {mean - half, mean + half};
    if (s.n >= 3 && mean - 3 * *s.sd > 0) s.meanMinus3Sd = mean - 3 * *s.sd;
    return s;
}

} // namespace anvil::stats
