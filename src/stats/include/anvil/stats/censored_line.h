// A linear model of values some of which are only bounds, with one spread for all.
#pragma once

#include <anvil/stats/summary.h>
#include <optional>
#include <span>
#include <utility>
#include <vector>

namespace anvil::stats {

/// A row of the model: its columns, and what was found on the scale of the model.
struct ModelRow {
    std::vector<double> x;
    Value y;
};

/// What was fitted: a coefficient a column with its standard error, and the spread.
struct ModelFit {
    std::vector<double> coefficients, errors;
    double sigma = 0; ///< maximum likelihood, corrected for the columns: divides by exact values − columns
    double df = 0;    ///< exact values − columns

    /// Interval of a coefficient by Student's t; level 0.05 for 95 %. Empty where there is nothing left to
    /// judge by.
    std::optional<std::pair<double, double>> interval(std::size_t column, double level = 0.05) const;
    /// Two-sided p that a coefficient is zero. Empty likewise.
    std::optional<double> p(std::size_t column) const;
};

/// Fits y = x·β + σ·ε, ε normal, to exact, above, below and between values by maximum likelihood; those set
/// aside are left out. In β/σ and 1/σ it is concave (Burridge 1981): Newton's steps, halved where they
/// overshoot, reach its one maximum. Standard errors from the curvature there (observed information). Empty:
/// fewer exact values than columns and one more, columns that say the same, or a maximum at the edge, such as
/// an effect of which there are only bounds.
std::optional<ModelFit> fitModel(std::span<const ModelRow> rows);

} // namespace anvil::stats
