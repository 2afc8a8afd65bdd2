#include "choices.h"

#include <anvil/methods/method.h>
#include <anvil/words/ranked.h>

namespace anvil::pages {

std::optional<Page> rankedTable(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    if (verdict.groups.empty()) return {};
    Page page{"table", data.study.title, {}};
    page.add(metricChoice(source, view));
    page.add(words::rankedTable(data, verdict, methods::unitFor(*metric, view.units)));
    return page;
}

} // namespace anvil::pages
