#include "line.h"

#include <algorithm>
#include <cmath>

namespace anvil::curve {

LineSums::LineSums(std::span<const double> x, std::span<const double> y, std::size_t first, std::size_t last)
    : m_x(x), m_y(y), m_x0(0.5 * (x[first] + x[last])), m_y0(0.5 * (y[first] + y[last])) {
    const std::size_t count = last - first + 1, stride = (count + maxNodes - 1) / maxNodes;
    m_at.reserve(count / stride + 2);
    m_before.reserve(count / stride + 2);
    Sums s;
    for (std::size_t node = first;; node += stride) {
        if (node > last) node = last;
        m_at.push_back(node);
        m_before.push_back(s);
        if (node == last) break;
        for (std::size_t i = node, end = std::min(node + stride, last); i < end; ++i)
            add(s, x[i] - m_x0, y[i] - m_y0); // centred: keeps the sums of squares exact enough
    }
}

void LineSums::add(Sums& s, double dx, double dy) {
    s.n += 1;
    s.x += dx;
    s.y += dy;
    s.xx += dx * dx;
    s.xy += dx * dy;
    s.yy += dy * dy;
}

LineFit LineSums::fit(std::size_t a, std::size_t b) const {
    const Sums &p = m_before[a], &q = m_before[b];
    const double dx = m_x[m_at[b]] - m_x0, dy = m_y[m_at[b]] - m_y0;
    const double n = q.n - p.n + 1, sx = q.x - p.x + dx, sy = q.y - p.y + dy;
    const double sxx = q.xx - p.xx + dx * dx - sx * sx / n;
    const double sxy = q.xy - p.xy + dx * dy - sx * sy / n;
    const double syy = q.yy - p.yy + dy * dy - sy * sy / n;
    LineFit fit;
    fit.samples = static_cast<std::size_t>(n);
    if (!(sxx > 0)) return fit;
    fit.slope = sxy / sxx;
    fit.intercept = m_y0 + sy / n - fit.slope * (m_x0 + sx / n);
    const double residual = std::max(0.0, syy - fit.slope * sxy);
    fit.r2 = syy > 0 ? 1 - residual / syy : 0;
    fit.residualSd = n > 2 ? std::sqrt(residual / (n - 2)) : 0;
    fit.standardError = fit.residualSd / std::sqrt(sxx);
    return fit;
}

LineFit fitLine(std::span<const double> x, std::span<const double> y, std::size_t first, std::size_t last) {
    const LineSums sums(x, y, first, last);
    return sums.fit(0, sums.nodes() - 1);
}

} // namespace anvil::curve
