#include <anvil/domain/metric.h>

#include <stdexcept>
#include <string>

namespace anvil::domain {

Metric::Metric() : Metric(metric("peak")) {}

std::optional<Metric> metricFromKey(std::string_view key, std::string_view method) {
    const auto* row = methods::findMetric(key, methods::find(method));
    return row ? std::optional(Metric(*row)) : std::nullopt;
}

Metric metric(std::string_view key) {
    const auto found = metricFromKey(key);
    if (!found) throw std::logic_error("no metric has the key \"" + std::string(key) + "\"");
    return *found;
}

std::vector<Metric> metricsOf(std::string_view method) {
    const auto* m = methods::find(method);
    if (!m) m = methods::find("axial-pull");
    return {m->metrics.begin(), m->metrics.end()};
}

} // namespace anvil::domain
