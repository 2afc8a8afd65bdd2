#include <anvil/methods/load_plan.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace anvil::methods {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

Eigen::Vector3d unit(const Direction& d) { return Eigen::Vector3d(d[0], d[1], d[2]).normalized(); }

/// A line that stretches as one: a leg, or the two legs of a strand that slides.
struct Line {
    std::size_t leg = 0;
    std::optional<std::size_t> other{}; ///< the second side
    double ratio = 1;                   ///< N in the second side for each N in the first
};

std::string wrongWith(const LoadPlan& plan) {
    if (plan.loads.empty()) return "There is no point that legs could hold.";
    if (plan.legs.empty()) return "There is no leg.";
    if (!(plan.grip >= 1)) return "Friction cannot make a line slide by itself.";
    const auto points = static_cast<int>(plan.loads.size());
    for (std::size_t i = 0; i < plan.legs.size(); ++i) {
        const auto& l = plan.legs[i];
        const double length = std::hypot(l.towards[0], l.towards[1], l.towards[2]);
        if (!(length > 0) || !std::isfinite(length)) return fmt::format("Leg {} has no direction.", i + 1);
        if (!(l.stiffness > 0) || !std::isfinite(l.stiffness))
            return fmt::format("The stiffness of leg {} must be more than zero.", i + 1);
        if (l.at < 0 || l.at >= points || l.to >= points || l.to == l.at)
            return fmt::format("Leg {} hangs on no point.", i + 1);
    }
    return {};
}

/// The sides of every sliding line, first and second. Error: a strand without two sides at one point.
Expected<std::vector<std::pair<std::size_t, std::size_t>>> strandsOf(const LoadPlan& plan) {
    std::map<int, std::vector<std::size_t>> sides;
    for (std::size_t i = 0; i < plan.legs.size(); ++i)
        if (plan.legs[i].strand >= 0) sides[plan.legs[i].strand].push_back(i);
    std::vector<std::pair<std::size_t, std::size_t>> out;
    for (const auto& [number, legs] : sides) {
        if (legs.size() != 2 || plan.legs[legs[0]].at != plan.legs[legs[1]].at)
            return fail("A line that slides has two sides at one point, no more and no fewer.");
        out.emplace_back(legs[0], legs[1]);
    }
    return out;
}

/// What a line does to the points for each N in its first side.
VectorXd pullOf(const LoadPlan& plan, const Line& line, double ratio) {
    VectorXd p = VectorXd::Zero(static_cast<Eigen::Index>(3 * plan.loads.size()));
    const auto add = [&](const Leg& leg, double force) {
        const Eigen::Vector3d u = force * unit(leg.towards);
        p.segment<3>(3 * leg.at) += u;
        if (leg.to >= 0) p.segment<3>(3 * leg.to) -= u;
    };
    add(plan.legs[line.leg], 1);
    if (line.other) add(plan.legs[*line.other], ratio);
    return p;
}

/// N in the first side for each m that the whole line is stretched.
double stiffnessOf(const LoadPlan& plan, const Line& line) {
    const double first = plan.legs[line.leg].stiffness;
    return line.other ? 1 / (1 / first + line.ratio / plan.legs[*line.other].stiffness) : first;
}

/// How much longer a line becomes where the points move so, m.
double stretch(const LoadPlan& plan, const Line& line, const VectorXd& moved) {
    return -pullOf(plan, line, 1).dot(moved);
}

struct Solved {
    VectorXd moved;     ///< m, of every point
    double missing = 0; ///< of the load, as a share, that no line carries
};

/// K·d = F over the lines that are not slack; the shortest movement where several would do.
Solved solve(const LoadPlan& plan, const std::vector<Line>& lines, const std::vector<bool>& slack) {
    const auto n = static_cast<Eigen::Index>(3 * plan.loads.size());
    MatrixXd k = MatrixXd::Zero(n, n);
    VectorXd f(n);
    for (std::size_t i = 0; i < plan.loads.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            f(static_cast<Eigen::Index>(3 * i + c)) = plan.loads[i][c];
    for (std::size_t i = 0; i < lines.size(); ++i)
        if (!slack[i]) // both sides give way together, whatever either then carries
            k += stiffnessOf(plan, lines[i]) * pullOf(plan, lines[i], lines[i].ratio) *
                 pullOf(plan, lines[i], 1).transpose();
    Eigen::CompleteOrthogonalDecomposition<MatrixXd> decomposed;
    decomposed.setThreshold(1e-9);
    decomposed.compute(k);
    const VectorXd moved = decomposed.solve(f);
    const double size = f.norm();
    return {moved, size > 0 ? (k * moved - f).norm() / size : 0};
}

/// Drops the line that pushes most and takes back one that would be stretched, until all pull or are slack.
Expected<LegLoads> settle(const LoadPlan& plan, const std::vector<Line>& lines) {
    std::vector<bool> slack(lines.size(), false);
    for (std::size_t turn = 0; turn < 4 * lines.size() + 4; ++turn) {
        const auto [moved, missing] = solve(plan, lines, slack);
        const double little = 1e-9 * moved.norm();
        std::optional<std::size_t> pushes, back;
        double most = 0;
        for (std::size_t i = 0; i < lines.size(); ++i) {
            const double longer = stretch(plan, lines[i], moved),
                         force = stiffnessOf(plan, lines[i]) * longer;
            if (!slack[i] && longer < -little && force < most) {
                most = force;
                pushes = i;
            }
            if (slack[i] && longer > little) back = i;
        }
        if (pushes) {
            slack[*pushes] = true;
        } else if (back) {
            slack[*back] = false;
        } else if (missing > 1e-6) {
            return fail("These legs cannot carry this load: nothing holds it in one of its directions.");
        } else {
            LegLoads out{std::vector<double>(plan.legs.size(), 0.0),
                         std::vector<bool>(plan.legs.size(), true)};
            for (std::size_t i = 0; i < lines.size(); ++i) {
                if (slack[i]) continue;
                const double force =
                    std::max(0.0, stiffnessOf(plan, lines[i]) * stretch(plan, lines[i], moved));
                out.load[lines[i].leg] = force;
                if (lines[i].other) out.load[*lines[i].other] = lines[i].ratio * force;
            }
            for (std::size_t i = 0; i < plan.legs.size(); ++i)
                out.slack[i] = !(out.load[i] > 0);
            return out;
        }
    }
    return fail("No way of sharing this load was found: legs go slack in turns.");
}

} // namespace

