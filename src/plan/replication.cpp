#include <anvil/plan/replication.h>

#include <algorithm>
#include <anvil/methods/piece_kind.h>
#include <anvil/plan/timetable.h>
#include <cmath>
#include <map>
#include <set>

namespace anvil::plan {

using namespace domain;
using namespace results;

std::vector<Replication> schools(double cv, int planned) {
    static const std::map<int, const char*> words{
        {1, "a look: shows that it works and about how strong; says nothing about spread"},
        {2, "repeatability: shows whether two agree; too few to compare anything"},
        {3, "three and average: sees large differences only"},
        {5,
         "five and a floor: sees fair differences; mean − 3 s of five is a guess at a floor, not a promise"},
        {7, "seven, highest and lowest dropped: one odd pull no longer decides"},
        {10, "ten: small differences, and a floor worth quoting"}};
    std::vector<Replication> out;
    const auto add = [&](int n, const std::string& school) {
        out.push_back({n, stats::detectableDifference(n, cv), school});
    };
    for (const auto& [n, school] : words) {
        if (planned > 0 && !words.contains(planned) && planned < n && (out.empty() || out.back().n < planned))
            add(planned, "as planned");
        add(n, school);
    }
    if (planned > 10) add(planned, "as planned");
    return out;
}

double defaultCv(const std::string& kind) { return methods::pieceKind(kind).cv; }

std::optional<double> ownCv(const Verdict& verdict) {
    double sum = 0, weight = 0;
    int groups = 0;
    for (const auto& g : verdict.groups)
        if (g.summary.cv && !g.summary.censored() &&
            g.summary.n >= 2) { // that of a fit is too small from few
            const auto w = static_cast<double>(g.summary.n - 1);
            sum += w * *g.summary.cv * *g.summary.cv;
            weight += w;
            ++groups;
        }
    return groups >= 2 && weight > 0 ? std::optional(std::sqrt(sum / weight)) : std::nullopt;
}

PlanTotals totals(const StudyData& data) {
    PlanTotals t;
    double cost = 0;
    bool priced = !data.options.empty();
    for (const auto& o : data.options)
        for (const auto& c : data.conditions) {
            const int n = data.study.plan.replicatesOf(o.id, c.id);
            t.squares += n > 0;
            t.replicates += n;
            if (n > 0 && !o.unitCost) priced = false;
            cost += n * o.unitCost.value_or(0);
            if (!o.currency.empty()) t.currency = o.currency;
        }
    std::set<Id> done;
    for (const auto& p : data.pulls)
        done.insert(p.specimen);
    t.pulled = static_cast<int>(done.size());
    t.pulling = 60 * data.study.plan.minutesEach * t.replicates;
    if (const auto steps = timetable(data.study.plan.recipe, 0, {}, 0); steps && !steps->empty())
        t.preparation = static_cast<double>(finished(*steps, 0));
    if (priced && t.replicates > 0) t.cost = cost;
    return t;
}

std::vector<StockLine> stock(const StudyData& data) {
    std::vector<StockLine> out;
    for (const auto& o : data.options) {
        StockLine line{o.name, 0, 0, o.unitCost, std::nullopt, o.currency, o.supply};
        for (const auto& c : data.conditions)
            line.needed += data.study.plan.replicatesOf(o.id, c.id);
        for (const auto& s : data.specimens)
            line.made += s.option == o.id;
        if (o.unitCost) line.cost = *o.unitCost * line.needed;
        if (line.needed > 0) out.push_back(std::move(line));
    }
    std::map<std::string, int> products;
    for (const auto& step : data.study.plan.recipe)
        if (!step.product.empty())
            products[step.product] += totals(data).replicates * std::max(1, step.repeat);
    for (const auto& [product, n] : products)
        out.push_back({product + " (doses)", n, 0, std::nullopt, std::nullopt, {}});
    return out;
}

} // namespace anvil::plan
