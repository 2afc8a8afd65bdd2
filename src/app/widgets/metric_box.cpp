#include "widgets/metric_box.h"

#include "shell/session.h"

#include <algorithm>
#include <anvil/results/evidence.h>

namespace anvil::app {

namespace {
QString keyOf(const domain::Metric& metric) { return qs(metric->key); }
} // namespace

void MetricBox::offer(const domain::StudyData* data) {
    m_offered = data ? results::metricsOf(*data) : domain::metricsOf({});
    bool same = count() == static_cast<int>(m_offered.size());
    for (int i = 0; same && i < count(); ++i)
        same = itemText(i) == qs(m_offered[static_cast<std::size_t>(i)]->title);
    if (same) return;
    const auto before = currentData();
    clear();
    for (const auto& m : m_offered)
        addItem(qs(m->title), keyOf(m));
    setCurrentIndex(std::max(0, findData(before)));
}

domain::Metric MetricBox::chosen() const {
    const auto at = static_cast<std::size_t>(std::max(0, currentIndex()));
    return at < m_offered.size() ? m_offered[at] : domain::Metric();
}

void MetricBox::choose(const domain::Metric& metric) {
    setCurrentIndex(std::max(0, findData(keyOf(metric))));
}

} // namespace anvil::app
