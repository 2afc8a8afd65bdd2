#include "choices.h"

#include <anvil/methods/method.h>
#include <anvil/words/parts.h>

namespace anvil::pages {

std::optional<Page> parts(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    const auto squares = results::partsOf(data, verdict);
    if (squares.empty()) return {};
    Page page{"parts", data.study.title, {}};
    page.add(metricChoice(source, view));
    page.add(Bullets{words::sentences(data, verdict, squares), "partSentences", true});
    page.add(words::partTable(data, verdict, squares, methods::unitFor(*metric, view.units)));
    page.add(
        paragraph(Paragraph::Style::small,
                  "In the pulls in which a part broke its strength is exact, in all others at least their "
                  "load. Parts are taken to be independent of each other."));
    return page;
}

} // namespace anvil::pages
