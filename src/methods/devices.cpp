#include <anvil/methods/devices.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace anvil::methods {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

using Places = std::map<std::string, Eigen::Index>; ///< of every device among the unknowns

std::vector<double> sharesOf(const Reeving& r, const Places& places, const VectorXd& e) {
    std::vector<double> out;
    out.reserve(r.devices.size() + 1);
    out.push_back(r.redirect.empty() ? 1 : e(places.at(r.redirect)));
    for (const auto& d : r.devices)
        out.push_back(e(places.at(d)));
    return out;
}

double weightOf(const Hauled& h) { return h.sd > 0 ? 1 / h.sd : 1; }

VectorXd residuals(const std::vector<Hauled>& rigs, const Places& places, const VectorXd& e) {
    VectorXd r(static_cast<Eigen::Index>(rigs.size()));
    for (std::size_t i = 0; i < rigs.size(); ++i)
        r(static_cast<Eigen::Index>(i)) =
            weightOf(rigs[i]) *
            (rigs[i].advantage - advantageOf(rigs[i].reeving, sharesOf(rigs[i].reeving, places, e)));
    return r;
}

/// ∂advantage/∂e by the product rule, weighted.
MatrixXd slopes(const std::vector<Hauled>& rigs, const Places& places, const VectorXd& e) {
    MatrixXd j = MatrixXd::Zero(static_cast<Eigen::Index>(rigs.size()), e.size());
    for (std::size_t i = 0; i < rigs.size(); ++i) {
        const auto& r = rigs[i].reeving;
        const auto row = static_cast<Eigen::Index>(i);
        const double first = r.redirect.empty() ? 1 : e(places.at(r.redirect));
        const auto add = [&](const std::string& device, double slope) {
            j(row, places.at(device)) += weightOf(rigs[i]) * slope;
        };
        double product = 1, sum = 1;
        for (std::size_t k = 0; k < r.devices.size(); ++k) {
            // Device k is a factor of every term from its own on.
            double before = product, after = 0, run = 1;
            for (std::size_t m = k; m < r.devices.size(); ++m) {
                if (m > k) run *= e(places.at(r.devices[m]));
                after += run;
            }
            add(r.devices[k], first * before * after);
            product *= e(places.at(r.devices[k]));
            sum += product;
        }
        if (!r.redirect.empty()) add(r.redirect, sum);
    }
    return j;
}

/// The unknowns that are not held at an end of their range which the step would leave.
std::vector<Eigen::Index> freeOnes(const VectorXd& e, const VectorXd& downhill) {
    std::vector<Eigen::Index> out;
    for (Eigen::Index i = 0; i < e.size(); ++i)
        if (!(e(i) >= 1 && downhill(i) > 0) && !(e(i) <= 0 && downhill(i) < 0)) out.push_back(i);
    return out;
}

VectorXd fitted(const std::vector<Hauled>& rigs, const Places& places) {
    VectorXd e = VectorXd::Constant(static_cast<Eigen::Index>(places.size()), 0.8);
    double ridge = 1e-3, sum = residuals(rigs, places, e).squaredNorm();
    for (int turn = 0; turn < 500 && ridge < 1e12; ++turn) {
        const VectorXd r = residuals(rigs, places, e);
        const MatrixXd j = slopes(rigs, places, e);
        const VectorXd downhill = j.transpose() * r;
        const auto free = freeOnes(e, downhill);
        if (free.empty()) break;
        const MatrixXd jf = j(Eigen::all, free);
        MatrixXd normal = jf.transpose() * jf;
        normal.diagonal() *= 1 + ridge;
        normal.diagonal().array() += 1e-14 * std::max(1.0, normal.diagonal().maxCoeff());
        const VectorXd step = normal.ldlt().solve(jf.transpose() * r);
        VectorXd next = e;
        for (std::size_t i = 0; i < free.size(); ++i)
            next(free[i]) = std::clamp(e(free[i]) + step(static_cast<Eigen::Index>(i)), 0.0, 1.0);
        const double then = residuals(rigs, places, next).squaredNorm();
        const double moved = (next - e).norm();
        if (then <= sum) {
            e = next;
            sum = then;
            ridge = std::max(1e-12, ridge / 5);
            if (moved < 1e-13) break;
        } else {
            ridge *= 4;
        }
    }
    return e;
}

} // namespace

