#include "choices.h"

#include <algorithm>
#include <anvil/results/evidence.h>
#include <anvil/words/side_by_side.h>

namespace anvil::pages {
namespace {

constexpr std::size_t mostMetrics = 6; // as many columns as can be read beside each other

/// The deciding metric and the others that any pull tells, that one first.
std::vector<domain::Metric> toldBy(const Source& source) {
    const auto decides = source.study->study.goal.metric;
    std::vector<domain::Metric> out{decides};
    for (const auto& m : results::metricsOf(*source.study))
        if (m != decides && out.size() < mostMetrics && !source.verdict(m).empty()) out.push_back(m);
    return out;
}

} // namespace

bool hasOtherMetrics(const Source& source, const View&) {
    return hasAnswer(source, {}) && toldBy(source).size() > 1;
}

std::optional<Page> otherMetrics(const Source& source, const View& view) {
    if (!hasOtherMetrics(source, view)) return {};
    const auto& data = *source.study;
    Page page{"metrics", data.study.title, {}};
    std::vector<const results::Verdict*> verdicts;
    for (const auto& m : toldBy(source))
        verdicts.push_back(&source.verdict(m));
    for (auto& line : words::sideBySideSentences(data, verdicts))
        page.add(Paragraph{Paragraph::Style::lead, std::move(line)});
    page.add(words::sideBySideTable(data, verdicts, view.units));
    page.add(
        paragraph(Paragraph::Style::small,
                  "Means, in brackets the place by that number within its condition. What decides stands "
                  "first."));
    return page;
}

} // namespace anvil::pages
