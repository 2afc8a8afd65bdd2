#include <anvil/curve/burst.h>

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <numbers>

namespace anvil::curve {
namespace {

constexpr double twoPasses = 0.8022; // what a second pass makes of the cut-off: (√2 − 1)^(1/4)

/// One pass of the section with these coefficients, started as if it had always seen the first value.
struct Section {
    double b0, b1, b2, a1, a2;
    void run(std::vector<double>& v) const {
        double x1 = v.front(), x2 = x1, y1 = x1, y2 = x1;
        for (auto& x : v) {
            const double y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2;
            x2 = x1;
            x1 = x;
            y2 = y1;
            y1 = y;
            x = y;
        }
    }
};

Section butterworth(double rate, double cutOff) {
    const double w = std::tan(std::numbers::pi * cutOff / rate), k1 = std::numbers::sqrt2 * w, k2 = w * w;
    const double all = 1 + k1 + k2;
    return {k2 / all, 2 * k2 / all, k2 / all, 2 * (k2 - 1) / all, (1 - k1 + k2) / all};
}

/// Where the line between two samples crosses a level.
double crossing(std::span<const double> t, std::span<const double> a, std::size_t i, double level) {
    return t[i] + (t[i + 1] - t[i]) * (level - a[i]) / (a[i + 1] - a[i]);
}

double widthAtHalf(std::span<const double> t, std::span<const double> a, std::size_t top) {
    const double half = a[top] / 2;
    std::size_t i = top, k = top;
    while (i > 0 && a[i] > half)
        --i;
    while (k + 1 < a.size() && a[k] > half)
        ++k;
    const double from = a[i] > half ? t[i] : crossing(t, a, i, half);
    const double to = a[k] > half ? t[k] : crossing(t, a, k - 1, half);
    return to - from;
}

double changeOfVelocity(std::span<const double> t, std::span<const double> a, std::size_t top, double noise) {
    const double gone = 3 * noise;
    std::size_t i = top, k = top;
    while (i > 0 && a[i] > gone)
        --i;
    while (k + 1 < a.size() && a[k] > gone)
        ++k;
    double sum = 0;
    for (; i < k; ++i)
        sum += 0.5 * (a[i] + a[i + 1]) * (t[i + 1] - t[i]);
    return sum;
}

/// Samples a second; empty where the clock is uneven by more than a hundredth.
std::optional<double> rateOf(std::span<const double> t) {
    const double step = (t.back() - t.front()) / static_cast<double>(t.size() - 1);
    for (std::size_t i = 1; i < t.size(); ++i)
        if (std::abs(t[i] - t[i - 1] - step) > 0.01 * step + 1e-12 * std::abs(t[i])) return std::nullopt;
    return 1 / step;
}

} // namespace

Expected<std::vector<double>> lowPassed(std::span<const double> values, double rate, double cutOff) {
    const double design = cutOff / twoPasses;
    if (!(cutOff > 0) || !(cutOff <= 0.4 * rate))
        return fail(
            fmt::format("A low-pass at {:.4g} Hz cannot be: the log has {:.4g} samples a second, so it "
                        "can be at {:.4g} Hz at most.",
                        cutOff, rate, 0.4 * rate));
    std::vector<double> v(values.begin(), values.end());
    if (v.empty()) return v;
    const auto section = butterworth(rate, std::min(design, 0.4999 * rate));
    section.run(v);
    std::reverse(v.begin(), v.end());
    section.run(v);
    std::reverse(v.begin(), v.end());
    return v;
}

Expected<Burst> readBurst(std::span<const double> time, std::span<const double> acceleration,
                          const BurstSettings& settings, double noise) {
    if (acceleration.size() < 5) return fail("A blow needs at least five samples.");
    std::vector<double> filtered;
    auto a = acceleration;
    if (settings.lowPass > 0) {
        const auto rate = rateOf(time);
        if (!rate) return fail("The clock of this log is uneven: it cannot be filtered.");
        auto smooth = lowPassed(acceleration, *rate, settings.lowPass);
        if (!smooth) return tl::unexpected(smooth.error());
        filtered = std::move(*smooth);
        a = filtered;
    }
    const auto top = static_cast<std::size_t>(std::max_element(a.begin(), a.end()) - a.begin());
    if (!(a[top] > 0)) return fail("Nothing in this log slows the fall.");
    const auto severity = severityOf(time, a, settings.longestWindow);
    return Burst{a[top],
                 time[top],
                 widthAtHalf(time, a, top),
                 changeOfVelocity(time, a, top, noise),
                 severity.value,
                 severity.from,
                 severity.to,
                 settings.lowPass};
}

} // namespace anvil::curve
