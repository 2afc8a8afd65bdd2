#include "choices.h"

#include <anvil/methods/method.h>
#include <anvil/quantity/print.h>
#include <anvil/words/needs.h>
#include <fmt/format.h>

namespace anvil::pages {

std::optional<Page> needs(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    const auto results = results::needsOf(verdict);
    if (results.empty()) return {};
    const auto& unit = methods::unitFor(*metric, view.units);
    const bool less = verdict.goal.sense == domain::Sense::less;
    Page page{"needs", data.study.title, {}};
    page.add(metricChoice(source, view));
    page.add(Paragraph{Paragraph::Style::lead, fmt::format("Needed: a {} of {} {}.", metric->noun,
                                                           quantity::withUnit(*verdict.goal.need, unit),
                                                           less ? "or less" : "or more")});
    page.add(words::needTable(data, verdict, results, unit));
    Bullets said{{}, "needSentences", true};
    for (const auto& need : results)
        said.items.push_back(words::sentence(data, verdict, need, unit));
    page.add(std::move(said));
    page.add(paragraph(Paragraph::Style::small,
                       "Met: the mean meets the need with a chance of 97.5 % or more. It compares what was "
                       "tested here, in this way; it certifies nothing."));
    return page;
}

} // namespace anvil::pages
