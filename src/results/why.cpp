#include <anvil/results/why.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace anvil::results {
namespace {

using Names = std::set<std::string>;

const Pull* pullOf(const StudyData& data, const GroupValue& v) { return data.pull(v.pull); }

std::string listed(const Names& names) {
    std::string out;
    for (const auto& n : names)
        out += (out.empty() ? "" : ", ") + n;
    return out;
}

template <class F> Names namesOf(const StudyData& data, const Group& g, const F& name) {
    Names out;
    for (const auto& v : g.values)
        if (const auto* pull = pullOf(data, v))
            if (auto text = name(*pull, data.specimenAt(v.specimen)); !text.empty())
                out.insert(std::move(text));
    return out;
}

/// Both are known, and have nothing in common.
bool apart(const Names& a, const Names& b) {
    return !a.empty() && !b.empty() &&
           std::none_of(a.begin(), a.end(), [&](const std::string& x) { return b.contains(x); });
}

std::optional<double> medianRate(const Results& results, const Group& g) {
    std::vector<double> rates;
    for (const auto& v : g.values)
        if (const auto* r = results.readings().find(v.pull); r && r->travelRate)
            rates.push_back(*r->travelRate);
    if (rates.empty()) return {};
    const auto middle = rates.begin() + static_cast<std::ptrdiff_t>(rates.size() / 2);
    std::nth_element(rates.begin(), middle, rates.end());
    return *middle;
}

stats::Summary withAside(const Group& g, std::size_t& aside) {
    std::vector<stats::Value> values;
    values.reserve(g.values.size());
    for (auto v : g.values) {
        if (v.value.aside) {
            ++aside;
            v.value.aside = false;
        }
        values.push_back(v.value);
    }
    return stats::summarise(values);
}

std::vector<BrokeCount> brokeOf(const StudyData& data, const Group& a, const Group& b) {
    std::map<std::string, BrokeCount> counts;
    const auto count = [&](const Group& g, std::size_t BrokeCount::*side) {
        for (const auto& v : g.values)
            if (const auto* pull = pullOf(data, v); pull && !v.value.aside) {
                auto& c = counts[pull->outcome.part];
                c.part = pull->outcome.part;
                ++(c.*side);
            }
    };
    count(a, &BrokeCount::a);
    count(b, &BrokeCount::b);
    std::vector<BrokeCount> out;
    for (auto& [part, c] : counts)
        out.push_back(std::move(c));
    if (out.size() == 1 && out[0].part.empty()) out.clear(); // nobody ever said
    std::stable_sort(out.begin(), out.end(),
                     [](const BrokeCount& x, const BrokeCount& y) { return x.a + x.b > y.a + y.b; });
    return out;
}

} // namespace

std::vector<Differed> differedOf(const Results& results, const Group& a, const Group& b) {
    constexpr double muchFaster = 1.25;
    const auto& data = results.data();
    std::vector<Differed> out;
    const auto compare = [&](Differed::What what, const auto& name) {
        const auto left = namesOf(data, a, name), right = namesOf(data, b, name);
        if (apart(left, right)) out.push_back({what, listed(left), listed(right)});
    };
    compare(Differed::What::batch, [](const Pull&, const Specimen& s) { return s.batch; });
    compare(Differed::What::day, [](const Pull& p, const Specimen&) {
        return p.performedAt.size() >= 10 ? p.performedAt.substr(0, 10) : std::string();
    });
    compare(Differed::What::operatorName, [](const Pull& p, const Specimen&) { return p.operatorName; });
    compare(Differed::What::rig,
            [](const Pull& p, const Specimen&) { return p.setup ? std::to_string(p.setup) : std::string(); });
    const auto left = medianRate(results, a), right = medianRate(results, b);
    if (left && right && *left > 0 && *right > 0)
        if (const double factor = *left / *right; factor >= muchFaster || factor <= 1 / muchFaster)
            out.push_back({Differed::What::speed, "", "", factor});
    return out;
}

std::optional<Why> whyOf(const Results& results, const Verdict& verdict, std::size_t a, std::size_t b) {
    const auto pair = std::find_if(verdict.pairs.begin(), verdict.pairs.end(), [&](const PairResult& p) {
        return (p.a == a && p.b == b) || (p.a == b && p.b == a);
    });
    if (pair == verdict.pairs.end()) return {};
    const auto &left = verdict.groups[pair->a], &right = verdict.groups[pair->b];
    Why why;
    why.a = pair->a;
    why.b = pair->b;
    why.acrossConditions = pair->acrossConditions;
    why.comparison = pair->comparison;
    why.broke = brokeOf(results.data(), left, right);
    why.differed = differedOf(results, left, right);
    const auto x = withAside(left, why.asideA), y = withAside(right, why.asideB);
    if (why.asideA + why.asideB > 0 && !x.censored() && !y.censored()) {
        auto c = stats::compare(x, y, verdict.goal.margin);
        c.pHolm = c.p; // alone: its family is another one
        c.verdict = stats::verdictOf(c, x, y);
        why.withAside = std::move(c);
    }
    return why;
}

} // namespace anvil::results
