#include <anvil/results/needs.h>

#include <algorithm>
#include <anvil/stats/counts.h>
#include <anvil/stats/density.h>
#include <anvil/stats/floors.h>
#include <cmath>
#include <iterator>

namespace anvil::results {
namespace {

constexpr double sure = 0.975;

std::vector<stats::Value> countedOf(const Group& group) {
    std::vector<stats::Value> out;
    for (const auto& v : group.values)
        if (!v.value.aside) out.push_back(v.value);
    return out;
}

/// P(at least the need) of average and next piece of a complete group.
void byStudent(NeedResult& r, const stats::Summary& s, double need) {
    if (s.n < 2 || !s.sd || !s.mean) return;
    const auto n = static_cast<double>(s.n);
    // Beside groups with bounds its typical value is a median; of a complete group the mean is as good a
    // word.
    const double off = *s.mean - need, spread = std::max(*s.sd, s.resolution / std::sqrt(3.0));
    if (spread == 0) { // no spread can be seen: the average is known to the reading's step
        if (std::abs(off) > s.doubt) r.meanMeets = r.nextMeets = off > 0 ? 1.0 : 0.0;
        return;
    }
    const auto chance = [&](double by, double scale) {
        return 1 - stats::studentUpperTail(n - 1, by / scale);
    };
    // What the readings are not sure of is taken off the difference before chance is asked.
    const double sureOff = off > 0 ? std::max(0.0, off - s.doubt) : std::min(0.0, off + s.doubt);
    r.meanMeets = chance(sureOff, spread / std::sqrt(n));
    r.nextMeets = chance(sureOff, spread * std::sqrt(1 + 1 / n));
}

/// P(the family's median is at least the need).
double medianAtLeast(const stats::Density& density, double need) {
    const auto family = density.fit().family;
    if (family != stats::Family::normal && !(need > 0)) return 1;
    return density.atLeast(family == stats::Family::weibull ? std::log(std::log(2.0)) : 0,
                           family == stats::Family::normal ? need : std::log(need));
}

NeedVerdict called(double least, double most) {
    return least >= sure      ? NeedVerdict::met
           : most <= 1 - sure ? NeedVerdict::notMet
                              : NeedVerdict::cannotTell;
}

/// With bounds the law is half of the answer: it is met, or not, only where every law says so.
void byLaws(NeedResult& r, const Goal& goal, const std::vector<stats::Value>& values, bool more) {
    double least = 1, most = 0;
    const double need = *goal.need;
    for (const auto family : {stats::Family::normal, stats::Family::lognormal, stats::Family::weibull}) {
        const auto density = stats::Density::of(family, values);
        if (!density) continue;
        const double above = medianAtLeast(*density, need), meets = more ? above : 1 - above;
        least = std::min(least, meets);
        most = std::max(most, meets);
        if (family != familyOf(goal)) continue;
        r.meanMeets = meets;
        r.nextMeets = more ? density->nextAtLeast(need) : 1 - density->nextAtLeast(need);
    }
    if (r.meanMeets) r.verdict = called(least, most);
}

/// Successes of tries against a rate, by the exact one-sided tests.
void byCounts(NeedResult& r, stats::Tally tally, double need, bool more) {
    if (tally.tries < 1 || !(need > 0 && need < 1)) return;
    const double reached = stats::asManySuccesses(tally, need), missed = stats::asFewSuccesses(tally, need);
    r.meanMeets = more ? 1 - reached : 1 - missed;
    r.nextMeets = (tally.successes + 1.0) / (tally.tries + 2.0); // Laplace's
    if (!more) r.nextMeets = 1 - *r.nextMeets;
    const double metP = more ? reached : missed, failedP = more ? missed : reached;
    r.verdict = metP <= 1 - sure      ? NeedVerdict::met
                : failedP <= 1 - sure ? NeedVerdict::notMet
                                      : NeedVerdict::cannotTell;
}

NeedResult against(const Verdict& verdict, std::size_t at) {
    const auto& goal = verdict.goal;
    const auto& group = verdict.groups[at];
    NeedResult r;
    r.group = at;
    const double need = *goal.need;
    const bool more = goal.sense == Sense::more;
    const auto values = countedOf(group);
    const auto& s = group.summary;
    if (goal.metric->scale == methods::Scale::counted) {
        if (group.tally) byCounts(r, *group.tally, need, more);
        return r;
    }
    const auto beyond = std::all_of(values.begin(), values.end(), [&](const stats::Value& v) {
        return more ? v.bound == stats::Bound::above && v.value >= need
                    : v.bound == stats::Bound::below && v.value <= need;
    });
    if (beyond && !values.empty()) {
        // A median on the wrong side of the need shows itself in each piece with a chance of a half.
        const auto k = static_cast<double>(values.size());
        r.allHeld = true;
        r.meanMeets = 1 - std::pow(0.5, k);
        r.nextMeets = (k + 1) / (k + 2);
        r.verdict = called(*r.meanMeets, *r.meanMeets);
        return r;
    }
    if (s.censored()) {
        byLaws(r, goal, values, more);
    } else {
        byStudent(r, s, need);
        if (!more) // what is wanted is less than the need
            for (auto* chance : {&r.meanMeets, &r.nextMeets})
                if (*chance) *chance = 1 - **chance;
        if (r.meanMeets) r.verdict = called(*r.meanMeets, *r.meanMeets);
    }
    if (more)
        if (const auto floor = stats::floorOf(floorLaw(verdict), values, 0.90, 0.95))
            r.floorMeets = *floor >= need;
    return r;
}

} // namespace

const char* word(NeedVerdict verdict) {
    static constexpr const char* words[] = {"met", "not_met", "cannot_tell"};
    static_assert(std::size(words) == static_cast<std::size_t>(NeedVerdict::cannotTell) + 1);
    return words[static_cast<std::size_t>(verdict)];
}

std::vector<NeedResult> needsOf(const Verdict& verdict) {
    std::vector<NeedResult> out;
    if (!verdict.goal.need || verdict.goal.sense == Sense::inside) return out;
    for (std::size_t i = 0; i < verdict.groups.size(); ++i)
        if (verdict.groups[i].summary.n > 0) out.push_back(against(verdict, i));
    return out;
}

} // namespace anvil::results
