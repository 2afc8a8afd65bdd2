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

Expected<Link> ramOf(const RatioPart& p) {
    if (!(p.a > 0) || !std::isfinite(p.a))
        return fail("Give the area that the pressure works on, or the bore of the ram.");
    return Link{p.a, p.ua / p.a, 0};
}

Expected<Link> sensorOf(const RatioPart& p) {
    if (!(p.a > 0) || !std::isfinite(p.a))
        return fail("A sensor that gives no volts cannot be read: give the load that one volt stands for.");
    return Link{p.a, p.ua / p.a, -p.a * p.b};
}

Expected<Link> plainOf(const RatioPart& p) {
    if (!(p.a > 0) || !std::isfinite(p.a))
        return fail("A ratio of zero or less cannot be: give what one at the cell is at the specimen.");
    return Link{p.a, p.ua / p.a, 0};
}

Expected<Link> linkOf(const RatioPart& p) {
    switch (p.kind) {
    case RatioPart::Kind::lever:
        return leverOf(p);
    case RatioPart::Kind::line:
        return lineOf(p);
    case RatioPart::Kind::angle:
        return angleOf(p);
    case RatioPart::Kind::plain:
        return plainOf(p);
    case RatioPart::Kind::ram:
        return ramOf(p);
    case RatioPart::Kind::sensor:
        return sensorOf(p);
    }
    return fail("There is no such part of a load path.");
}

} // namespace

Expected<Ratio> ratioOf(std::span<const RatioPart> parts) {
    Ratio r;
    double relative = 0;
    for (const auto& p : parts) {
        const bool turns = p.kind == RatioPart::Kind::ram || p.kind == RatioPart::Kind::sensor;
        if (turns && &p != parts.data())
            return fail("What makes a load of a pressure or of volts comes first, next to the display.");
        if (turns)
            r.of =
                p.kind == RatioPart::Kind::ram ? quantity::Dimension::stress : quantity::Dimension::voltage;
        const auto link = linkOf(p);
        if (!link) return tl::unexpected(link.error());
        r.value *= link->value;
        r.offset = r.offset * link->value + link->offset;
        relative = std::hypot(relative, link->relative);
    }
    r.uncertainty = r.value * relative;
    return r;
}

std::string sentence(const Ratio& r) {
    const bool load = r.of == quantity::Dimension::force, ram = r.of == quantity::Dimension::stress;
    const double one = ram ? quantity::unit("bar").factor : 1; // a pascal is nothing that a gauge shows
    std::string text = fmt::format("Reads 1{}, the specimen feels {}",
                                   load  ? ""
                                   : ram ? " bar"
                                         : " V",
                                   quantity::significant(r.value * one, 3));
    if (r.uncertainty > 0) text += fmt::format(" ± {}", quantity::significant(r.uncertainty * one, 1));
    if (!load) text += " N";
    if (r.offset != 0)
        text += fmt::format(", and {} N {}", quantity::significant(std::abs(r.offset), 3),
                            r.of == quantity::Dimension::voltage ? r.offset < 0 ? "less" : "more"
                                                                 : "more from the lever's own weight");
    return text + ".";
}

double areaOfBore(double bore) { return std::numbers::pi / 4 * bore * bore; }

Expected<double> pivotLift(double weight, double centre, double pivot, double lift) {
    if (!(weight > 0)) return fail("The weight must be more than nothing.");
    if (lift == pivot) return fail("It cannot be lifted where it stands.");
    const double share = (centre - pivot) / (lift - pivot);
    if (share < 0) return fail("Its centre of gravity lies beyond the pivot: it would tip by itself.");
    return weight * share;
}

} // namespace anvil::rig
