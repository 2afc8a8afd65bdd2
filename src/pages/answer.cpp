#include "choices.h"

#include <anvil/methods/method.h>
#include <anvil/plan/follow_ups.h>
#include <anvil/words/verdict.h>
#include <fmt/format.h>

namespace anvil::pages {

std::optional<Page> answer(const Source& source, const View& view) {
    const auto& data = *source.study;
    if (data.pulls.empty()) return {};
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    Page p{"answer", data.study.title, {}};
    p.add(metricChoice(source, view));
    for (auto& line : words::headlines(data, verdict))
        p.add(Paragraph{Paragraph::Style::lead, std::move(line)});
    // Drawn when it is shown: the verdict may be another by then.
    p.add(Figure{"ladder",
                 [source, metric, selected = view.selected, fromZero = view.fromZero,
                  &unit = methods::unitFor(*metric, view.units)](double width, double height) {
                     return chart::ladder(*source.study, source.verdict(metric), unit, width, selected,
                                          {height, fromZero});
                 },
                 fmt::format("Strength ladder: {}.", metric->noun)});
    Offers next{"followUps",
                {},
                {{"planHere", "Plan it in this study"}, {"planApart", "Make it a study of its own"}},
                "Nothing is too close to call; more pulls would only sharpen what is known."};
    for (auto& followUp : plan::followUps(data, verdict))
        next.sentences.push_back(std::move(followUp.sentence));
    p.add(Heading{3, "What next"});
    p.add(std::move(next));
    return p;
}

} // namespace anvil::pages
