#include "choices.h"

#include <algorithm>
#include <anvil/results/evidence.h>
#include <anvil/words/side_by_side.h>

namespace anvil::pages {
namespace {

constexpr std::size_t mostMetrics = 6; // as many columns as can be read beside each other

/// Whether any pull tells a metric, by the table of what pulls say: a verdict takes much longer.
bool isTold(const Source& source, const domain::Metric& metric) {
    const auto* table = source.table ? source.table() : nullptr;
    if (!table) return !source.verdict(metric).empty();
    const auto& data = *source.study;
    for (const auto& o : data.options)
        for (const auto& c : data.conditions)
            for (const auto& attempt : table->attempts(o.id, c.id))
                if (table->value(attempt, o.id, metric).value) return true;
    return false;
}

/// The deciding metric and the others that any pull tells, that one first.
std::vector<domain::Metric> toldBy(const Source& source) {
    const auto decides = source.study->study.goal.metric;
    std::vector<domain::Metric> out{decides};
    for (const auto& m : results::metricsOf(*source.study))
        if (m != decides && out.size() < mostMetrics && isTold(source, m)) out.push_back(m);
    return out;
}

} // namespace

bool hasOtherMetrics(const Source& source, const View&) {
    const auto all = results::metricsOf(*source.study);
    return hasAnswer(source, {}) && std::any_of(all.begin(), all.end(), [&](const domain::Metric& m) {
               return m != source.study->study.goal.metric && isTold(source, m);
           });
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
