#include <anvil/methods/picture.h>

#include <Eigen/Dense>
#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

namespace anvil::methods {
namespace {

using quantity::Dimension;
using Points = std::vector<PicturePoint>;

constexpr std::array<std::string_view, 4> kindKeys{"distance", "angle", "area", "whole"};

double cross(const PicturePoint& o, const PicturePoint& a, const PicturePoint& b) {
    return (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);
}
double apart(const PicturePoint& a, const PicturePoint& b) { return std::hypot(a.x - b.x, a.y - b.y); }

/// From the picture to the plane of the piece, m; to px where nothing is known.
struct Plane {
    Eigen::Matrix3d h = Eigen::Matrix3d::Identity();
    double side = 1; ///< the sign of the denominator on this side of the horizon
    Expected<PicturePoint> operator()(const PicturePoint& p) const {
        const Eigen::Vector3d v = h * Eigen::Vector3d(p.x, p.y, 1);
        if (!(v[2] * side > 1e-12)) return fail("A place lies beyond the horizon of the rectangle's plane.");
        return PicturePoint{v[0] / v[2], v[1] / v[2]};
    }
};

/// The projective map that takes four points to the corners of a rectangle (Hartley and Zisserman, Multiple
/// View Geometry, 2nd ed., 4.1: eight equations, the last element 1). Corners are moved and scaled to about
/// one first, so that the system is well conditioned.
Expected<Plane> rectified(const PictureScale& s) {
    const auto& p = s.points;
    for (std::size_t i = 0; i < 4; ++i)
        if (!(cross(p[i], p[(i + 1) % 4], p[(i + 2) % 4]) * cross(p[0], p[1], p[2]) > 0))
            return fail("The four corners must go round the rectangle one after the other.");
    PicturePoint middle;
    double size = 0;
    for (const auto& q : p) {
        middle.x += q.x / 4;
        middle.y += q.y / 4;
    }
    for (const auto& q : p)
        size = std::max(size, apart(q, middle));
    const std::array<PicturePoint, 4> to{
        PicturePoint{0, 0}, {s.length, 0}, {s.length, s.height}, {0, s.height}};
    Eigen::Matrix<double, 8, 8> a = Eigen::Matrix<double, 8, 8>::Zero();
    Eigen::Matrix<double, 8, 1> b;
    for (int i = 0; i < 4; ++i) {
        const auto& from = p[static_cast<std::size_t>(i)];
        const auto& goal = to[static_cast<std::size_t>(i)];
        const double x = (from.x - middle.x) / size, y = (from.y - middle.y) / size;
        a.row(2 * i) << x, y, 1, 0, 0, 0, -x * goal.x, -y * goal.x;
        a.row(2 * i + 1) << 0, 0, 0, x, y, 1, -x * goal.y, -y * goal.y;
        b[2 * i] = goal.x;
        b[2 * i + 1] = goal.y;
    }
    const Eigen::Matrix<double, 8, 1> h = a.fullPivLu().solve(b);
    Eigen::Matrix3d shift = Eigen::Matrix3d::Identity(), map;
    shift << 1 / size, 0, -middle.x / size, 0, 1 / size, -middle.y / size, 0, 0, 1;
    map << h[0], h[1], h[2], h[3], h[4], h[5], h[6], h[7], 1;
    Plane plane{map * shift, 1};
    plane.side = (plane.h * Eigen::Vector3d(middle.x, middle.y, 1))[2] < 0 ? -1 : 1;
    return plane;
}

Expected<Plane> planeOf(const PictureScale& s, double click) {
    Plane plane;
    if (s.points.empty()) return plane;
    for (std::size_t i = 0; i < s.points.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            if (apart(s.points[i], s.points[k]) < 5 * click)
                return fail("The places of what is known lie too close together to tell anything from.");
    if (s.points.size() == 4) return rectified(s);
    plane.h *= s.length / apart(s.points[0], s.points[1]);
    plane.h(2, 2) = 1;
    return plane;
}

bool meet(const PicturePoint& a, const PicturePoint& b, const PicturePoint& c, const PicturePoint& d) {
    return cross(a, b, c) * cross(a, b, d) < 0 && cross(c, d, a) * cross(c, d, b) < 0;
}

bool crossesItself(const Points& p) {
    const auto n = p.size();
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t k = i + 2; k < n; ++k)
            if ((k + 1) % n != i && meet(p[i], p[i + 1], p[k], p[(k + 1) % n])) return true;
    return false;
}

bool inside(const Points& outline, const PicturePoint& at) {
    bool in = false;
    for (std::size_t i = 0, k = outline.size() - 1; i < outline.size(); k = i++)
        if ((outline[i].y > at.y) != (outline[k].y > at.y) &&
            at.x < (outline[k].x - outline[i].x) * (at.y - outline[i].y) / (outline[k].y - outline[i].y) +
                       outline[i].x)
            in = !in;
    return in;
}

bool overlap(const Points& a, const Points& b) {
    for (std::size_t i = 0; i < a.size(); ++i)
        for (std::size_t k = 0; k < b.size(); ++k)
            if (meet(a[i], a[(i + 1) % a.size()], b[k], b[(k + 1) % b.size()])) return true;
    return inside(a, b.front()) || inside(b, a.front());
}

/// The area of an outline by the trapezoid (shoelace) formula.
double areaOf(const Points& p) {
    double twice = 0;
    for (std::size_t i = 0; i < p.size(); ++i) {
        const auto& q = p[(i + 1) % p.size()];
        twice += p[i].x * q.y - q.x * p[i].y;
    }
    return std::abs(twice) / 2;
}

Expected<Points> onPlane(const Plane& plane, const Points& all) {
    Points out;
    for (const auto& p : all) {
        const auto q = plane(p);
        if (!q) return tl::unexpected(q.error());
        out.push_back(*q);
    }
    return out;
}

Expected<double> shareOf(const PictureMarks& picture, const Plane& plane, double whole) {
    double painted = 0;
    std::vector<const Points*> areas;
    for (const auto& m : picture.marks) {
        if (m.kind != MarkKind::area || m.points.size() < 3) continue;
        for (const auto* other : areas)
            if (overlap(*other, m.points))
                return fail("Two areas overlap: what lies in both would count twice.");
        areas.push_back(&m.points);
        const auto on = onPlane(plane, m.points);
        if (!on) return tl::unexpected(on.error());
        painted += areaOf(*on);
    }
    if (areas.empty()) return fail("No area is marked yet that would be a share of the whole.");
    if (painted > whole) return fail("The areas are together greater than the whole.");
    return painted / whole;
}

Expected<double> valueOf(const PictureMarks& picture, std::size_t which) {
    const auto plane = planeOf(picture.scale, picture.click);
    if (!plane) return tl::unexpected(plane.error());
    const auto& mark = picture.marks[which];
    const auto p = onPlane(*plane, mark.points);
    if (!p) return tl::unexpected(p.error());
    switch (mark.kind) {
    case MarkKind::distance:
        return apart((*p)[0], (*p)[1]);
    case MarkKind::angle: {
        const auto &a = (*p)[0], &o = (*p)[1], &b = (*p)[2];
        if (apart(mark.points[0], mark.points[1]) < picture.click ||
            apart(mark.points[2], mark.points[1]) < picture.click)
            return fail("A side of the angle has no length.");
        return std::abs(std::atan2(cross(o, a, b), (a.x - o.x) * (b.x - o.x) + (a.y - o.y) * (b.y - o.y)));
    }
    case MarkKind::area:
        return areaOf(*p);
    case MarkKind::whole:
        return shareOf(picture, *plane, areaOf(*p));
    }
    return 0.0;
}

Dimension dimensionOf(MarkKind kind) {
    constexpr std::array all{Dimension::length, Dimension::angle, Dimension::area, Dimension::ratio};
    return all[static_cast<std::size_t>(kind)];
}

/// Everything of a picture that is only known so well.
std::vector<std::pair<double*, double>> doubtful(PictureMarks& picture, std::size_t which) {
    std::vector<std::pair<double*, double>> out;
    const auto clicks = [&](Points& points) {
        for (auto& p : points) {
            out.emplace_back(&p.x, picture.click);
            out.emplace_back(&p.y, picture.click);
        }
    };
    clicks(picture.scale.points);
    clicks(picture.marks[which].points);
    if (picture.marks[which].kind == MarkKind::whole)
        for (auto& m : picture.marks)
            if (m.kind == MarkKind::area) clicks(m.points);
    out.emplace_back(&picture.scale.length, picture.scale.doubt);
    if (picture.scale.points.size() == 4) out.emplace_back(&picture.scale.height, picture.scale.doubt);
    return out;
}

Expected<void> usable(const PictureMarks& picture, std::size_t which) {
    if (which >= picture.marks.size()) return fail("There is no such mark on the picture.");
    const auto& mark = picture.marks[which];
    if (mark.points.size() < pointsOf(mark.kind)) return fail("It is not clicked to its end yet.");
    const bool outline = mark.kind == MarkKind::area || mark.kind == MarkKind::whole;
    if (!outline && mark.points.size() > pointsOf(mark.kind))
        return fail("It has more places than it needs.");
    if (outline && crossesItself(mark.points)) return fail("The outline crosses itself.");
    if (!(picture.click > 0)) return fail("A click is good to some pixels, not to none.");
    const auto& s = picture.scale;
    if (!s.points.empty() && !isComplete(s))
        return fail(
            "What is known in the picture is not said to its end: two places and a length, or four corners "
            "with two.");
    const bool absolute = mark.kind == MarkKind::distance || mark.kind == MarkKind::area;
    if (s.points.empty() && absolute)
        return fail("No length is known in the picture: click its two ends and type it first.");
    return {};
}

} // namespace

std::string_view key(MarkKind kind) { return kindKeys[static_cast<std::size_t>(kind)]; }
std::optional<MarkKind> markKindFromKey(std::string_view key) {
    const auto at = std::find(kindKeys.begin(), kindKeys.end(), key);
    if (at == kindKeys.end()) return std::nullopt;
    return static_cast<MarkKind>(at - kindKeys.begin());
}

std::size_t pointsOf(MarkKind kind) { return kind == MarkKind::distance ? 2 : 3; }

bool isComplete(const PictureScale& s) {
    return (s.points.size() == 2 && s.length > 0) || (s.points.size() == 4 && s.length > 0 && s.height > 0);
}

Expected<PictureMeasure> measureMark(const PictureMarks& picture, std::size_t which) {
    if (const auto ok = usable(picture, which); !ok) return tl::unexpected(ok.error());
    const auto value = valueOf(picture, which);
    if (!value) return tl::unexpected(value.error());
    PictureMeasure out{dimensionOf(picture.marks[which].kind), *value, 0};
    auto moved = picture;
    double squares = 0;
    for (const auto& [what, doubt] : doubtful(moved, which)) {
        if (!(doubt > 0)) continue;
        const double at = *what;
        const double step = doubt / 100;
        *what = at + step;
        const auto more = valueOf(moved, which);
        *what = at - step;
        const auto less = valueOf(moved, which);
        *what = at;
        if (!more || !less) return fail("The clicks lie too close to where nothing can be told any more.");
        const double part = (*more - *less) / (2 * step) * doubt;
        squares += part * part;
    }
    out.uncertainty = std::sqrt(squares);
    return out;
}

quantity::Entry asEntry(const PictureMeasure& m, const quantity::Unit& unit) {
    const double shown = m.uncertainty / unit.factor;
    const int decimals =
        shown > 0 ? std::clamp(1 - static_cast<int>(std::floor(std::log10(shown))), 0, 9) : 6;
    const double grid = std::pow(10.0, decimals);
    const auto rounded = [&](double si) { return std::round(si / unit.factor * grid) / grid * unit.factor; };
    return {rounded(m.value),
            quantity::Bound::exact,
            quantity::Precision::plusMinus,
            0,
            rounded(m.uncertainty),
            &unit,
            decimals};
}

} // namespace anvil::methods
