#include "choices.h"

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/plan/follow_ups.h>
#include <anvil/words/scales.h>
#include <anvil/words/sureness.h>
#include <anvil/words/verdict.h>
#include <anvil/words/why.h>
#include <fmt/format.h>

namespace anvil::pages {

namespace {

constexpr std::string_view sideBySide = "columns";
constexpr std::size_t mostColumns = 4; // more leave no room for a rung

/// What else differed between the leader and the next one, single pulls, and whose results are not from here.
std::vector<std::string> besideTheResult(const Source& source, const results::Verdict& verdict) {
    std::vector<std::string> out;
    const auto& data = *source.study;
    const auto* table = source.table ? source.table() : nullptr;
    for (const auto& condition : data.conditions) {
        const auto members = verdict.inCondition(condition.id);
        const auto why = table && members.size() > 1 ? results::whyOf(*table, verdict, members[0], members[1])
                                                     : std::nullopt;
        if (why)
            for (const auto& d : why->differed)
                out.push_back(words::sentence(data, verdict, *why, d));
    }
    for (auto& line : words::limitsOfResults(data, verdict))
        out.push_back(std::move(line));
    return out;
}

/// Who may yet be the best, and the values all of that hangs on.
void addSureness(Page& page, const Source& source, const results::Verdict& verdict,
                 const results::Sureness& sure) {
    const auto& data = *source.study;
    constexpr std::size_t most = 4; // of single values: more is a sign of too few pulls, and said so
    Bullets said{{}, "howSure"};
    for (const auto& condition : data.conditions)
        if (auto line = words::chances(data, verdict, sure, condition); !line.empty())
            said.items.push_back(std::move(line));
    auto odd = words::sentences(data, verdict, sure.odd);
    if (odd.size() > most) {
        const auto more = odd.size() - most;
        odd.resize(most);
        odd.push_back(fmt::format("{} more such: there are too few pulls to lean on single ones.", more));
    }
    said.items.insert(said.items.end(), odd.begin(), odd.end());
    for (auto& line : besideTheResult(source, verdict))
        said.items.push_back(std::move(line));
    if (said.items.empty()) return;
    page.addBeside(section("How sure"));
    page.addBeside(std::move(said));
}

Choice scaleChoice(const domain::StudyData& data, const results::Verdict& verdict,
                   const std::vector<results::RatioBase>& bases, const View& view) {
    Choice c{"scale", "Shown", {{"", "As it is", ShowScale{}}}, ""};
    if (data.conditions.size() > 1 && data.conditions.size() <= mostColumns)
        c.options.push_back(
            {std::string(sideBySide), "Conditions side by side", ShowScale{std::string(sideBySide)}});
    if (view.scale == sideBySide) c.chosen = view.scale;
    for (const auto base : bases) {
        c.options.push_back({std::string(results::key(base)), words::scaleName(data, verdict, base),
                             ShowScale{std::string(results::key(base))}});
        if (view.scale == results::key(base)) c.chosen = view.scale;
    }
    return c;
}

Figure ratioFigure(const Source& source, const View& view, results::RatioBase base) {
    const auto metric = metricOf(source, view);
    return {
        "ladder",
        [source, metric, base, &unit = methods::unitFor(*metric, view.units)](double width, double height) {
            return chart::ratioLadder(*source.study, source.verdict(metric), base, unit, width, height);
        },
        words::scaleTitle(*source.study, source.verdict(metric), base,
                          methods::unitFor(*metric, view.units)) +
            "."};
}

/// What is said where nothing is proposed.
std::string nothingNext(const results::Verdict& verdict) {
    const bool open = std::any_of(verdict.pairs.begin(), verdict.pairs.end(), [&](const auto& p) {
        const auto told = p.comparison.verdict;
        return !p.acrossConditions && verdict.hasBoth(p) && told != stats::PairVerdict::stronger &&
               told != stats::PairVerdict::weaker && told != stats::PairVerdict::same;
    });
    if (open && verdict.goal.metric->scale != methods::Scale::measured)
        return verdict.goal.metric->scale == methods::Scale::counted
                   ? "More tries of those that are too close would tell them apart."
                   : "More pieces rated by the same eyes would tell apart what is too close.";
    const auto some = [&](auto of) {
        return std::any_of(verdict.groups.begin(), verdict.groups.end(),
                           [&](const results::Group& g) { return of(g.summary); });
    };
    if (open && some([](const stats::Summary& s) { return s.n == 1; }))
        return "One pull of each says what was seen and no more: a second of each would show how far pieces "
               "of one "
               "kind differ.";
    if (open && some([](const stats::Summary& s) { return s.censored(); }))
        return "What is left open is smaller than you care for, or waits for exact values in place of "
               "bounds.";
    return open
               ? "A difference that matters would have shown: what is left open is smaller than you care for."
               : "Nothing is too close to call; more pulls would only sharpen what is known.";
}

} // namespace

bool hasAnswer(const Source& source, const View&) { return !source.study->pulls.empty(); }

std::optional<Page> answer(const Source& source, const View& view) {
    if (!hasAnswer(source, view)) return {};
    const auto& data = *source.study;
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    Page p{"answer", data.study.title, {}};
    p.add(metricChoice(source, view));
    const auto* sure = source.sureness ? &source.sureness(metric) : nullptr;
    for (auto& line : words::headlines(data, verdict, sure))
        p.add(Paragraph{Paragraph::Style::lead, std::move(line)});
    const auto base = results::ratioBaseFromKey(view.scale);
    const auto bases = results::ratioBases(data, verdict);
    const bool columns = view.scale == sideBySide;
    if (!bases.empty() || data.conditions.size() > 1) p.add(scaleChoice(data, verdict, bases, view));
    if (base && std::find(bases.begin(), bases.end(), *base) != bases.end())
        p.add(ratioFigure(source, view, *base));
    else // drawn when it is shown: the verdict may be another by then
        p.add(Figure{
            "ladder",
            [source, metric, columns, selected = view.selected, fromZero = view.fromZero,
             &unit = methods::unitFor(*metric, view.units)](double width, double height) {
                const auto draw = columns ? chart::ladderColumns : chart::ladder;
                return draw(*source.study, source.verdict(metric), unit, width, selected, {height, fromZero});
            },
            fmt::format("Strength ladder: {}.", metric->noun)});
    if (auto two = words::sentences(data, verdict, results::baselinesOf(data, verdict)); !two.empty())
        p.add(Bullets{std::move(two), "baselines", true});
    if (sure) addSureness(p, source, verdict, *sure);
    Offers next{"followUps", {}, nothingNext(verdict)};
    for (const auto& f : plan::followUps(data, verdict, sure))
        next.offers.push_back(
            {f.sentence + " (" + plan::effortText(f) + ")",
             {{"planHere", "Plan it in this study", PlanMore{f.squares, f.more, false}},
              {"planApart", "Make it a study of its own", PlanMore{f.squares, f.more, true}}}});
    p.add(section("What next"));
    p.add(std::move(next));
    return p;
}

} // namespace anvil::pages
