#include <anvil/results/ends.h>

#include <algorithm>

namespace anvil::results {

MetricValue valueAtEnd(const StudyData& data, const Pull& pull, const Specimen& piece, Id option,
                       const curve::Reading* reading, Metric metric) {
    return atEnd(data, pull, piece, option, metric, valueOf(data, pull, reading, metric));
}

MetricValue atEnd(const StudyData& data, const Pull& pull, const Specimen& piece, Id option,
                  const Metric& metric, MetricValue got) {
    const auto other = otherEndOf(data, piece);
    if (!got.value || !other || got.value->aside) return got;
    const int failed = pull.outcome.end;
    if (failed == (option == other ? 2 : 1)) return got;
    if (!metric->atEnd) return {std::nullopt, "its other end failed, so this was not seen of it", false};
    switch (got.value->bound) {
    case stats::Bound::below: // the load at which the weaker end failed is not known well enough
        return {std::nullopt, "its other end failed below what could be read", false};
    case stats::Bound::between: // the lower bound is what both ends are known to have held
    case stats::Bound::exact:
        got.value->bound = stats::Bound::above;
        got.value->upper = got.value->value;
        break;
    case stats::Bound::above:
        break;
    }
    return got;
}

Standing standingAtEnd(const StudyData& data, const Pull& pull, const curve::Reading* reading,
                       const Specimen& piece, Id option) {
    const auto standing = standingOf(data, pull, reading);
    const auto other = otherEndOf(data, piece);
    if (!other || pull.outcome.end == (option == other ? 2 : 1)) return standing;
    if (standing.taken != domain::Taken::counts) return standing;
    return standing.bound == stats::Bound::below ? Standing::notRead : Standing::atLeast;
}

int jointsThatHeld(const StudyData& data, const Pull& pull, const Specimen& piece) {
    if (standingOf(data, pull, nullptr) != Standing::counts || otherEndOf(data, piece) != 0 ||
        pull.outcome.end == 0)
        return 0;
    return std::max(0, data.study.plan.joints - 1);
}

} // namespace anvil::results
