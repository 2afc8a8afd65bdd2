#include "order_statistics.h"

#include <algorithm>

namespace anvil::stats {
namespace {

/// Even bins between the least and the greatest.
struct Bins {
    static constexpr std::size_t many = 2048;
    double least, perUnit;

    std::size_t of(double v) const {
        return std::min(many - 1, static_cast<std::size_t>((v - least) * perUnit));
    }
};

} // namespace

std::array<double, 4> orderStatistics(std::span<const double> values, std::array<std::size_t, 4> places) {
    const auto [low, high] = std::minmax_element(values.begin(), values.end());
    std::array<double, 4> out{};
    if (!(*high - *low > 1e-300)) { // all alike
        out.fill(*low);
        return out;
    }
    const Bins bins{*low, static_cast<double>(Bins::many) / (*high - *low)};
    std::vector<std::size_t> counts(Bins::many, 0);
    for (const double v : values)
        ++counts[bins.of(v)];
    std::vector<double> wanted;
    for (std::size_t i = 0; i < places.size(); ++i) {
        std::size_t bin = 0, before = 0;
        while (before + counts[bin] <= places[i])
            before += counts[bin++];
        wanted.clear();
        for (const double v : values)
            if (bins.of(v) == bin) wanted.push_back(v);
        const auto at = wanted.begin() + static_cast<std::ptrdiff_t>(places[i] - before);
        std::nth_element(wanted.begin(), at, wanted.end());
        out[i] = *at;
    }
    return out;
}

} // namespace anvil::stats
