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
    if (!got.value || !other || got.value->state == stats::State::aside) return got;
    const int failed = pull.outcome.end;
    if (failed == (option == other ? 2 : 1)) return got;
    if (!metric->atEnd) return {std::nullopt, "its other end failed, so this was not seen of it", false};
    switch (got.value->state) {
    case stats::State::below: // the load at which the weaker end failed is not known well enough
        return {std::nullopt, "its other end failed below what could be read", false};
    case stats::State::between: // the lower bound is what both ends are known to have held
    case stats::State::exact:
        got.value->state = stats::State::above;
        got.value->upper = got.value->value;
        break;
    case stats::State::above:
    case stats::State::aside:
        break;
    }
    return got;
}

Standing standingAtEnd(const StudyData& data, const Pull& pull, const curve::Reading* reading,
                       const Specimen& piece, Id option) {
    const auto standing = standingOf(data, pull, reading);
    const auto other = otherEndOf(data, piece);
    if (!other || pull.outcome.end == (option == other ? 2 : 1)) return standing;
    switch (standing) {
    case Standing::counts:
    case Standing::between:
        return Standing::atLeast;
    case Standing::atMost:
        return Standing::notRead;
    case Standing::atLeast:
    case Standing::aside:
    case Standing::voided:
    case Standing::notRead:
        break;
    }
    return standing;
}

int jointsThatHeld(const StudyData& data, const Pull& pull, const Specimen& piece) {
    if (standingOf(data, pull, nullptr) != Standing::counts || otherEndOf(data, piece) != 0 ||
        pull.outcome.end == 0)
        return 0;
    return std::max(0, data.study.plan.joints - 1);
}

} // namespace anvil::results
