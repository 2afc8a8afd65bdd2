#include <anvil/words/sureness.h>

#include <algorithm>
#include <anvil/words/size.h>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <numeric>

namespace anvil::words {

using stats::PairVerdict;
using namespace domain;
using namespace results;

namespace {

/// "would be too close to call" and the like: of the first against the second.
std::string wouldBe(PairVerdict verdict, const std::string& a, const std::string& b) {
    switch (verdict) {
    case PairVerdict::stronger:
        return fmt::format("{} would be ahead of {}", a, b);
    case PairVerdict::weaker:
        return fmt::format("{} would be ahead of {}", b, a);
    case PairVerdict::same:
        return fmt::format("{} and {} would be the same within the margin", a, b);
    case PairVerdict::tooClose:
    case PairVerdict::notEnough:
    case PairVerdict::notYet:
        break;
    }
    return fmt::format("{} against {} would be too close to call", a, b);
}

/// What would be otherwise, without saying without which.
std::string otherwise(const StudyData& data, const Verdict& v, const Odd& odd) {
    const auto name = [&](std::size_t group) { return data.optionAt(v.groups[group].option).name; };
    std::string what;
    if (odd.leader) what = fmt::format("{} would lead", name(*odd.leader));
    constexpr std::size_t most = 2; // named one by one
    for (std::size_t k = 0; k < std::min(most, odd.pairs.size()); ++k) {
        const auto& p = v.pairs[odd.pairs[k].pair];
        what += (what.empty() ? "" : ", and ") + wouldBe(odd.pairs[k].now, name(p.a), name(p.b));
    }
    if (odd.pairs.size() > most)
        what += fmt::format(", and {} more would be called otherwise", odd.pairs.size() - most);
    const auto in =
        data.conditions.size() > 1 ? " in " + data.conditionAt(odd.condition).name : std::string();
    return what + in + ".";
}

} // namespace

std::string sentence(const StudyData& data, const Verdict& v, const Odd& odd) {
    return fmt::format("Without {} {}", data.specimenAt(odd.specimen).label, otherwise(data, v, odd));
}

std::vector<std::string> sentences(const StudyData& data, const Verdict& v, const std::vector<Odd>& odd) {
    std::vector<std::pair<std::string, std::vector<std::string>>> alike; // what, and without which
    for (const auto& o : odd) {
        const auto what = otherwise(data, v, o);
        auto at = std::find_if(alike.begin(), alike.end(), [&](const auto& a) { return a.first == what; });
        if (at == alike.end()) at = alike.insert(at, {what, {}});
        at->second.push_back(data.specimenAt(o.specimen).label);
    }
    std::vector<std::string> out;
    out.reserve(alike.size());
    for (const auto& [what, labels] : alike)
        out.push_back(fmt::format("Without {}{} {}", labels.size() > 1 ? "any one of " : "",
                                  fmt::join(labels, ", "), what));
    return out;
}

std::string chances(const StudyData& data, const Verdict& v, const Sureness& sure,
                    const Condition& condition) {
    const auto at = sure.rankings.find(condition.id);
    if (at == sure.rankings.end() || at->second.groups.size() < 2) return {};
    const auto& ranking = at->second;
    constexpr double faint = 0.005;
    constexpr std::size_t most = 3;
    std::string text;
    std::size_t told = 0;
    std::vector<std::size_t> order(ranking.groups.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return ranking.places[a].best > ranking.places[b].best;
    });
    for (const auto k : order) {
        if (told == most) break;
        const auto& place = ranking.places[k];
        if (told > 0 && place.best < faint) continue;
        text +=
            fmt::format("{}{} {}{}", told ? ", " : "", data.optionAt(v.groups[ranking.groups[k]].option).name,
                        place.atLeast ? "at least " : "", chanceText(place.best));
        ++told;
    }
    return fmt::format("Chance to be the best{}: {}.",
                       data.conditions.size() > 1 ? ", " + condition.name : std::string(), text);
}

} // namespace anvil::words
