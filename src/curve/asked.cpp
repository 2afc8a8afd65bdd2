#include "asked.h"

#include <algorithm>
#include <cmath>
#include <deque>

namespace anvil::curve {

std::optional<Chord> chordBetween(std::span<const double> x, std::span<const double> f, std::size_t departure,
                                  std::size_t end, double from, double to) {
    std::optional<std::size_t> a, b;
    for (std::size_t i = departure; i <= end && !b; ++i) {
        if (!a && f[i] >= from) a = i;
        if (f[i] >= to) b = i;
    }
    if (!a || !b || *b <= *a || !(x[*b] > x[*a])) return std::nullopt;
    LineFit line;
    line.slope = (f[*b] - f[*a]) / (x[*b] - x[*a]);
    line.intercept = f[*a] - line.slope * x[*a];
    line.r2 = 1;
    line.samples = *b - *a + 1;
    return Chord{line, *a, *b};
}

std::optional<Landmark> yieldAt(std::span<const double> t, std::span<const double> x,
                                std::span<const double> f, std::size_t from, std::size_t peak, double slope,
                                double toe, double offset) {
    const auto above = [&](std::size_t i) { return f[i] - slope * (x[i] - toe - offset); };
    for (std::size_t i = from + 1; i <= peak; ++i) {
        const double before = above(i - 1), here = above(i);
        if (!(before > 0) || here > 0) continue;
        const double share = before / (before - here);
        const auto between = [&](std::span<const double> v) { return v[i - 1] + share * (v[i] - v[i - 1]); };
        return Landmark{i, between(t), between(f), between(x) - toe, false};
    }
    return std::nullopt;
}

namespace {

/// Least squares of F = a − b·ln(1 + t/τ) for one τ.
Held::Law lawFor(std::span<const double> t, std::span<const double> f, std::size_t from, std::size_t to,
                 double tau) {
    double n = 0, mx = 0, my = 0, xx = 0, xy = 0, yy = 0;
    for (std::size_t i = from; i <= to; ++i) {
        const double x = std::log1p((t[i] - t[from]) / tau), y = f[i] - f[from];
        n += 1;
        mx += x;
        my += y;
        xx += x * x;
        xy += x * y;
        yy += y * y;
    }
    const double sxx = xx - mx * mx / n, sxy = xy - mx * my / n, syy = yy - my * my / n;
    const double slope = sxx > 0 ? sxy / sxx : 0;
    return {f[from] + (my - slope * mx) / n, -slope, tau, syy > 0 ? slope * sxy / syy : 0};
}

} // namespace

Held heldOver(std::span<const double> t, std::span<const double> f, std::size_t a, std::size_t b) {
    Held h{t[a], t[b], 0, 0, 0, {}};
    const auto n = static_cast<double>(b - a + 1);
    for (std::size_t i = a; i <= b; ++i)
        h.mean += f[i] / n;
    double squares = 0;
    for (std::size_t i = a; i <= b; ++i)
        squares += (f[i] - h.mean) * (f[i] - h.mean);
    h.sd = n > 1 ? std::sqrt(squares / (n - 1)) : 0;
    if (n < 10 || !(t[b] > t[a])) {
        h.relaxation = f[a] != 0 ? 1 - f[b] / f[a] : 0;
        return h;
    }
    const LineSums sums(t, f, a, b);
    const auto line = sums.fit(0, sums.nodes() - 1);
    Held::Law best;
    best.r2 = -1;
    const double whole = t[b] - t[a];
    const auto better = [&](double tau) {
        if (const auto law = lawFor(t, f, a, b, tau); law.r2 > best.r2) best = law;
    };
    for (double tau = whole / 1e5; tau <= whole; tau *= 2)
        better(tau);
    for (double step = 1.5; step > 1.0005; step = std::sqrt(step)) { // closer and closer about the best
        const double tau = best.tau;
        better(tau * step);
        better(tau / step);
    }
    const bool fits = best.b > 0 && best.r2 > line.r2 && best.r2 > 0.5;
    const auto at = [&](double time) {
        return fits ? best.a - best.b * std::log1p((time - t[a]) / best.tau)
                    : line.intercept + line.slope * time;
    };
    if (fits) h.law = best;
    const double first = at(t[a]);
    h.relaxation = first != 0 ? 1 - at(t[b]) / first : 0;
    return h;
}

std::optional<double> sustainedLoad(std::span<const double> t, std::span<const double> x,
                                    std::span<const double> f, std::size_t departure, double seconds,
                                    double speed) {
    std::optional<double> best;
    std::deque<std::size_t> least; // rising loads: the first is the least of the window
    std::size_t from = departure;
    for (std::size_t i = departure; i < f.size(); ++i) {
        while (!least.empty() && f[least.back()] >= f[i])
            least.pop_back();
        least.push_back(i);
        // The shortest window that ends here and is long enough.
        while (from + 1 <= i && t[i] - t[from + 1] >= seconds)
            ++from;
        while (!least.empty() && least.front() < from)
            least.pop_front();
        const double took = t[i] - t[from];
        if (took < seconds || took <= 0) continue;
        const bool slow = x.empty() || std::abs(x[i] - x[from]) <= speed * took;
        if (const double held = f[least.front()]; slow && held > 0 && (!best || held > *best)) best = held;
    }
    return best;
}

namespace {

/// b where a first passes a value upwards, by straight lines between samples.
std::optional<double> firstPassed(std::span<const double> a, std::span<const double> b, std::size_t from,
                                  double value) {
    for (std::size_t i = from + 1; i < a.size(); ++i)
        if (a[i] >= value && a[i] > a[i - 1]) {
            const double share = a[i - 1] >= value ? 0 : (value - a[i - 1]) / (a[i] - a[i - 1]);
            return b[i - 1] + share * (b[i] - b[i - 1]);
        }
    return std::nullopt;
}

} // namespace

std::optional<double> loadAt(std::span<const double> x, std::span<const double> f, std::size_t departure,
                             double toe, double travel) {
    return firstPassed(x, f, departure, toe + travel);
}

std::optional<double> travelAt(std::span<const double> x, std::span<const double> f, std::size_t departure,
                               double toe, double load) {
    const auto at = firstPassed(f, x, departure, load);
    return at ? std::optional(*at - toe) : std::nullopt;
}

std::optional<double> permanentAfter(std::span<const double> x, std::span<const double> f, std::size_t peak,
                                     double toe) {
    for (std::size_t i = peak + 1; i < f.size(); ++i)
        if (f[i] <= 0.02 * f[peak]) return x[i] - toe;
    return std::nullopt;
}

} // namespace anvil::curve
