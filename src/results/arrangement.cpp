#include <anvil/results/arrangement.h>

#include <algorithm>

namespace anvil::results {
namespace {

/// What a pair says of `a` over `b`, whichever way round it stands.
std::optional<std::pair<double, double>> ratioInterval(const Verdict& verdict, Id a, Id b, Id condition) {
    for (const auto& pair : verdict.pairs) {
        const auto &x = verdict.groups[pair.a], &y = verdict.groups[pair.b];
        const bool forward = x.option == a && y.option == b, back = x.option == b && y.option == a;
        if (x.condition != condition || y.condition != condition || (!forward && !back)) continue;
        const auto ends = stats::overPair(pair.comparison);
        if (ends && forward) return ends;
        if (ends && ends->first > 0) return std::pair{1 / ends->second, 1 / ends->first};
    }
    return std::nullopt;
}

bool exact(const Group& g) { return g.summary.typical && !g.summary.censored() && *g.summary.typical > 0; }

} // namespace

std::vector<Arranged> arrangedOf(const StudyData& data, const Verdict& verdict) {
    std::vector<Arranged> out;
    if (verdict.goal.metric->dimension != quantity::Dimension::force) return out;
    for (const auto& said : data.study.plan.arrangements)
        for (const auto& c : data.conditions) {
            const auto* own = verdict.group(said.option, c.id);
            const auto* plain = verdict.group(said.base, c.id);
            const auto* base = data.option(said.base);
            if (!own || !exact(*own) || !base || !(said.factor > 0)) continue;
            Arranged one{said, c.id, *own->summary.typical, {}, {}, false};
            if (base->rating && *base->rating > 0) {
                const double predicted = said.factor * *base->rating;
                one.byRating = AgainstPromise{predicted, one.mean / predicted, {}};
                if (const auto& i = own->summary.typicalInterval)
                    one.byRating->interval = std::pair{i->first / predicted, i->second / predicted};
            }
            if (plain && exact(*plain)) {
                const double predicted = said.factor * *plain->summary.typical;
                one.byMeasured = AgainstPromise{predicted, one.mean / predicted, {}};
                if (const auto i = ratioInterval(verdict, said.option, said.base, c.id))
                    one.byMeasured->interval = std::pair{i->first / said.factor, i->second / said.factor};
            }
            // Only where both are sure of their side: 101 % against 100 % turns nothing round.
            const auto side = [](const std::optional<AgainstPromise>& p) {
                return !p || !p->interval ? 0 : p->interval->first > 1 ? 1 : p->interval->second < 1 ? -1 : 0;
            };
            one.turnsRound = side(one.byRating) * side(one.byMeasured) < 0;
            out.push_back(one);
        }
    return out;
}

} // namespace anvil::results
