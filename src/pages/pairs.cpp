#include "choices.h"

#include <anvil/words/verdict.h>

namespace anvil::pages {

std::optional<Page> pairs(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto& verdict = source.verdict(metricOf(source, view));
    Bullets options{{}, "optionPairs"}, conditions{{}, "conditionPairs"};
    for (const auto& p : verdict.pairs)
        if (verdict.hasBoth(p))
            (p.acrossConditions ? conditions : options).items.push_back(words::sentence(data, verdict, p));
    if (options.items.empty() && conditions.items.empty()) return {};
    Page page{"pairs", data.study.title, {}};
    page.add(metricChoice(source, view));
    if (!options.items.empty()) {
        page.add(Heading{3, "Option against option"});
        page.add(std::move(options));
    }
    if (!conditions.items.empty()) {
        page.add(Heading{3, "Condition against condition"});
        page.add(std::move(conditions));
    }
    return page;
}

} // namespace anvil::pages
