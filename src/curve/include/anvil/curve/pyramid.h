// Least and greatest values of a long signal at every scale, so that a screenful of 10⁸ samples costs a
// screenful.
#pragma once

#include <cstddef>
#include <span>
#include <vector>

namespace anvil::curve {

/// Min/max blocks of 64, 512, 4096 … samples over a signal that it does not own.
class Pyramid {
public:
    struct Range {
        double min = 0, max = 0;
        bool operator==(const Range&) const = default;
    };
    struct Point {
        double x = 0, y = 0;
        bool operator==(const Point&) const = default;
    };

    static constexpr std::size_t base = 64, factor = 8;

    /// Makes the pyramid of a signal that comes in pieces of any length, without keeping it.
    class Builder {
    public:
        /// The next piece of the signal; and the pyramid of all of them, after which nothing may be added.
        void add(std::span<const double> y);
        Pyramid done();

    private:
        std::vector<Range> m_level; ///< the last block may be begun only
        std::size_t m_begun = 0;    ///< samples in the last block, if it is not full
    };

    Pyramid() = default;
    /// Builds every level in one pass over `y`. O(n) time, n/28 doubles of memory.
    explicit Pyramid(std::span<const double> y);

    /// Least and greatest of y[from … to−1], which must not be empty. O(base + log n). Exact.
    Range range(std::span<const double> y, std::size_t from, std::size_t to) const;

    /// What to draw between x0 and x1 in `columns` pixel columns: at most four points a column (first, least,
    /// greatest, last), and every sample itself where there are no more than four a column. x must not
    /// decrease; else the samples are cut into columns by their order.
    std::vector<Point> draw(std::span<const double> x, std::span<const double> y, double x0, double x1,
                            std::size_t columns) const;

    /// Levels as stored in a project file: finest first, each min, max, min, max …
    const std::vector<std::vector<Range>>& levels() const { return m_levels; }

private:
    std::vector<std::vector<Range>> m_levels;
};

} // namespace anvil::curve
