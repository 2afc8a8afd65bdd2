#include "choices.h"

#include <anvil/methods/method.h>
#include <anvil/words/parts.h>

namespace anvil::pages {

std::optional<Page> worth(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    const auto all = results::worthOf(data, verdict);
    if (all.empty()) return {};
    Page page{"worth", data.study.title, {}};
    page.add(metricChoice(source, view));
    for (auto& line : words::sentences(data, verdict, all))
        page.add(Paragraph{Paragraph::Style::lead, std::move(line)});
    page.add(words::worthTable(data, verdict, all, methods::unitFor(*metric, view.units)));
    page.add(paragraph(Paragraph::Style::small,
                       "Judged by the 90/95 floor where every option has one, else by the mean."));
    return page;
}

} // namespace anvil::pages
