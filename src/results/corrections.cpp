#include <anvil/results/corrections.h>

#include <algorithm>
#include <cmath>

namespace anvil::results {
namespace {

std::optional<stats::Value> valueNow(const Results& results, const Pull& pull, const Metric& metric) {
    const auto* piece = results.data().specimen(pull.specimen);
    if (!piece) return {};
    return results.value({&pull, piece}, piece->option, metric).value;
}

bool same(const std::optional<stats::Value>& a, const std::optional<stats::Value>& b) {
    constexpr double rounding = 1e-9;
    if (!a || !b) return !a && !b;
    const auto close = [&](double x, double y) {
        return std::abs(x - y) <= rounding * std::max(std::abs(x), std::abs(y));
    };
    return a->bound == b->bound && a->aside == b->aside && close(a->value, b->value) &&
           (a->bound != stats::Bound::between || close(a->upper, b->upper));
}

} // namespace

std::vector<Corrected> correctionsOf(const Results& results, const Metric& metric) {
    std::vector<Corrected> out;
    const auto& telling = results.data().study.telling;
    const auto last = std::find_if(telling.publications.rbegin(), telling.publications.rend(),
                                   [&](const Publication& p) { return p.metric == metric->key; });
    if (last == telling.publications.rend()) return out;
    for (const auto& pull : results.data().pulls) {
        std::optional<stats::Value> was;
        for (const auto& v : last->values)
            if (v.pull == pull.id) was = stats::Value{v.value, v.bound, v.upper, v.aside};
        const bool isNew = !was && pull.performedAt > last->at;
        auto now = valueNow(results, pull, metric);
        if (isNew || same(was, now)) continue;
        Corrected c{pull.id, last->at, was, now, {}, {}};
        for (const auto& said : telling.corrections)
            if (said.pull == pull.id && said.at >= last->at) {
                c.why = said.why;
                c.at = said.at;
            }
        out.push_back(std::move(c));
    }
    return out;
}

Publication publicationOf(const Results& results, const Metric& metric, std::string at) {
    Publication p{std::move(at), std::string(metric->key), {}};
    for (const auto& pull : results.data().pulls)
        if (const auto v = valueNow(results, pull, metric))
            p.values.push_back({pull.id, v->value, v->bound == stats::Bound::between ? v->upper : v->value,
                                v->bound, v->aside});
    return p;
}

} // namespace anvil::results
