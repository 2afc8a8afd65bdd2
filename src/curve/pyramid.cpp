#include <anvil/curve/pyramid.h>

#include <algorithm>

namespace anvil::curve {
namespace {

void widen(Pyramid::Range& r, const Pyramid::Range& other) {
    r.min = std::min(r.min, other.min);
    r.max = std::max(r.max, other.max);
}

} // namespace

void Pyramid::Builder::add(std::span<const double> y) {
    for (std::size_t i = 0; i < y.size();) {
        if (m_begun == 0) m_level.push_back({y[i], y[i]});
        const std::size_t to = std::min(i + base - m_begun, y.size());
        m_begun = (m_begun + to - i) % base;
        Range r = m_level.back();
        for (; i < to; ++i)
            widen(r, {y[i], y[i]});
        m_level.back() = r;
    }
}

Pyramid Pyramid::Builder::done() {
    Pyramid pyramid;
    auto level = std::move(m_level);
    while (level.size() > 1) {
        std::vector<Range> next;
        for (std::size_t i = 0; i < level.size(); i += factor) {
            Range r = level[i];
            for (std::size_t k = i + 1; k < std::min(i + factor, level.size()); ++k)
                widen(r, level[k]);
            next.push_back(r);
        }
        pyramid.m_levels.push_back(std::move(level));
        level = std::move(next);
    }
    if (!level.empty()) pyramid.m_levels.push_back(std::move(level));
    *this = {};
    return pyramid;
}

Pyramid::Pyramid(std::span<const double> y) {
    Builder builder;
    builder.add(y);
    *this = builder.done();
}

Pyramid::Range Pyramid::range(std::span<const double> y, std::size_t from, std::size_t to) const {
    Range r{y[from], y[from]};
    std::size_t i = from;
    while (i < to) {
        std::size_t size = base, level = m_levels.size();
        for (std::size_t k = 0; k < m_levels.size() && i % size == 0 && i + size <= to; ++k, size *= factor)
            level = k; // the coarsest block that starts here and fits
        if (level == m_levels.size()) {
            widen(r, {y[i], y[i]});
            ++i;
        } else {
            std::size_t width = base;
            for (std::size_t k = 0; k < level; ++k)
                width *= factor;
            widen(r, m_levels[level][i / width]);
            i += width;
        }
    }
    return r;
}

std::vector<Pyramid::Point> Pyramid::draw(std::span<const double> x, std::span<const double> y, double x0,
                                          double x1, std::size_t columns) const {
    std::vector<Point> out;
    if (y.empty() || columns == 0 || !(x1 > x0)) return out;
    // x of a pull may run back; the ends tell cheaply whether it can be searched, the columns check
    // themselves.
    std::size_t from = 0, to = y.size();
    const bool rising = x.back() >= x.front();
    if (rising) {
        from = static_cast<std::size_t>(std::lower_bound(x.begin(), x.end(), x0) - x.begin());
        to = static_cast<std::size_t>(std::upper_bound(x.begin(), x.end(), x1) - x.begin());
        from -= from > 0;
        to += to < y.size();
    }
    if (from >= to) return out;
    const std::size_t count = to - from;
    if (count <= 4 * columns) {
        for (std::size_t i = from; i < to; ++i)
            out.push_back({x[i], y[i]});
        return out;
    }
    out.reserve(4 * columns);
    for (std::size_t c = 0; c < columns; ++c) {
        const std::size_t a = from + count * c / columns, b = from + count * (c + 1) / columns;
        const Range r = range(y, a, b);
        const double middle = x[a + (b - a) / 2];
        out.push_back({x[a], y[a]});
        const bool rises = y[b - 1] >= y[a];
        out.push_back({middle, rises ? r.min : r.max});
        out.push_back({middle, rises ? r.max : r.min});
        out.push_back({x[b - 1], y[b - 1]});
    }
    return out;
}

} // namespace anvil::curve
