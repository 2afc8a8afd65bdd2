#include <anvil/stats/censored_line.h>

#include "distributions.h"
#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <numbers>

namespace anvil::stats {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

/// ln φ, and ln of the upper tail of the standard normal with its first two derivatives.
double logDensity(double z) { return -0.5 * z * z - 0.5 * std::log(2 * std::numbers::pi); }
double logTail(double z) {
    if (z < 30) return std::log(0.5 * std::erfc(z / std::numbers::sqrt2));
    return logDensity(z) - std::log(z) + std::log1p(-1 / (z * z)); // Mills
}

/// ln L of one value at z (and upper z), with derivatives by both.
struct Term {
    double value = 0, first = 0, second = 0;           // by z
    double firstUpper = 0, secondUpper = 0, mixed = 0; // of `between`: by the upper z
};

Term above(double z) {
    const double log = logTail(z), hazard = std::exp(logDensity(z) - log);
    return {log, -hazard, -hazard * (hazard - z)};
}

Term between(double low, double high) {
    // Φ(high) − Φ(low), on the side where both tails are small.
    const bool turn = low < 0 && high < 0;
    const double a = turn ? -high : low, b = turn ? -low : high;
    const double log = a > 0 ? logTail(a) + std::log1p(-std::exp(logTail(b) - logTail(a)))
                             : std::log(std::max(1e-300, 0.5 * (std::erf(high / std::numbers::sqrt2) -
                                                                std::erf(low / std::numbers::sqrt2))));
    const double fl = std::exp(logDensity(low) - log), fh = std::exp(logDensity(high) - log);
    Term t;
    t.value = log;
    t.first = -fl;
    t.firstUpper = fh;
    t.second = low * fl - fl * fl;
    t.secondUpper = -high * fh - fh * fh;
    t.mixed = fl * fh;
    return t;
}

/// The log-likelihood at θ = (β/σ, 1/σ), its slope and its curvature.
struct Surface {
    double value = 0;
    VectorXd slope;
    MatrixXd curvature;
};

Surface surface(std::span<const ModelRow> rows, const VectorXd& theta) {
    const auto p = theta.size() - 1;
    const double gamma = theta[p];
    Surface s{0, VectorXd::Zero(p + 1), MatrixXd::Zero(p + 1, p + 1)};
    VectorXd d(p + 1), u(p + 1);
    for (const auto& row : rows) {
        if (row.y.aside) continue;
        double fitted = 0;
        for (Eigen::Index k = 0; k < p; ++k) {
            d[k] = u[k] = -row.x[static_cast<std::size_t>(k)];
            fitted += row.x[static_cast<std::size_t>(k)] * theta[k];
        }
        d[p] = row.y.value;
        u[p] = row.y.upper;
        const double z = gamma * row.y.value - fitted;
        switch (row.y.bound) {
        case Bound::exact:
            s.value += std::log(gamma) + logDensity(z);
            s.slope -= z * d;
            s.slope[p] += 1 / gamma;
            s.curvature -= d * d.transpose();
            s.curvature(p, p) -= 1 / (gamma * gamma);
            break;
        case Bound::above: {
            const auto t = above(z);
            s.value += t.value;
            s.slope += t.first * d;
            s.curvature += t.second * d * d.transpose();
            break;
        }
        case Bound::below: {
            const auto t = above(-z);
            s.value += t.value;
            s.slope -= t.first * d;
            s.curvature += t.second * d * d.transpose();
            break;
        }
        case Bound::between: {
            const auto t = between(z, gamma * row.y.upper - fitted);
            s.value += t.value;
            s.slope += t.first * d + t.firstUpper * u;
            s.curvature += t.second * d * d.transpose() + t.secondUpper * u * u.transpose() +
                           t.mixed * (d * u.transpose() + u * d.transpose());
            break;
        }
        }
    }
    return s;
}

/// Least squares on all values, bounds where they are: where the walk begins.
std::optional<VectorXd> start(std::span<const ModelRow> rows, Eigen::Index p) {
    std::vector<const ModelRow*> used;
    for (const auto& r : rows)
        if (!r.y.aside) used.push_back(&r);
    MatrixXd x(static_cast<Eigen::Index>(used.size()), p);
    VectorXd y(x.rows());
    for (Eigen::Index i = 0; i < x.rows(); ++i) {
        const auto& r = *used[static_cast<std::size_t>(i)];
        for (Eigen::Index k = 0; k < p; ++k)
            x(i, k) = r.x[static_cast<std::size_t>(k)];
        y[i] = r.y.bound == Bound::between ? 0.5 * (r.y.value + r.y.upper) : r.y.value;
    }
    const Eigen::ColPivHouseholderQR<MatrixXd> qr(x);
    if (x.rows() < p || qr.rank() < p) return std::nullopt;
    const VectorXd beta = qr.solve(y);
    const double rest = (y - x * beta).squaredNorm() / static_cast<double>(x.rows());
    if (!(rest > 1e-24 * (1 + y.squaredNorm()))) return std::nullopt; // no spread to judge by
    VectorXd theta(p + 1);
    theta.head(p) = beta / std::sqrt(rest);
    theta[p] = 1 / std::sqrt(rest);
    return theta;
}

} // namespace

