#include <anvil/results/treatment.h>

#include <anvil/stats/fit.h>
#include <anvil/stats/pooled.h>
#include <cmath>

namespace anvil::results {
namespace {

/// A square on logarithms. One with bounds by the log-normal fitted to it, for without the bounds it would
/// look weaker than it is; its weight is that of its exact values. Empty: nothing exact, or not positive.
std::optional<stats::LogGroup> logsOf(const Group* group) {
    if (!group || group->summary.n == 0) return std::nullopt;
    std::vector<stats::Value> values;
    std::vector<double> exact;
    for (const auto& v : group->values) {
        values.push_back(v.value);
        if (v.value.state == stats::State::exact) exact.push_back(v.value.value);
    }
    auto out = stats::logGroup(exact);
    if (!out || !group->summary.censored()) return out;
    const auto fit = stats::fit(stats::Family::lognormal, values);
    if (!fit) return std::nullopt;
    out->mean = fit->location;
    out->squares = static_cast<double>(out->n) * fit->scale * fit->scale;
    return out;
}

/// The comparison of an option's two conditions, as treated over control.
TreatmentResult::Of ratioOf(const Verdict& v, Id option, Id control, Id treated, double plain) {
    TreatmentResult::Of out{option, plain, {}};
    for (const auto& p : v.pairs) {
        const auto &a = v.groups[p.a], &b = v.groups[p.b];
        if (!p.acrossConditions || a.option != option || !p.comparison.ratio) continue;
        const bool forward = a.condition == treated && b.condition == control,
                   back = a.condition == control && b.condition == treated;
        if (!forward && !back) continue;
        out.ratio = forward ? *p.comparison.ratio : 1 / *p.comparison.ratio;
        if (const auto& i = p.comparison.ratioInterval)
            out.interval = forward ? *i : std::pair(1 / i->second, 1 / i->first);
    }
    return out;
}

} // namespace

std::vector<TreatmentResult> treatmentsOf(const StudyData& data, const Verdict& verdict) {
    std::vector<TreatmentResult> out;
    if (data.conditions.size() < 2) return out;
    const auto control = data.conditions.front().id;
    for (std::size_t c = 1; c < data.conditions.size(); ++c) {
        TreatmentResult result{control, data.conditions[c].id, {}, {}};
        std::vector<stats::TreatedPair> pairs;
        for (const auto& o : data.options) {
            const stats::TreatedPair pair{logsOf(verdict.group(o.id, control)),
                                          logsOf(verdict.group(o.id, result.treated))};
            if (!pair.control || !pair.treated) continue;
            result.options.push_back(ratioOf(verdict, o.id, control, result.treated,
                                             std::exp(pair.treated->mean - pair.control->mean)));
            pairs.push_back(pair);
        }
        if (pairs.size() < 2) continue;
        if (const auto pooled = stats::treatmentOf(pairs)) {
            result.pooled = *pooled;
            out.push_back(std::move(result));
        }
    }
    return out;
}

} // namespace anvil::results
