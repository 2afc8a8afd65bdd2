#include "choices.h"

#include <algorithm>
#include <anvil/words/verdict.h>
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

} // namespace

std::optional<Page> pairs(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto& verdict = source.verdict(metricOf(source, view));
    Bullets options{{}, "optionPairs"}, conditions{{}, "conditionPairs"};
    for (const auto* p : byWeight(verdict))
        (p->acrossConditions ? conditions : options).items.push_back(words::sentence(data, verdict, *p));
    if (options.items.empty() && conditions.items.empty()) return {};
    Page page{"pairs", data.study.title, {}};
    page.add(metricChoice(source, view));
    if (!options.items.empty()) {
        page.add(Heading{3, "Option against option"});
        page.add(std::move(options));
    }
    if (!conditions.items.empty()) {
        page.add(Heading{3, "Condition against condition"});
        page.add(std::move(conditions));
    }
    return page;
}

} // namespace anvil::pages