std::optional<std::pair<double, double>> ModelFit::interval(std::size_t column, double level) const {
    if (!(df > 0)) return std::nullopt;
    const double half = studentQuantile(df, 1 - level / 2) * errors[column];
    return std::isfinite(half)
               ? std::optional(std::pair(coefficients[column] - half, coefficients[column] + half))
               : std::nullopt;
}

std::optional<double> ModelFit::p(std::size_t column) const {
    if (!(df > 0) || !(errors[column] > 0)) return std::nullopt;
    return std::min(1.0, 2 * studentUpperTail(df, std::abs(coefficients[column]) / errors[column]));
}

std::optional<ModelFit> fitModel(std::span<const ModelRow> rows) {
    if (rows.empty()) return std::nullopt;
    const auto columns = rows.front().x.size();
    const auto p = static_cast<Eigen::Index>(columns);
    const auto exact = static_cast<std::size_t>(
        std::count_if(rows.begin(), rows.end(), [](const ModelRow& r) { return r.y.exact(); }));
    if (exact < columns + 1) return std::nullopt;
    const auto begun = start(rows, p);
    if (!begun) return std::nullopt;
    VectorXd theta = *begun;
    auto here = surface(rows, theta);
    constexpr int most = 200;
    bool settled = false;
    for (int step = 0; step < most && !settled; ++step) {
        const VectorXd by = (-here.curvature).ldlt().solve(here.slope);
        if (!by.allFinite()) return std::nullopt;
        double share = 1;
        for (int halved = 0; halved < 60; ++halved, share /= 2) {
            const VectorXd next = theta + share * by;
            if (!(next[p] > 0)) continue;
            const auto there = surface(rows, next);
            if (!std::isfinite(there.value) || there.value < here.value - 1e-12 * std::abs(here.value))
                continue;
            settled = (next - theta).norm() <= 1e-11 * (1 + theta.norm());
            theta = next;
            here = there;
            break;
        }
        if (share < 1e-17) settled = true;
    }
    if (!settled || theta.norm() > 1e8) return std::nullopt; // it runs away: a maximum at the edge
    const Eigen::FullPivLU<MatrixXd> lu(-here.curvature);
    if (!lu.isInvertible()) return std::nullopt;
    const MatrixXd covariance = lu.inverse();
    ModelFit out;
    const double sigma = 1 / theta[p];
    out.df = static_cast<double>(exact - columns);
    // Maximum likelihood divides by all exact values: taken back for the columns, as least squares does.
    const double correction = std::sqrt(static_cast<double>(exact) / out.df);
    out.sigma = sigma * correction;
    for (Eigen::Index k = 0; k < p; ++k) {
        const double beta = theta[k] * sigma; // β = (β/σ)/(1/σ), by its two parts
        VectorXd part = VectorXd::Zero(p + 1);
        part[k] = sigma;
        part[p] = -beta * sigma;
        const double variance = part.dot(covariance * part);
        if (!(variance >= 0) || !std::isfinite(variance)) return std::nullopt;
        out.coefficients.push_back(beta);
        out.errors.push_back(std::sqrt(variance) * correction);
    }
    return out;
}

} // namespace anvil::stats
