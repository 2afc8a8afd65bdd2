#include <anvil/stats/outliers.h>

#include <algorithm>
#include <cmath>

namespace anvil::stats {
namespace {

struct Spread {
    double mean = 0, sd = 0;
};

/// Mean and standard deviation, in units of the greatest so that no square overflows; the spread of rounding
/// is none. Asked thousands of times of a large group, where a whole summary would sort it each time.
Spread spreadOf(std::span<const Value> values, const std::vector<std::size_t>& left) {
    double unit = 0, sum = 0, squares = 0;
    for (const auto i : left)
        unit = std::max(unit, std::abs(values[i].value));
    if (!(unit > 0)) return {};
    const auto n = static_cast<double>(left.size());
    for (const auto i : left)
        sum += values[i].value / unit;
    const double mean = sum / n;
    for (const auto i : left)
        squares += (values[i].value / unit - mean) * (values[i].value / unit - mean);
    const double sd = std::sqrt(squares / (n - 1));
    return {mean * unit, sd <= 1e-12 * std::abs(mean) ? 0 : sd * unit};
}

/// The most extreme of these, with its p; none without spread.
std::optional<Outlier> mostExtreme(std::span<const Value> values, const std::vector<std::size_t>& left) {
    const auto s = spreadOf(values, left);
    if (!(s.sd > 0)) return std::nullopt;
    const auto far = *std::max_element(left.begin(), left.end(), [&](std::size_t a, std::size_t b) {
        return std::abs(values[a].value - s.mean) < std::abs(values[b].value - s.mean);
    });
    const auto n = static_cast<double>(left.size());
    const double g = std::abs(values[far].value - s.mean) / s.sd;
    const double rest = (n - 1) * (n - 1) - n * g * g;
    // All others equal: rest is zero but for rounding, and nothing could be further out.
    const double p =
        rest > 1e-12 * n * n
            ? std::min(1.0, 2 * n * studentUpperTail(n - 2, std::sqrt(n * (n - 2) * g * g / rest)))
            : 0.0;
    return Outlier{far, values[far].value, p};
}

} // namespace

std::optional<std::vector<Outlier>> outliers(std::span<const Value> values) {
    std::vector<std::size_t> left;
    for (std::size_t i = 0; i < values.size(); ++i) {
        if (values[i].aside) continue;
        if (!values[i].exact()) return std::nullopt;
        left.push_back(i);
    }
    if (left.size() < 3) return std::nullopt;
    const std::size_t steps = left.size() < 15 ? 1 : left.size() / 5;
    std::vector<Outlier> found;
    std::size_t listed = 0;
    for (std::size_t k = 0; k < steps; ++k) {
        const auto next = mostExtreme(values, left);
        if (!next) break;
        found.push_back(*next);
        if (next->p < 0.05) listed = found.size();
        left.erase(std::find(left.begin(), left.end(), next->index));
    }
    found.resize(listed);
    return found;
}

} // namespace anvil::stats
