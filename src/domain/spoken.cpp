#include <anvil/domain/spoken.h>

#include <algorithm>
#include <anvil/quantity/entry.h>

namespace anvil::domain {
namespace {

using quantity::Dimension;
using quantity::Unit;

const Unit* unitOf(const std::string& text, Dimension dimension) {
    const auto entry = quantity::parseEntry(text, dimension);
    return entry ? entry->unit : nullptr;
}

const Unit* unitOf(const Pull& pull, Dimension dimension) {
    if (pull.typed && pull.typed->metric->dimension == dimension)
        if (const auto* unit = unitOf(pull.typed->asTyped, dimension)) return unit;
    for (const auto& field : pull.outcome.entered.fields)
        if (const auto* unit = unitOf(field.text, dimension)) return unit;
    return nullptr;
}

} // namespace

const Unit* unitSpoken(const StudyData& data, Dimension dimension) {
    const auto& spoken = data.study.plan.spoken;
    const auto known = std::find_if(spoken.begin(), spoken.end(),
                                    [&](const FieldText& f) { return f.key == quantity::name(dimension); });
    if (known != spoken.end())
        if (const auto unit = quantity::findUnit(known->text, dimension)) return *unit;
    if (dimension == Dimension::ratio || dimension == Dimension::money) return &quantity::siUnit(dimension);
    for (auto pull = data.pulls.rbegin(); pull != data.pulls.rend(); ++pull)
        if (const auto* unit = unitOf(*pull, dimension)) return unit;
    return nullptr;
}

bool speak(Plan& plan, const Unit& unit) {
    if (unit.dimension == Dimension::ratio || unit.dimension == Dimension::money) return false;
    const FieldText said{std::string(quantity::name(unit.dimension)), std::string(unit.symbol)};
    const auto known = std::find_if(plan.spoken.begin(), plan.spoken.end(),
                                    [&](const FieldText& f) { return f.key == said.key; });
    if (known != plan.spoken.end()) {
        if (*known == said) return false;
        *known = said;
        return true;
    }
    plan.spoken.push_back(said);
    return true;
}

} // namespace anvil::domain