double advantageOf(const Reeving& reeving, const std::vector<double>& shares) {
    double sum = 1, product = 1;
    for (std::size_t k = 0; k < reeving.devices.size(); ++k) {
        product *= shares[k + 1];
        sum += product;
    }
    return shares[0] * sum;
}

Expected<std::vector<DeviceEfficiency>> deviceEfficiencies(const std::vector<Hauled>& rigs) {
    if (rigs.empty()) return fail("No rig was measured.");
    Places places;
    for (const auto& h : rigs) {
        if (!(h.advantage > 0) || !std::isfinite(h.advantage))
            return fail("A measured advantage must be more than zero.");
        if (!h.reeving.redirect.empty()) places.emplace(h.reeving.redirect, 0);
        for (const auto& d : h.reeving.devices)
            places.emplace(d, 0);
    }
    if (places.empty()) return fail("No rig names a device.");
    Eigen::Index count = 0;
    for (auto& [device, at] : places)
        at = count++;
    const VectorXd e = fitted(rigs, places);
    const MatrixXd j = slopes(rigs, places, e);
    const auto inside = [&](Eigen::Index i) { return e(i) > 1e-9 && e(i) < 1 - 1e-9; };

    // What the design leaves open is what it does not see: directions of no slope (Golub and Van Loan 2013,
    // §2.4).
    const Eigen::JacobiSVD<MatrixXd> svd(j, Eigen::ComputeFullV);
    const auto& values = svd.singularValues();
    const double least = 1e-7 * std::max(values.size() ? values(0) : 0.0, 1e-300);
    MatrixXd unseen = MatrixXd::Zero(count, count);
    for (Eigen::Index k = 0; k < count; ++k)
        if (k >= values.size() || values(k) <= least)
            unseen += svd.matrixV().col(k) * svd.matrixV().col(k).transpose();
    const auto open = [&](Eigen::Index i) { return unseen(i, i) > 1e-6; };

    std::vector<Eigen::Index> free;
    for (Eigen::Index i = 0; i < count; ++i)
        if (inside(i) && !open(i)) free.push_back(i);
    const auto spare = static_cast<Eigen::Index>(rigs.size()) - static_cast<Eigen::Index>(free.size());
    MatrixXd spread;
    const bool known = std::all_of(rigs.begin(), rigs.end(), [](const Hauled& h) { return h.sd > 0; });
    if (!free.empty() && (spare > 0 || known)) {
        const MatrixXd jf = j(Eigen::all, free);
        const double scatter =
            known ? 1 : residuals(rigs, places, e).squaredNorm() / static_cast<double>(spare);
        spread = scatter * (jf.transpose() * jf).inverse();
    }
    std::vector<DeviceEfficiency> out;
    out.reserve(places.size());
    for (const auto& [device, at] : places) {
        DeviceEfficiency d{device, e(at), {}, !inside(at), {}};
        if (open(at)) {
            d.efficiency.reset();
            d.atLimit = false;
            for (const auto& [other, where] : places)
                if (where != at && std::abs(unseen(at, where)) > 1e-6) d.notApartFrom.push_back(other);
        } else if (const auto f = std::find(free.begin(), free.end(), at); f != free.end() && spread.size()) {
            const auto k = f - free.begin();
            d.standardError = std::sqrt(spread(k, k));
        }
        out.push_back(std::move(d));
    }
    return out;
}

std::vector<Order> everyOrder(const Reeving& reeving, const std::vector<DeviceEfficiency>& known) {
    const auto shareOf = [&](const std::string& device) -> std::optional<double> {
        if (device.empty()) return 1.0;
        const auto at = std::find_if(known.begin(), known.end(),
                                     [&](const DeviceEfficiency& d) { return d.device == device; });
        return at == known.end() ? std::nullopt : at->efficiency;
    };
    if (reeving.devices.size() > 8 || !shareOf(reeving.redirect)) return {};
    for (const auto& d : reeving.devices)
        if (!shareOf(d)) return {};
    auto order = reeving;
    std::sort(order.devices.begin(), order.devices.end());
    std::vector<Order> out;
    do {
        std::vector<double> shares{*shareOf(order.redirect)};
        for (const auto& d : order.devices)
            shares.push_back(*shareOf(d));
        out.push_back({order.devices, advantageOf(order, shares)});
    } while (std::next_permutation(order.devices.begin(), order.devices.end()));
    std::stable_sort(out.begin(), out.end(),
                     [](const Order& a, const Order& b) { return a.advantage > b.advantage; });
    return out;
}

} // namespace anvil::methods
