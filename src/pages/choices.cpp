#include "choices.h"

#include <algorithm>
#include <anvil/results/evidence.h>

namespace anvil::pages {

domain::Metric metricOf(const Source& source, const View& view) {
    return view.metric.value_or(source.study->study.goal.metric);
}

Choice metricChoice(const Source& source, const View& view) {
    const auto chosen = metricOf(source, view);
    auto offered = results::metricsOf(*source.study);
    if (std::find(offered.begin(), offered.end(), chosen) == offered.end()) offered.push_back(chosen);
    Choice c{"metric", "Ranked by", {}, std::string(chosen->key)};
    for (const auto& m : offered)
        c.options.push_back({std::string(m->key), std::string(m->title), RankBy{m}});
    return c;
}

Heading section(std::string_view text) { return {3, std::string(text)}; }

Paragraph paragraph(Paragraph::Style style, std::string_view text) { return {style, std::string(text)}; }

} // namespace anvil::pages
