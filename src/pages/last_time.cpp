#include "choices.h"

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/words/earlier.h>

namespace anvil::pages {

namespace {

/// Asked first: what another study says takes a while.
bool sharesOption(const domain::StudyData& a, const domain::StudyData& b) {
    return std::any_of(a.options.begin(), a.options.end(), [&](const domain::Option& x) {
        return std::any_of(b.options.begin(), b.options.end(),
                           [&](const domain::Option& y) { return x.name == y.name; });
    });
}

} // namespace

std::optional<Page> lastTime(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    std::vector<results::Earlier> earlier;
    if (source.studies && source.verdictOf && source.isRead)
        for (const auto* other : source.studies()) {
            if (other->study.id == data.study.id || !sharesOption(data, *other) ||
                !source.isRead(other->study.id))
                continue;
            auto said = results::earlierOf({}, *other, source.verdictOf(other->study.id, metric));
            earlier.insert(earlier.end(), said.begin(), said.end());
        }
    if (source.earlier)
        for (auto& e : source.earlier())
            earlier.push_back(std::move(e));
    const auto all = results::lastTimes(data, verdict, earlier);
    if (all.empty()) return {};
    Page page{"last", data.study.title, {}};
    page.add(metricChoice(source, view));
    page.add(
        paragraph(Paragraph::Style::plain,
                  "The same options by the same method at other times. Look at what differs before at the "
                  "number."));
    page.add(words::earlierTable(data, verdict, all, methods::unitFor(*metric, view.units)));
    return page;
}

} // namespace anvil::pages
