#include "choices.h"

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/words/floors.h>
#include <anvil/words/values.h>
#include <fmt/format.h>

namespace anvil::pages {

namespace {

/// Three exact values that are not all the same.
bool mayHaveFloor(const results::Group& g) {
    std::vector<double> exact;
    for (const auto& v : g.values)
        if (v.value.exact()) exact.push_back(v.value.value);
    return exact.size() >= 3 &&
           std::any_of(exact.begin(), exact.end(), [&](double v) { return v != exact.front(); });
}

/// The probability plot of one group, chosen among those that have one.
void addPlot(Page& page, const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    Choice which{"plotOf", "Probability plot of", {}, {}, true};
    std::optional<std::size_t> shown;
    for (std::size_t i = 0; i < verdict.groups.size(); ++i) {
        const auto& g = verdict.groups[i];
        if (!mayHaveFloor(g) || g.summary.below + g.summary.between > 0) continue;
        which.options.push_back({fmt::format("{}", i), words::groupName(data, g), PlotGroup{i}});
        if (!shown || view.plotOf == i) {
            shown = i;
            which.chosen = which.options.back().key;
        }
    }
    if (!shown) return;
    auto plot = results::probabilityPlot(verdict.groups[*shown]);
    if (!plot) return;
    page.add(std::move(which));
    page.add(Figure{"probability",
                    [plot = std::move(*plot), source, title = std::string(metric->title),
                     &unit = methods::unitFor(*metric, view.units)](double width, double) {
                        return chart::probability(plot, *source.study, title, unit, width, 0);
                    },
                    "How the values of " + words::groupName(data, verdict.groups[*shown]) +
                        " are spread, and what fitted families say."});
}

} // namespace

bool hasFloors(const Source& source, const View& view) {
    const auto& verdict = source.verdict(metricOf(source, view));
    return verdict.goal.sense == domain::Sense::more &&
           verdict.goal.metric->scale == methods::Scale::measured &&
           std::any_of(verdict.groups.begin(), verdict.groups.end(), mayHaveFloor);
}

std::optional<Page> floors(const Source& source, const View& view) {
    if (!hasFloors(source, view)) return {};
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    std::vector<results::OneGroup> groups;
    groups.reserve(verdict.groups.size());
    for (const auto& g : verdict.groups)
        groups.push_back(results::analyse(g));
    const auto& unit = methods::unitFor(*metric, view.units);
    Page page{"floors", data.study.title, {}};
    page.add(metricChoice(source, view));
    page.add(paragraph(Paragraph::Style::plain,
                       "What a piece can be trusted to hold. A mean is what half of them do not hold."));
    page.add(words::floorTable(data, verdict, groups, unit));
    if (std::any_of(verdict.groups.begin(), verdict.groups.end(),
                    [](const results::Group& g) { return g.summary.censored(); }))
        page.add(Choice{"family",
                        "Groups with bounds are fitted by the",
                        {{"normal", "normal law", ChooseFamily{stats::Family::normal}},
                         {"lognormal", "log-normal law", ChooseFamily{stats::Family::lognormal}},
                         {"weibull", "Weibull law", ChooseFamily{stats::Family::weibull}}},
                        stats::key(results::familyOf(verdict.goal)),
                        true});
    page.add(section("What each promises"));
    page.add(Bullets{words::floorPromises(), "floorPromises", true});
    Offers apart{"apart", {}, {}, false, true};
    for (const auto& value : results::apartOf(verdict.groups))
        apart.offers.push_back({words::standingApart(data, verdict, value, unit),
                                {{"setAside", "Set it aside…",
                                  SetAside{verdict.groups[value.group].values[value.value].pull}}}});
    if (!apart.offers.empty()) {
        page.add(section("Values that stand apart"));
        page.add(std::move(apart));
    }
    addPlot(page, source, view);
    return page;
}

} // namespace anvil::pages
