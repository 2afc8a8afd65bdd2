#include "choices.h"

#include <algorithm>
#include <anvil/words/arrangement.h>

namespace anvil::pages {

bool hasArrangement(const Source& source, const View&) {
    const auto& goal = source.study->study.goal;
    return hasAnswer(source, {}) && source.study->options.size() > 1 &&
           goal.metric->dimension == quantity::Dimension::force &&
           (!source.study->study.plan.arrangements.empty() ||
            std::any_of(source.study->options.begin(), source.study->options.end(),
                        [](const auto& o) { return o.rating.has_value(); }));
}

std::optional<Page> arrangement(const Source& source, const View& view) {
    if (!hasArrangement(source, view)) return {};
    const auto& data = *source.study;
    const auto metric = data.study.goal.metric;
    Page page{"arrangement", data.study.title, {}};
    const auto all = results::arrangedOf(data, source.verdict(metric));
    for (auto& line : words::arrangementSentences(data, all))
        page.add(Paragraph{Paragraph::Style::lead, std::move(line)});
    if (!all.empty()) page.add(words::arrangementTable(data, all, methods::unitFor(*metric, view.units)));
    page.add(Offers{
        "arrangements",
        {{data.study.plan.arrangements.empty()
              ? "Say which option is another one in an arrangement (doubled, choked, bent round a pin) "
                "and what factor it is said to have: what was held is told against both baselines."
              : "Which option is which other one in an arrangement, and by what factor:",
          {{"changeArrangements", "Set them…", Ask::arrangements}}}},
        {}});
    page.add(
        paragraph(Paragraph::Style::small,
                  "Predicted is the factor times a baseline: the maker's rating of the plain option, or its "
                  "measured mean. In brackets 95 % intervals; a rating is taken as exact."));
    for (auto& caution : cautions())
        page.add(Paragraph{Paragraph::Style::caution, std::move(caution)});
    return page;
}

} // namespace anvil::pages
