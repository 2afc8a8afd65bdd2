#include <anvil/pages/curve_lines.h>

namespace anvil::pages {

std::vector<chart::CurveChart::Line> linesOver(const domain::StudyData& data, const curve::Reading& reading,
                                               const quantity::Units& units) {
    std::vector<chart::CurveChart::Line> out;
    if (data.study.goal.metric->dimension != reading.loadKind) return out;
    const auto& unit = units.of(reading.loadKind);
    for (const auto& r : data.study.telling.references)
        out.push_back(
            {r.name, unit.fromSi(r.value), r.upper ? std::optional(unit.fromSi(*r.upper)) : std::nullopt});
    return out;
}

} // namespace anvil::pages