Expected<LegLoads> legLoads(const LoadPlan& plan) {
    if (const auto wrong = wrongWith(plan); !wrong.empty()) return fail(wrong);
    const auto strands = strandsOf(plan);
    if (!strands) return tl::unexpected(strands.error());
    std::vector<std::optional<double>> slides(
        strands->size()); // the ratio at which it does; empty: it sticks
    if (plan.grip == 1) std::fill(slides.begin(), slides.end(), 1.0);
    for (;;) {
        std::vector<Line> lines;
        lines.reserve(plan.legs.size());
        for (std::size_t i = 0; i < plan.legs.size(); ++i)
            if (plan.legs[i].strand < 0) lines.push_back({i});
        for (std::size_t s = 0; s < strands->size(); ++s) {
            const auto [first, second] = (*strands)[s];
            if (slides[s]) {
                lines.push_back({first, second, *slides[s]});
            } else {
                lines.push_back({first});
                lines.push_back({second});
            }
        }
        auto settled = settle(plan, lines);
        if (!settled) return settled;
        bool more = false;
        for (std::size_t s = 0; s < strands->size(); ++s) {
            const double a = settled->load[(*strands)[s].first], b = settled->load[(*strands)[s].second];
            const bool holds = a <= plan.grip * b * (1 + 1e-12) && b <= plan.grip * a * (1 + 1e-12);
            if (slides[s] || holds) continue;
            slides[s] = b > a ? plan.grip : 1 / plan.grip;
            more = true;
        }
        if (!more) return settled;
    }
}

Expected<LegLoads> withoutLeg(const LoadPlan& plan, std::size_t cut) {
    if (cut >= plan.legs.size()) return fail(fmt::format("There is no leg {}.", cut + 1));
    auto rest = plan;
    const int strand = rest.legs[cut].strand; // its other side runs through and is gone too
    std::vector<std::size_t> left;
    rest.legs.clear();
    for (std::size_t i = 0; i < plan.legs.size(); ++i)
        if (i != cut && (strand < 0 || plan.legs[i].strand != strand)) {
            rest.legs.push_back(plan.legs[i]);
            left.push_back(i);
        }
    if (left.empty()) return fail("Without that leg nothing holds the load.");
    const auto some = legLoads(rest);
    if (!some) return some;
    LegLoads out{std::vector<double>(plan.legs.size(), 0.0), std::vector<bool>(plan.legs.size(), true)};
    for (std::size_t i = 0; i < left.size(); ++i) {
        out.load[left[i]] = some->load[i];
        out.slack[left[i]] = some->slack[i];
    }
    return out;
}

LoadPlan onePoint(const std::vector<Direction>& legs, const std::vector<double>& stiffness,
                  const Direction& pull, double load) {
    LoadPlan plan;
    const double length = std::hypot(pull[0], pull[1], pull[2]);
    plan.loads.push_back({load * pull[0] / length, load * pull[1] / length, load * pull[2] / length});
    for (std::size_t i = 0; i < legs.size(); ++i)
        plan.legs.push_back({legs[i], i < stiffness.size() ? stiffness[i] : 1});
    return plan;
}

Expected<ByDifference> byDifference(const std::vector<Direction>& legs, const std::vector<double>& loads,
                                    std::size_t unknown, const Direction& pull, double load) {
    if (unknown >= legs.size() || loads.size() != legs.size())
        return fail("Every leg needs a direction, and every leg but one a load.");
    Eigen::Vector3d missing = -load * unit(pull);
    for (std::size_t i = 0; i < legs.size(); ++i)
        if (i != unknown) missing -= loads[i] * unit(legs[i]);
    const double along = missing.dot(unit(legs[unknown]));
    if (!(along > 0))
        return fail(
            fmt::format("The other legs carry all of the load: nothing is left for leg {}.", unknown + 1));
    return ByDifference{along, (missing - along * unit(legs[unknown])).norm() / missing.norm()};
}

} // namespace anvil::methods
