#include "choices.h"

#include <algorithm>
#include <anvil/curve/average.h>
#include <anvil/methods/method.h>
#include <anvil/words/values.h>
#include <anvil/words/verdict.h>
#include <anvil/words/why.h>
#include <fmt/format.h>
#include <tuple>

namespace anvil::pages {

namespace {

/// The pairs that hold anything, condition by condition: what the leader is compared with first, then what
/// the next one is; what was told before what was not.
std::vector<const results::PairResult*> byWeight(const results::Verdict& verdict) {
    std::vector<const results::PairResult*> out;
    for (const auto& p : verdict.pairs)
        if (verdict.hasBoth(p)) out.push_back(&p);
    const auto weight = [&](const results::PairResult& p) {
        // Groups stand by condition and rank, so that the place of the better one says both.
        const auto ahead = p.acrossConditions ? p.a : std::min(p.a, p.b);
        const auto behind = p.acrossConditions ? p.b : std::max(p.a, p.b);
        const bool told = p.comparison.verdict != stats::PairVerdict::notYet &&
                          p.comparison.verdict != stats::PairVerdict::notEnough;
        return std::tuple(p.acrossConditions, ahead, !told, behind);
    };
    std::stable_sort(out.begin(), out.end(),
                     [&](const auto* a, const auto* b) { return weight(*a) < weight(*b); });
    return out;
}

/// The groups that a pair may be made of, as choices; those that were never compared with `with` left out.
Choice groupChoice(const domain::StudyData& data, const results::Verdict& verdict, std::string_view key,
                   std::string title, std::size_t chosen, std::size_t other,
                   std::optional<std::size_t> with) {
    Choice c{key, std::move(title), {}, fmt::format("{}", chosen), true};
    for (std::size_t i = 0; i < verdict.groups.size(); ++i) {
        const bool compared =
            !with || std::any_of(verdict.pairs.begin(), verdict.pairs.end(), [&](const auto& p) {
                return (p.a == i && p.b == *with) || (p.b == i && p.a == *with);
            });
        if (verdict.groups[i].summary.n > 0 && compared)
            c.options.push_back({fmt::format("{}", i), words::groupName(data, verdict.groups[i]),
                                 with ? CompareTwo{*with, i} : CompareTwo{i, other}});
    }
    return c;
}

/// The two that are looked at: those chosen where they were compared, else the first pair there is.
std::pair<std::size_t, std::size_t> twoOf(const results::Verdict& verdict, const View& view,
                                          const results::PairResult& first) {
    if (view.two)
        for (const auto& p : verdict.pairs)
            if (std::pair(p.a, p.b) == *view.two || std::pair(p.b, p.a) == *view.two) return *view.two;
    if (view.two) // one of them was changed: the best that it was compared with
        for (const auto& p : verdict.pairs)
            if (verdict.hasBoth(p) && (p.a == view.two->first || p.b == view.two->first))
                return {view.two->first, p.a == view.two->first ? p.b : p.a};
    return {first.a, first.b};
}

bool hasCurves(const domain::StudyData& data, const results::Group& group) {
    return std::any_of(group.values.begin(), group.values.end(), [&](const results::GroupValue& v) {
        const auto* pull = data.pull(v.pull);
        return pull && pull->curve;
    });
}

/// The averaged curve of a group's exact pulls, registered on its landmarks; nothing for fewer than two, or
/// where it is against time and the single ones are not.
std::optional<chart::Trace> averageOf(const Source& source, const results::Group& group,
                                      const quantity::Units& units, bool againstTime) {
    std::vector<std::shared_ptr<const curve::ReadCurve>> kept;
    std::vector<const curve::ReadCurve*> curves;
    for (const auto& v : group.values)
        if (v.value.exact())
            if (auto curve = source.curve ? source.curve(v.pull) : nullptr) {
                curves.push_back(curve.get());
                kept.push_back(std::move(curve));
            }
    if (curves.size() < 2) return {};
    const auto average = curve::averaged(curves);
    if (!average || average->againstTime != againstTime) return {};
    const auto& load = units.of(curves.front()->reading.loadKind);
    const auto& travel = units.of(curves.front()->reading.travelKind);
    chart::Trace trace;
    for (std::size_t i = 0; i < average->x.size(); ++i)
        trace.points.push_back(
            {againstTime ? average->x[i] : travel.fromSi(average->x[i]), load.fromSi(average->load[i])});
    return trace;
}

/// The curves of both groups over each other, each group in one ink, and the averaged ones above them.
std::optional<chart::CurveChart> curvesOf(const Source& source, const results::Verdict& verdict,
                                          std::size_t a, std::size_t b, const quantity::Units& units) {
    chart::CurveChart both;
    std::vector<chart::Trace> averages;
    const bool sameOption = verdict.groups[a].option == verdict.groups[b].option;
    std::size_t n = 0;
    for (const auto i : {a, b}) {
        const auto& g = verdict.groups[i];
        auto one = overlayOf(source, g.option, g.condition, units, 300);
        if (one.traces.empty()) return {};
        bool named = false;
        for (auto& trace : one.traces) {
            trace.name = named        ? std::string()
                         : sameOption ? source.study->conditionAt(g.condition).name
                                      : source.study->optionAt(g.option).name;
            named = true;
            trace.ink = chart::seriesInk(n);
            trace.dash = n ? chart::Dash::dashed : chart::Dash::solid;
            trace.width = 1.1;
            trace.opacity = 0.35;
            both.traces.push_back(std::move(trace));
        }
        if (auto average = averageOf(source, g, units, one.xTitle.starts_with("Time"))) {
            average->ink = chart::seriesInk(n);
            average->width = 2.6;
            average->name = "averaged";
            averages.push_back(std::move(*average));
        }
        both.x0 = n ? std::min(both.x0, one.x0) : one.x0;
        both.x1 = n ? std::max(both.x1, one.x1) : one.x1;
        both.y0 = n ? std::min(both.y0, one.y0) : one.y0;
        both.y1 = n ? std::max(both.y1, one.y1) : one.y1;
        both.xTitle = one.xTitle;
        both.yTitle = one.yTitle;
        ++n;
    }
    for (auto& average : averages)
        both.traces.push_back(std::move(average));
    both.legend = true;
    return both;
}

/// Everything about two of them.
void addWhy(Page& page, const Source& source, const View& view, const results::PairResult& first) {
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    const auto [a, b] = twoOf(verdict, view, first);
    const auto* table = source.table ? source.table() : nullptr;
    const auto why = table ? results::whyOf(*table, verdict, a, b) : std::nullopt;
    if (!why) return;
    page.add(groupChoice(data, verdict, "first", "Compare", a, b, {}));
    page.add(groupChoice(data, verdict, "second", "with", b, a, a));
    results::PairResult pair{why->a, why->b, why->acrossConditions, why->comparison};
    page.add(Paragraph{Paragraph::Style::lead, words::sentence(data, verdict, pair)});
    page.add(Figure{
        "strips",
        [source, metric, why = *why, &unit = methods::unitFor(*metric, view.units)](double width, double) {
            return chart::pairStrips(*source.study, source.verdict(metric), why, unit, width);
        },
        "Every value of both, and their ratio with its 95 % interval."});
    auto lines = words::support(data, verdict, *why);
    for (const auto& d : why->differed)
        lines.push_back(words::sentence(data, verdict, *why, d));
    if (auto aside = words::asideSentence(data, verdict, *why); !aside.empty())
        lines.push_back(std::move(aside));
    page.add(Bullets{std::move(lines), "support", true});
    if (hasCurves(data, verdict.groups[why->a]) && hasCurves(data, verdict.groups[why->b]))
        page.add(
            Figure{"bothCurves", // read when it is drawn
                   [source, metric, a = why->a, b = why->b, units = view.units](double width, double) {
                       const auto curves = curvesOf(source, source.verdict(metric), a, b, units);
                       return chart::curves(curves.value_or(chart::CurveChart()), width, 260);
                   },
                   "The curves of both; thick the averaged ones, registered on toe, peak and break, so that "
                   "their peaks are the means of the peaks."});
    if (!why->broke.empty()) page.add(words::brokeTable(data, verdict, *why));
}

} // namespace

bool hasPairs(const Source& source, const View& view) {
    const auto& verdict = source.verdict(metricOf(source, view));
    return std::any_of(verdict.pairs.begin(), verdict.pairs.end(),
                       [&](const results::PairResult& p) { return verdict.hasBoth(p); });
}

std::optional<Page> pairs(const Source& source, const View& view) {
    if (!hasPairs(source, view)) return {};
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    Bullets options{{}, "optionPairs"}, conditions{{}, "conditionPairs"};
    const auto ordered = byWeight(verdict);
    for (const auto* p : ordered)
        (p->acrossConditions ? conditions : options).items.push_back(words::sentence(data, verdict, *p));
    Page page{"pairs", data.study.title, {}};
    page.add(metricChoice(source, view));
    addWhy(page, source, view, *ordered.front());
    for (const auto& condition : data.conditions)
        if (verdict.inCondition(condition.id).size() > 2) {
            page.add(Figure{"triangle",
                            [source, metric, id = condition.id](double width, double) {
                                return chart::verdictTriangle(*source.study, source.verdict(metric), id,
                                                              width);
                            },
                            data.conditions.size() > 1 ? "Every pair of " + condition.name + "."
                                                       : std::string("Every pair.")});
        }
    if (!options.items.empty()) {
        page.add(section("Option against option"));
        page.add(std::move(options));
    }
    if (!conditions.items.empty()) {
        page.add(section("Condition against condition"));
        page.add(std::move(conditions));
    }
    return page;
}

} // namespace anvil::pages
