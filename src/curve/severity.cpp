// The severity integral: the greatest of all windows, found without looking at each.
#include <anvil/curve/burst.h>
#include <anvil/curve/pyramid.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

namespace anvil::curve {
namespace {

constexpr double g0 = 9.80665; // m/s², standard gravity (CGPM 1901)

/// Where windows begin, or where they end: samples [from, to).
struct Range {
    std::size_t from, to;
    std::size_t size() const { return to - from; }
    std::pair<Range, Range> halves() const {
        const auto middle = from + size() / 2;
        return {{from, middle}, {middle, to}};
    }
};

/// Branch and bound over pairs of ranges (Land and Doig 1960): a pair none of whose windows can be greater
/// than the best one so far is left out as a whole. The result is that of trying every window.
class Search {
public:
    Search(std::span<const double> t, std::span<const double> a, double longest)
        : m_t(t), m_longest(longest * (1 + 1e-9)), m_a(a.begin(), a.end()), m_sum(a.size(), 0.0) {
        for (auto& v : m_a)
            v /= g0;
        for (std::size_t i = 1; i < a.size(); ++i) {
            m_sum[i] = m_sum[i - 1] + 0.5 * (a[i] + a[i - 1]) / g0 * (t[i] - t[i - 1]);
            m_largest = std::max(m_largest, std::abs(m_sum[i]));
        }
        m_rises = Pyramid(m_a);
        m_sums = Pyramid(m_sum);
    }

    Severity best() {
        if (m_a.size() < 2) return {};
        aroundThePeak();
        look({0, m_a.size()}, {0, m_a.size()});
        return m_greatest > 0 ? Severity{std::sqrt(m_greatest), m_t[m_from], m_t[m_to]} : Severity{};
    }

private:
    /// S⁵/T³ of a window, which is the square of its severity.
    void take(std::size_t i, std::size_t k) {
        const double s = m_sum[k] - m_sum[i], width = m_t[k] - m_t[i];
        if (!(s > 0) || !(width > 0) || width > m_longest) return;
        const double square = s * s * s * s * s / (width * width * width);
        const bool earlier = i < m_from || (i == m_from && k < m_to);
        if (square < m_greatest || (square == m_greatest && !earlier)) return;
        m_greatest = square;
        m_from = i;
        m_to = k;
    }

    /// A good one to begin with: from the peak outwards, always to the greater side.
    void aroundThePeak() {
        std::size_t i = static_cast<std::size_t>(std::max_element(m_a.begin(), m_a.end()) - m_a.begin());
        std::size_t k = i;
        while ((i > 0 || k + 1 < m_a.size()) && m_t[k] - m_t[i] <= m_longest) {
            if (k + 1 == m_a.size() || (i > 0 && m_a[i - 1] > m_a[k + 1]))
                --i;
            else
                ++k;
            take(i, k);
        }
    }

    /// No window from `begin` to `end` has a greater square: with S ≤ all that is gained between them, and
    /// S ≤ A·T for the greatest value A in between, S⁵/T³ is greatest where both are alike or at an end of T.
    double bound(const Range& begin, const Range& end) const {
        const double shortest = std::max(0.0, m_t[end.from] - m_t[begin.to - 1]);
        const double longest = std::min(m_longest, m_t[end.to - 1] - m_t[begin.from]);
        const double most = m_rises.range(m_a, begin.from, end.to).max;
        const double gained =
            m_sums.range(m_sum, end.from, end.to).max - m_sums.range(m_sum, begin.from, begin.to).min;
        if (shortest > m_longest || !(gained > 0) || !(most > 0) || !(longest > 0)) return 0;
        const double t = std::clamp(gained / most, shortest, std::max(shortest, longest));
        if (!(t > 0)) return std::numeric_limits<double>::infinity();
        const double rounding =
            4 * std::numeric_limits<double>::epsilon() * static_cast<double>(end.to - begin.from) * m_largest;
        const double s = std::min(gained, most * t) + rounding;
        return s * s * s * s * s / (t * t * t) * (1 + 1e-9);
    }

    void look(const Range& begin, const Range& end) {
        constexpr std::size_t few = 16; // from here on trying is cheaper than bounding
        if (begin.size() == 0 || end.size() == 0 || begin.from + 1 >= end.to) return;
        const double most = bound(begin, end);
        if (most < m_greatest || most == 0) return;
        if (begin.size() <= few && end.size() <= few) {
            for (std::size_t i = begin.from; i < begin.to; ++i)
                for (std::size_t k = std::max(i + 1, end.from); k < end.to; ++k)
                    take(i, k);
        } else if (begin.size() > end.size()) {
            const auto [first, second] = begin.halves();
            look(first, end);
            look(second, end);
        } else {
            const auto [first, second] = end.halves();
            look(begin, first);
            look(begin, second);
        }
    }

    std::span<const double> m_t;
    double m_longest, m_largest = 0;
    std::vector<double> m_a, m_sum; ///< a/g₀, and its integral from the first sample on, s
    Pyramid m_rises, m_sums;
    double m_greatest = 0;
    std::size_t m_from = std::numeric_limits<std::size_t>::max(), m_to = m_from;
};

} // namespace

Severity severityOf(std::span<const double> t, std::span<const double> a, double longest) {
    return Search(t, a, longest).best();
}

} // namespace anvil::curve
