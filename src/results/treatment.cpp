#include <anvil/results/treatment.h>

#include <algorithm>
#include <anvil/stats/censored_line.h>
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
        if (v.value.exact()) exact.push_back(v.value.value);
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
        if (const auto i = stats::overPair(p.comparison))
            out.interval = forward ? *i : std::pair(1 / i->second, 1 / i->first);
    }
    return out;
}

/// The values of both squares as rows of ln y = option + treatment; false where one is not positive.
bool addRows(std::vector<stats::ModelRow>& rows, const Group& group, std::size_t option, bool treated) {
    for (const auto& v : group.values) {
        if (v.value.aside) continue;
        if (!(v.value.value > 0)) return false;
        auto y = v.value;
        y.upper = y.bound == stats::Bound::between ? std::log(y.upper) : std::log(y.value);
        y.value = std::log(y.value);
        stats::ModelRow row{std::vector<double>(option + 2, 0), y};
        row.x[0] = treated;
        row.x[option + 1] = 1;
        rows.push_back(std::move(row));
    }
    return true;
}

/// With bounds: the additive model of logarithms with one spread, fitted to all values, so that no square is
/// dropped.
std::optional<stats::Treatment>
withBounds(const std::vector<std::pair<const Group*, const Group*>>& squares) {
    std::vector<stats::ModelRow> rows;
    for (std::size_t k = 0; k < squares.size(); ++k)
        if (!addRows(rows, *squares[k].first, k, false) || !addRows(rows, *squares[k].second, k, true))
            return std::nullopt;
    for (auto& r : rows)
        r.x.resize(squares.size() + 1, 0);
    const auto fit = stats::fitModel(rows);
    if (!fit) return std::nullopt;
    stats::Treatment out;
    out.options = squares.size();
    out.df = fit->df;
    out.ratio = std::exp(fit->coefficients[0]);
    if (const auto ends = fit->interval(0))
        out.ratioInterval = {std::exp(ends->first), std::exp(ends->second)};
    out.p = fit->p(0);
    return out;
}

bool hasExact(const Group& g) {
    return std::any_of(g.values.begin(), g.values.end(), [](const GroupValue& v) { return v.value.exact(); });
}

} // namespace

std::vector<TreatmentResult> treatmentsOf(const StudyData& data, const Verdict& verdict) {
    std::vector<TreatmentResult> out;
    if (data.conditions.size() < 2) return out;
    const auto control = data.conditions.front().id;
    for (std::size_t c = 1; c < data.conditions.size(); ++c) {
        TreatmentResult result{control, data.conditions[c].id, {}, {}};
        std::vector<stats::TreatedPair> pairs;
        std::vector<std::pair<const Group*, const Group*>> squares;
        bool bounds = false;
        for (const auto& o : data.options) {
            const auto *before = verdict.group(o.id, control), *after = verdict.group(o.id, result.treated);
            // Of bounds on both sides nobody knows where the option stands.
            if (before && after && before->summary.n > 0 && after->summary.n > 0 &&
                (hasExact(*before) || hasExact(*after))) {
                squares.emplace_back(before, after);
                bounds = bounds || before->summary.censored() || after->summary.censored();
            }
            const stats::TreatedPair pair{logsOf(verdict.group(o.id, control)),
                                          logsOf(verdict.group(o.id, result.treated))};
            if (!pair.control ||
                !pair.treated) { // of bounds on a side there is the ratio that was drawn, if any
                if (auto drawn = ratioOf(verdict, o.id, control, result.treated, 0); drawn.ratio > 0)
                    result.options.push_back(std::move(drawn));
                continue;
            }
            result.options.push_back(ratioOf(verdict, o.id, control, result.treated,
                                             std::exp(pair.treated->mean - pair.control->mean)));
            pairs.push_back(pair);
        }
        if (squares.size() < 2) continue;
        auto pooled = bounds ? withBounds(squares) : std::nullopt;
        if (!pooled && pairs.size() < 2) continue;
        if (!pooled) pooled = stats::treatmentOf(pairs);
        if (pooled) {
            result.pooled = *pooled;
            out.push_back(std::move(result));
        }
    }
    return out;
}

} // namespace anvil::results
