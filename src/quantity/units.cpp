#include <anvil/quantity/units.h>

#include <initializer_list>
#include <map>
#include <utility>

namespace anvil::quantity {

const Unit& Units::of(Dimension dimension) const {
    switch (dimension) {
    case Dimension::force:
        return *force;
    case Dimension::length:
        return *length;
    case Dimension::area:
        return unit(length->symbol == "in" ? "in²" : "mm²");
    case Dimension::stiffness: {
        static const std::map<std::pair<std::string_view, std::string_view>, std::string_view> names{
            {{"N", "mm"}, "N/mm"},     {{"kN", "mm"}, "kN/mm"},  {{"kgf", "mm"}, "kgf/mm"},
            {{"lbf", "mm"}, "lbf/mm"}, {{"N", "in"}, "N/in"},    {{"kN", "in"}, "kN/in"},
            {{"kgf", "in"}, "kgf/in"}, {{"lbf", "in"}, "lbf/in"}};
        return unit(names.at({force->symbol, length->symbol}));
    }
    case Dimension::energy:
        return unit("J");
    case Dimension::stress:
        return unit("MPa");
    case Dimension::energyPerArea:
        return unit("kJ/m²");
    case Dimension::acceleration:
        return unit("g₀");
    case Dimension::angle:
        return unit("°");
    case Dimension::mass:
    case Dimension::time:
    case Dimension::torque:
    case Dimension::speed:
    case Dimension::temperature:
    case Dimension::ratio:
    case Dimension::money:
    case Dimension::bendingStiffness:
    case Dimension::voltage:
        break;
    }
    return siUnit(dimension);
}

Units unitsFrom(const std::string& force, const std::string& length) {
    const auto pick = [](const std::string& name, std::initializer_list<const char*> allowed) {
        for (const char* a : allowed)
            if (name == a) return &unit(a);
        return &unit(*allowed.begin());
    };
    return {pick(force, {"N", "kN", "kgf", "lbf"}), pick(length, {"mm", "in"})};
}

} // namespace anvil::quantity
