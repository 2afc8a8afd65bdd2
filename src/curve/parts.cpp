#include "parts.h"

#include <algorithm>
#include <cmath>

namespace anvil::curve {
namespace {

double median(std::vector<double> v) {
    const auto mid = v.begin() + static_cast<std::ptrdiff_t>(v.size() / 2);
    std::nth_element(v.begin(), mid, v.end());
    if (v.size() % 2) return *mid;
    return 0.5 * (*mid + *std::max_element(v.begin(), mid));
}

} // namespace

std::optional<StraightPart> straightSteepPart(std::span<const double> x, std::span<const double> f,
                                              std::size_t departure, std::size_t end, double reference,
                                              double noise) {
    const double low = 0.1 * reference, high = 0.9 * reference;
    std::size_t first = departure;
    while (first < end && f[first] < low)
        ++first;
    std::size_t last = first;
    for (std::size_t i = first; i <= end && f[i] <= high; ++i)
        last = i;
    if (last < first + 2) return std::nullopt;
    const LineSums sums(x, f, first, last);
    const std::size_t nodes = sums.nodes();
    std::vector<double> reached(nodes); // running maximum at the nodes
    double top = f[first];
    for (std::size_t node = 0, i = first; node < nodes; ++node) {
        for (; i <= sums.index(node); ++i)
            top = std::max(top, f[i]);
        reached[node] = top;
    }
    const auto isStraight = [&](const LineFit& fit) {
        return fit.r2 >= 0.995 || fit.residualSd <= 1.3 * noise;
    };
    std::optional<StraightPart> steepest;
    LineFit bestFit = sums.fit(0, nodes - 1);
    std::size_t bestA = 0, bestB = nodes - 1, a0 = 0, b0 = 0;
    for (std::size_t a = 0, b = 0; a < nodes; ++a) {
        while (b < nodes &&
               (reached[b] - reached[a] < 0.2 * reference || sums.index(b) - sums.index(a) + 1 < 8))
            ++b;
        if (b == nodes) break;
        const auto fit = sums.fit(a, b);
        if (fit.r2 > bestFit.r2) {
            bestFit = fit;
            bestA = a;
            bestB = b;
        }
        if (isStraight(fit) && (!steepest || fit.slope > steepest->fit.slope)) {
            steepest = StraightPart{fit, 0, 0, true};
            a0 = a;
            b0 = b;
        }
    }
    if (!steepest) return StraightPart{bestFit, sums.index(bestA), sums.index(bestB), isStraight(bestFit)};

    const double k0 = steepest->fit.slope, least = k0 - std::max(0.003 * k0, 3 * steepest->fit.standardError);
    const double step = 0.02 * reference;
    StraightPart grown = *steepest;
    const auto tryGrow = [&](std::size_t a, std::size_t b) {
        const auto fit = sums.fit(a, b);
        if (!isStraight(fit) || fit.slope < least) return false;
        grown.fit = fit;
        a0 = a;
        b0 = b;
        return true;
    };
    for (bool up = true, down = true; up || down;) {
        if (up) {
            std::size_t b = b0;
            while (b + 1 < nodes && reached[b] - reached[b0] < step)
                ++b;
            up = b > b0 && tryGrow(a0, b);
        }
        if (down) {
            std::size_t a = a0;
            while (a > 0 && reached[a0] - reached[a] < step)
                --a;
            down = a < a0 && tryGrow(a, b0);
        }
    }
    grown.first = sums.index(a0);
    grown.last = sums.index(b0);
    return grown;
}

std::optional<Residual> residual(std::span<const double> x, std::span<const double> f, std::size_t peak,
                                 double delta) {
    if (!(delta > 0)) return std::nullopt;
    const double from = x[peak] + delta, to = x[peak] + 2 * delta;
    std::vector<double> held;
    double farthest = x[peak];
    for (std::size_t i = peak; i < x.size(); ++i) {
        farthest = std::max(farthest, x[i]);
        if (x[i] >= from && x[i] <= to) held.push_back(f[i]);
    }
    if (farthest < x[peak] + 1.5 * delta || held.empty()) return std::nullopt;
    const double load = median(std::move(held));
    return Residual{load, load / f[peak]};
}

std::optional<Fall> fall(std::span<const double> x, std::span<const double> f, std::size_t peak) {
    const auto between = [&](std::size_t i, std::size_t j, double level) {
        return f[i] == f[j] ? x[i] : x[i] + (x[j] - x[i]) * (level - f[i]) / (f[j] - f[i]);
    };
    const auto before = [&](double level) -> std::optional<double> {
        for (std::size_t i = peak; i-- > 0;)
            if (f[i] < level) return between(i, i + 1, level);
        return std::nullopt;
    };
    const auto after = [&](double level) -> std::optional<double> {
        for (std::size_t i = peak + 1; i < f.size(); ++i)
            if (f[i] < level) return between(i - 1, i, level);
        return std::nullopt;
    };
    const auto up50 = before(0.5 * f[peak]), up90 = before(0.9 * f[peak]);
    const auto down90 = after(0.9 * f[peak]), down50 = after(0.5 * f[peak]);
    if (!up50 || !up90 || !down90 || !down50 || !(*up90 > *up50)) return std::nullopt;
    const double ratio = (*down50 - *down90) / (*up90 - *up50);
    return Fall{ratio, ratio < 0.25 ? "sudden" : ratio < 1 ? "quick" : "gradual"};
}

} // namespace anvil::curve
