#include <anvil/results/pairs_that_matter.h>

#include <cstdlib>

namespace anvil::results {

bool matters(const Verdict& verdict, const PairResult& pair) {
    const auto &a = verdict.groups[pair.a], &b = verdict.groups[pair.b];
    if (pair.acrossConditions || a.rank == 1 || b.rank == 1) return true;
    if (const auto control = verdict.goal.control; control && (a.option == control || b.option == control))
        return true;
    return a.rank > 0 && b.rank > 0 && std::abs(a.rank - b.rank) <= 1;
}

std::vector<bool> pairsGiven(const Verdict& verdict, std::size_t options, bool all) {
    std::vector<bool> out;
    out.reserve(verdict.pairs.size());
    for (const auto& p : verdict.pairs)
        out.push_back(all || options <= mostOptionsInFull || matters(verdict, p));
    return out;
}

} // namespace anvil::results
