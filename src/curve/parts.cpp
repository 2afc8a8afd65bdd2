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

std::vector<double> slice(std::span<const double> f, std::size_t from, std::size_t to) {
    // A median of some ten thousand samples is as good as one of a million.
    const std::size_t stride = std::max<std::size_t>(1, (to - from) / 20000);
    std::vector<double> out;
    for (std::size_t i = from; i < to; i += stride)
        out.push_back(f[i]);
    return out;
}

} // namespace

Baseline findBaseline(std::span<const double> f, double noise) {
    const std::size_t n = f.size();
    if (n < 5) return {};
    double level = median(slice(f, 0, 5));
    std::size_t end = 0;
    for (int pass = 0; pass < 2; ++pass) {
        std::size_t away = 0, i = 0;
        for (; i < n && away < 3; ++i)
            away = std::abs(f[i] - level) > 5 * noise ? away + 1 : 0;
        end = away == 3 ? i - 3 : n;
        if (end < 5) return {};
        level = median(slice(f, 0, end));
    }
    return {level, end == n ? 0 : end};
}

bool flatTop(std::span<const double> f, double noise, double resolution) {
    const double top = *std::max_element(f.begin(), f.end());
    std::size_t best = 0, start = 0;
    for (std::size_t i = 0; i < f.size();) {
        std::size_t j = i;
        while (j < f.size() && f[j] == top)
            ++j;
        if (j - i > best) {
            best = j - i;
            start = i;
        }
        i = j + 1;
    }
    if (best < 5) return false;
    if (start < best) return true;
    std::vector<double> index(best), before(f.begin() + static_cast<std::ptrdiff_t>(start - best),
                                            f.begin() + static_cast<std::ptrdiff_t>(start));
    for (std::size_t i = 0; i < best; ++i)
        index[i] = static_cast<double>(i);
    const auto line = fitLine(index, before, 0, best - 1);
    const double middle = static_cast<double>(best) + 0.5 * static_cast<double>(best - 1);
    return line.intercept + line.slope * middle - top > std::max({0.01 * top, 8 * resolution, 6 * noise});
}

std::optional<std::size_t> firstSlip(std::span<const double> f, std::size_t departure, std::size_t peak,
                                     double noise, double resolution) {
    if (peak <= departure) return std::nullopt;
    const std::size_t m = std::max<std::size_t>(1, (peak - departure) / 1000);
    double best = 0;
    std::size_t bestAt = departure;
    for (std::size_t i = departure; i < peak; i += m) {
        const std::size_t end = std::min(i + m, peak);
        double mean = 0;
        for (std::size_t k = i; k < end; ++k)
            mean += f[k];
        mean /= static_cast<double>(end - i);
        if (mean > best) {
            best = mean;
            bestAt = i;
        } else if (best > 0.1 * f[peak] && best - mean > std::max({0.03 * best, 8 * noise, 2 * resolution})) {
            const std::size_t from = bestAt >= departure + m ? bestAt - m : departure,
                              to = std::min(bestAt + 2 * m, i);
            const auto top =
                std::max_element(f.begin() + static_cast<std::ptrdiff_t>(from),
                                 f.begin() + static_cast<std::ptrdiff_t>(std::max(to, from + 1)));
            return static_cast<std::size_t>(top - f.begin());
        }
    }
    return std::nullopt;
}

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

    const double k0 = steepest->fit.slope, least = k0 - std::max(0.01 * k0, 3 * steepest->fit.standardError);
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
    const double force = median(std::move(held));
    return Residual{force, force / f[peak]};
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
