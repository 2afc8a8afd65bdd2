#include "choices.h"

#include <anvil/chart/over_time.h>
#include <anvil/quantity/print.h>
#include <fmt/format.h>

namespace anvil::pages {
namespace {

/// A row a spot: the blows in their order, and the last over the first.
words::Table spotTable(const domain::StudyData& data, const std::vector<results::HitHistory>& spots,
                       const quantity::Unit& unit) {
    words::Table t{"hits",
                   {{"option", "Option"},
                    {"condition", "Condition"},
                    {"piece", "Piece"},
                    {"where", "Spot"},
                    {"hits", "Hits"},
                    {"blows", "Blows in order"},
                    {"change", "Last over first", true}},
                   {}};
    for (const auto& s : spots) {
        std::string blows;
        bool exact = true;
        for (const auto& h : s.hits) {
            blows += (blows.empty() ? "" : ", ") + quantity::withUnit(h.peak.value, unit);
            exact = exact && (h.peak.bound == stats::Bound::exact || h.peak.aside);
        }
        const double first = s.hits.front().peak.value, last = s.hits.back().peak.value;
        t.rows.push_back({{data.optionAt(s.option).name, data.conditionAt(s.condition).name, s.piece,
                           s.where.empty() ? "–" : s.where, fmt::format("{}", s.hits.size()), blows,
                           exact && first > 0 ? fmt::format("{:.2f}", last / first) : "–"},
                          0});
    }
    return t;
}

} // namespace

bool hasHits(const Source& source, const View& view) {
    return source.table && source.table() &&
           !results::hitsOf(*source.table(), metricOf(source, view)).empty();
}

std::optional<Page> hits(const Source& source, const View& view) {
    if (!hasHits(source, view)) return {};
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& unit = methods::unitFor(*metric, view.units);
    const auto spots = results::hitsOf(*source.table(), metric);
    Page page{"hits", data.study.title, {}};
    page.add(metricChoice(source, view));
    page.add(Figure{"hits",
                    [&data, spots, title = std::string(metric->title), &unit](double width, double height) {
                        return chart::hitLines(data, spots, title, unit, width, height > 0 ? height : 340);
                    },
                    "Hit after hit on one spot: what is no longer fresh gives another blow"});
    page.add(spotTable(data, spots, unit));
    page.add(
        paragraph(Paragraph::Style::small,
                  "Only the first hit on a spot tells of a fresh piece. Set later ones aside, or rank them "
                  "in a condition of their own."));
    return page;
}

} // namespace anvil::pages
