#include <anvil/results/needs.h>

#include <algorithm>
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
        if (v.value.state != stats::State::aside) out.push_back(v.value);
    return out;
}

/// P(at least the need) of mean and next piece of a complete group.
void byStudent(NeedResult& r, const stats::Summary& s, double need) {
    if (s.n < 2 || !s.sd) return;
    const auto n = static_cast<double>(s.n);
    const double off = *s.mean - need;
    if (*s.sd == 0) { // no spread can be seen: the mean is known to the reading's step
        if (off != 0) r.meanMeets = r.nextMeets = off > 0 ? 1.0 : 0.0;
        return;
    }
    const auto chance = [&](double scale) { return 1 - stats::studentUpperTail(n - 1, off / scale); };
    r.meanMeets = chance(*s.sd / std::sqrt(n));
    r.nextMeets = chance(*s.sd * std::sqrt(1 + 1 / n));
}

NeedResult against(const Group& group, std::size_t at, const Goal& goal) {
    NeedResult r;
    r.group = at;
    const double need = *goal.need;
    const bool more = goal.sense == Sense::more;
    const auto values = countedOf(group);
    const auto& s = group.summary;
    const auto beyond = std::all_of(values.begin(), values.end(), [&](const stats::Value& v) {
        return v.state == stats::State::above && v.value >= need;
    });
    if (more && beyond && !values.empty()) {
        const auto n = static_cast<double>(values.size());
        r.allHeld = true;
        r.nextMeets = (n + 1) / (n + 2);
        if (values.size() >= 3) r.verdict = NeedVerdict::met;
        return r;
    }
    if (!s.censored()) {
        byStudent(r, s, need);
    } else if (const auto density = stats::Density::of(familyOf(goal), values)) {
        r.meanMeets = density->meanAtLeast(need);
        r.nextMeets = density->nextAtLeast(need);
    }
    if (!more) // what is wanted is less than the need
        for (auto* chance : {&r.meanMeets, &r.nextMeets})
            if (*chance) *chance = 1 - **chance;
    if (r.meanMeets)
        r.verdict = *r.meanMeets >= sure       ? NeedVerdict::met
                    : *r.meanMeets <= 1 - sure ? NeedVerdict::notMet
                                               : NeedVerdict::cannotTell;
    if (more)
        if (const auto floor = stats::floorOf(stats::Family::normal, values, 0.90, 0.95))
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
        if (verdict.groups[i].summary.n > 0) out.push_back(against(verdict.groups[i], i, verdict.goal));
    return out;
}

} // namespace anvil::results
