#include "choices.h"

#include <anvil/methods/method.h>
#include <anvil/words/effects.h>

namespace anvil::pages {

std::optional<Page> trend(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    const auto results = results::trendsOf(data, verdict);
    if (results.empty()) return {};
    Page page{"trend", data.study.title, {}};
    page.add(metricChoice(source, view));
    Bullets said{{}, "trendSentences", true};
    for (const auto& result : results)
        said.items.push_back(words::sentence(data, verdict, result));
    page.add(std::move(said));
    page.add(words::trendTable(data, results, methods::unitFor(*metric, view.units)));
    return page;
}

} // namespace anvil::pages
