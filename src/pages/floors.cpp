#include "choices.h"

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/words/floors.h>

namespace anvil::pages {

std::optional<Page> floors(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    if (verdict.empty() || verdict.goal.sense != domain::Sense::more) return {};
    std::vector<results::OneGroup> groups;
    groups.reserve(verdict.groups.size());
    for (const auto& g : verdict.groups)
        groups.push_back(results::analyse(g));
    const bool any = std::any_of(groups.begin(), groups.end(), [](const results::OneGroup& g) {
        return g.floors.normal90_95 || g.floors.lognormal90_95 || g.floors.weibull90_95;
    });
    if (!any) return {}; // nobody has three exact values
    const auto& unit = methods::unitFor(*metric, view.units);
    Page page{"floors", data.study.title, {}};
    page.add(metricChoice(source, view));
    page.add(paragraph(Paragraph::Style::plain,
                       "What a piece can be trusted to hold. A mean is what half of them do not hold."));
    page.add(words::floorTable(data, verdict, groups, unit));
    page.add(Heading{3, "What each promises"});
    page.add(Bullets{words::floorPromises(), "floorPromises", true});
    if (auto apart = words::standingApart(data, verdict, groups, unit); !apart.empty()) {
        page.add(Heading{3, "Values that stand apart"});
        page.add(Bullets{std::move(apart), "standingApart", true});
    }
    return page;
}

} // namespace anvil::pages
