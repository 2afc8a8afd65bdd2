#include "choices.h"

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/plan/follow_ups.h>
#include <anvil/words/sureness.h>
#include <anvil/words/verdict.h>
#include <fmt/format.h>

namespace anvil::pages {

namespace {

/// Who may yet be the best, and the values all of that hangs on.
void addSureness(Page& page, const domain::StudyData& data, const results::Verdict& verdict,
                 const results::Sureness& sure) {
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
    if (said.items.empty()) return;
    page.addBeside(Heading{3, "How sure"});
    page.addBeside(std::move(said));
}

/// What is said where nothing is proposed.
std::string nothingNext(const results::Verdict& verdict) {
    const bool open = std::any_of(verdict.pairs.begin(), verdict.pairs.end(), [&](const auto& p) {
        const auto told = p.comparison.verdict;
        return !p.acrossConditions && verdict.hasBoth(p) && told != stats::PairVerdict::stronger &&
               told != stats::PairVerdict::weaker && told != stats::PairVerdict::same;
    });
    return open ? "A difference that matters would have shown, but for pulls that say only bounds: what is "
                  "left "
                  "open is smaller than you care for, or waits for exact values."
                : "Nothing is too close to call; more pulls would only sharpen what is known.";
}

} // namespace

std::optional<Page> answer(const Source& source, const View& view) {
    const auto& data = *source.study;
    if (data.pulls.empty()) return {};
    const auto metric = metricOf(source, view);
    const auto& verdict = source.verdict(metric);
    Page p{"answer", data.study.title, {}};
    p.add(metricChoice(source, view));
    const auto* sure = source.sureness ? &source.sureness(metric) : nullptr;
    for (auto& line : words::headlines(data, verdict, sure))
        p.add(Paragraph{Paragraph::Style::lead, std::move(line)});
    // Drawn when it is shown: the verdict may be another by then.
    p.add(Figure{"ladder",
                 [source, metric, selected = view.selected, fromZero = view.fromZero,
                  &unit = methods::unitFor(*metric, view.units)](double width, double height) {
                     return chart::ladder(*source.study, source.verdict(metric), unit, width, selected,
                                          {height, fromZero});
                 },
                 fmt::format("Strength ladder: {}.", metric->noun)});
    if (sure) addSureness(p, data, verdict, *sure);
    Offers next{"followUps",
                {},
                {{"planHere", "Plan it in this study"}, {"planApart", "Make it a study of its own"}},
                nothingNext(verdict)};
    for (auto& followUp : plan::followUps(data, verdict))
        next.sentences.push_back(std::move(followUp.sentence));
    p.add(Heading{3, "What next"});
    p.add(std::move(next));
    return p;
}

} // namespace anvil::pages
