#include <anvil/results/trends.h>

#include <anvil/quantity/unit.h>
#include <cmath>
#include <iterator>
#include <set>

namespace anvil::results {
namespace {

TrendVerdict judged(const TrendResult& t, double margin) {
    if (!t.slopeInterval) return TrendVerdict::cannotTell;
    const auto [low, high] = *t.slopeInterval;
    const double most = margin * std::abs(t.mean) / (t.to - t.from);
    if (low >= -most && high <= most) return TrendVerdict::flat;
    if (low > 0) return TrendVerdict::rising;
    return high < 0 ? TrendVerdict::falling : TrendVerdict::cannotTell;
}

} // namespace

const char* word(TrendVerdict verdict) {
    static constexpr const char* words[] = {"rising", "falling", "flat", "cannot_tell"};
    static_assert(std::size(words) == static_cast<std::size_t>(TrendVerdict::cannotTell) + 1);
    return words[static_cast<std::size_t>(verdict)];
}

double axisStep(const StudyData& data) {
    const auto unit = quantity::findUnit(data.study.plan.axisUnit);
    return unit ? (*unit)->toSi(1) - (*unit)->toSi(0) : 1;
}

std::vector<TrendResult> trendsOf(const StudyData& data, const Verdict& verdict) {
    std::vector<TrendResult> out;
    for (const auto& o : data.options) {
        std::vector<double> x, y;
        std::set<double> places;
        double sum = 0;
        for (const auto& c : data.conditions) {
            const auto* g = verdict.group(o.id, c.id);
            if (!c.value || !g) continue;
            for (const auto& v : g->values) {
                if (v.value.state != stats::State::exact) continue;
                x.push_back(*c.value);
                y.push_back(v.value.value);
                places.insert(*c.value);
                sum += v.value.value;
            }
        }
        if (places.size() < 3) continue;
        const auto line = stats::linearTrend(x, y);
        if (!line) continue;
        TrendResult t;
        t.option = o.id;
        t.points = x.size();
        t.from = *places.begin();
        t.to = *places.rbegin();
        t.line = *line;
        t.mean = sum / static_cast<double>(x.size());
        t.medianSlope = stats::medianSlope(x, y);
        const double half =
            stats::studentQuantile(static_cast<double>(x.size()) - 2, 0.975) * line->slopeError;
        if (std::isfinite(half)) t.slopeInterval = {line->slope - half, line->slope + half};
        t.verdict = judged(t, verdict.goal.margin);
        out.push_back(t);
    }
    return out;
}

} // namespace anvil::results
