#include <anvil/results/pairs_that_matter.h>
#include <anvil/results/sureness.h>

#include <algorithm>
#include <utility>

namespace anvil::results {
namespace {

/// The groups of a condition with the families of pairs that are corrected together.
class Around {
public:
    Around(const Verdict& verdict, Id condition)
        : m_verdict(verdict), m_members(verdict.inCondition(condition)) {
        for (const auto m : m_members)
            m_sides.emplace(m, verdict.groups[m].summary);
        for (std::size_t k = 0; k < verdict.pairs.size(); ++k) {
            const auto& p = verdict.pairs[k];
            if (p.acrossConditions || !m_sides.contains(p.a)) continue;
            auto& family = m_families[ofControl(p)];
            family.pairs.push_back(k);
            if (p.comparison.p) family.sorted.emplace_back(*p.comparison.p, k);
        }
        for (auto& [control, family] : m_families)
            std::sort(family.sorted.begin(), family.sorted.end());
    }
    const std::vector<std::size_t>& members() const { return m_members; }

    /// Who leads if this group had another summary; nothing if that is who leads anyway.
    std::optional<std::size_t> leaderWith(const Group& changed, std::size_t at) const {
        const auto group = [&](std::size_t i) -> const Group& {
            return i == at ? changed : m_verdict.groups[i];
        };
        auto leader = m_members.front();
        for (const auto i : m_members)
            if (comesBefore(m_verdict.goal, group(i), group(leader))) leader = i;
        const auto before = m_members.front();
        if (leader == before || (group(leader).enough && group(before).enough)) return std::nullopt;
        return leader;
    }
    /// The pairs of this group that would be called otherwise with another summary. Holm's steps run over all
    /// pairs of the family, of which only those of the group are compared anew.
    std::vector<Odd::Turned> turnedBy(const Group& changed, std::size_t at) const {
        std::vector<Odd::Turned> out;
        if (changed.summary.censored() || m_members.size() > mostOptionsInFull) return out;
        const stats::Side side(changed.summary);
        for (const auto& [control, family] : m_families) {
            std::vector<Redone> redone;
            for (const auto k : family.pairs)
                if (const auto& p = m_verdict.pairs[k]; isRedone(p, at))
                    redone.push_back({k, p.a == at ? stats::compare(side, m_sides.at(p.b), margin())
                                                   : stats::compare(m_sides.at(p.a), side, margin())});
            holm(family, at, redone);
            for (const auto& [pair, comparison] : redone) {
                const auto& p = m_verdict.pairs[pair];
                const auto& a = p.a == at ? changed : m_verdict.groups[p.a];
                const auto& b = p.b == at ? changed : m_verdict.groups[p.b];
                const auto now = stats::verdictOf(comparison, a.summary, b.summary);
                const bool alike = m_verdict.groups[p.a].enough && m_verdict.groups[p.b].enough;
                if (!alike && now != p.comparison.verdict && now != stats::PairVerdict::notEnough)
                    out.push_back({pair, now});
            }
        }
        return out;
    }

private:
    struct Family {
        std::vector<std::size_t> pairs;                     ///< of the verdict
        std::vector<std::pair<double, std::size_t>> sorted; ///< p and pair, of those that were tested
    };
    struct Redone {
        std::size_t pair;
        stats::Comparison comparison;
    };
    double margin() const { return m_verdict.goal.margin; }
    /// Fills pHolm of the redone pairs: their p among those of the family that stay.
    void holm(const Family& family, std::size_t at, std::vector<Redone>& redone) const {
        std::vector<std::pair<double, Redone*>> own;
        for (auto& r : redone)
            if (r.comparison.p) own.emplace_back(*r.comparison.p, &r);
        std::sort(own.begin(), own.end());
        std::size_t left = own.size();
        for (const auto& [p, pair] : family.sorted)
            left += !isRedone(m_verdict.pairs[pair], at);
        double running = 0;
        const auto step = [&](double p) {
            running = std::max(running, std::min(1.0, static_cast<double>(left--) * p));
        };
        auto next = own.begin();
        const auto takeUpTo = [&](double p) {
            for (; next != own.end() && next->first <= p; ++next) {
                step(next->first);
                next->second->comparison.pHolm = running;
            }
        };
        for (const auto& [p, pair] : family.sorted) {
            if (isRedone(m_verdict.pairs[pair], at)) continue;
            takeUpTo(p);
            step(p);
        }
        takeUpTo(1);
    }
    /// Paired within blocks no half is left without its other; drawn, it would have to be drawn again.
    static bool isRedone(const PairResult& p, std::size_t at) {
        return (p.a == at || p.b == at) && p.comparison.test == stats::PairTest::welch;
    }
    bool ofControl(const PairResult& p) const {
        const auto control = m_verdict.goal.control;
        return control &&
               (m_verdict.groups[p.a].option == control || m_verdict.groups[p.b].option == control);
    }

    const Verdict& m_verdict;
    std::vector<std::size_t> m_members;
    std::map<std::size_t, stats::Side> m_sides;
    std::map<bool, Family> m_families;
};

/// The values of a group but one.
std::vector<stats::Value> without(const Group& group, std::size_t left) {
    std::vector<stats::Value> out;
    for (std::size_t k = 0; k < group.values.size(); ++k)
        if (k != left) out.push_back(group.values[k].value);
    return out;
}

} // namespace

std::vector<Odd> oddOnesOut(const Results& results, const Verdict& verdict) {
    std::vector<Odd> out;
    if (verdict.goal.sense == Sense::inside || verdict.goal.metric->scale != methods::Scale::measured)
        return out;
    for (const auto& condition : results.data().conditions) {
        if (verdict.inCondition(condition.id).size() < 2) continue;
        Around around(verdict, condition.id);
        for (const auto i : around.members()) {
            const auto& group = verdict.groups[i];
            if (group.summary.n < 2) continue;
            Group changed;
            changed.option = group.option;
            changed.condition = group.condition;
            for (std::size_t k = 0; k < group.values.size(); ++k) {
                if (group.values[k].value.aside) continue;
                setSummary(verdict.goal, changed,
                           stats::summariseFast(without(group, k), familyOf(verdict.goal)));
                Odd odd{group.values[k].pull, group.values[k].specimen, condition.id,
                        around.leaderWith(changed, i), around.turnedBy(changed, i)};
                if (odd.leader || !odd.pairs.empty()) out.push_back(std::move(odd));
            }
        }
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const Odd& a, const Odd& b) { return a.leader.has_value() > b.leader.has_value(); });
    return out;
}

Sureness surenessOf(const Results& results, const Verdict& verdict) {
    Sureness out;
    for (const auto& condition : results.data().conditions)
        if (auto ranking = rankingOf(results.data(), verdict, condition.id))
            out.rankings.emplace(condition.id, std::move(*ranking));
    out.odd = oddOnesOut(results, verdict);
    return out;
}

const stats::DrawnPlace* Sureness::placeOf(const Verdict& verdict, std::size_t group) const {
    const auto at = rankings.find(verdict.groups[group].condition);
    if (at == rankings.end()) return nullptr;
    const auto& ranking = at->second;
    for (std::size_t k = 0; k < ranking.groups.size(); ++k)
        if (ranking.groups[k] == group) return &ranking.places[k];
    return nullptr;
}

} // namespace anvil::results
