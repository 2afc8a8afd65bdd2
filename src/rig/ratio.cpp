#include <anvil/rig/ratio.h>

#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>
#include <numbers>

namespace anvil::rig {
namespace {

/// Ratio of one part and its relative uncertainty.
struct Link {
    double value = 1, relative = 0, offset = 0;
};

Expected<Link> leverOf(const RatioPart& p) {
    if (!(p.a > 0 && p.b > 0)) return fail("A lever arm of zero or less cannot be: measure from the pivot.");
    return Link{p.a / p.b, std::hypot(p.ua / p.a, p.ub / p.b), p.moment / p.b};
}

Expected<Link> lineOf(const RatioPart& p) {
    if (!(p.a >= 1 && p.a <= 100 && p.a == std::floor(p.a)))
        return fail("A line has one part or more, in whole numbers.");
    if (!(p.b > 0 && p.b <= 1)) return fail("A pulley's efficiency lies between 0 and 1.");
    double sum = 0, slope = 0, power = 1; // 1 + e + e² + …, and its derivative by e
    for (int i = 0; i < static_cast<int>(p.a); ++i) {
        sum += power;
        slope += i > 0 ? i * power / p.b : 0;
        power *= p.b;
    }
    return Link{sum, slope * p.ub / sum, 0};
}

Expected<Link> angleOf(const RatioPart& p) {
    if (!(std::abs(p.a) < std::numbers::pi / 2))
        return fail("At an angle of 90° or more the cell feels nothing of the load.");
    return Link{std::cos(p.a), std::abs(std::tan(p.a)) * p.ua, 0};
}

Expected<Link> plainOf(const RatioPart& p) {
    if (!(p.a > 0) || !std::isfinite(p.a))
        return fail("A ratio of zero or less cannot be: give what one at the cell is at the specimen.");
    return Link{p.a, p.ua / p.a, 0};
}

} // namespace

Expected<Ratio> ratioOf(std::span<const RatioPart> parts) {
    Ratio r;
    double relative = 0;
    for (const auto& p : parts) {
        const auto link = p.kind == RatioPart::Kind::lever   ? leverOf(p)
                          : p.kind == RatioPart::Kind::line  ? lineOf(p)
                          : p.kind == RatioPart::Kind::angle ? angleOf(p)
                                                             : plainOf(p);
        if (!link) return tl::unexpected(link.error());
        r.value *= link->value;
        r.offset = r.offset * link->value + link->offset;
        relative = std::hypot(relative, link->relative);
    }
    r.uncertainty = r.value * relative;
    return r;
}

std::string sentence(const Ratio& r) {
    std::string text = fmt::format("Reads 1, the specimen feels {}", quantity::significant(r.value, 3));
    if (r.uncertainty > 0) text += fmt::format(" ± {}", quantity::significant(r.uncertainty, 1));
    if (r.offset != 0)
        text +=
            fmt::format(", and {} N more from the lever's own weight", quantity::significant(r.offset, 3));
    return text + ".";
}

Expected<double> pivotLift(double weight, double centre, double pivot, double lift) {
    if (!(weight > 0)) return fail("The weight must be more than nothing.");
    if (lift == pivot) return fail("It cannot be lifted where it stands.");
    const double share = (centre - pivot) / (lift - pivot);
    if (share < 0) return fail("Its centre of gravity lies beyond the pivot: it would tip by itself.");
    return weight * share;
}

} // namespace anvil::rig
