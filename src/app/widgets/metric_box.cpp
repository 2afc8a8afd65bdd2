#include "widgets/metric_box.h"

#include <algorithm>
#include <anvil/study/entries.h>

namespace anvil::app {

void MetricBox::offer(const study::StudyData* data) {
    auto metrics = study::metricsOf(data ? data->study.plan.method : std::string());
    if (data && std::find(metrics.begin(), metrics.end(), data->study.goal.metric) == metrics.end())
        metrics.push_back(data->study.goal.metric);
    bool same = count() == static_cast<int>(metrics.size());
    for (int i = 0; same && i < count(); ++i)
        same = itemData(i).toInt() == static_cast<int>(metrics[static_cast<std::size_t>(i)]);
    if (same) return;
    const auto before = currentData();
    clear();
    for (const auto m : metrics)
        addItem(QString::fromUtf8(study::info(m).title), static_cast<int>(m));
    setCurrentIndex(std::max(0, findData(before)));
}

} // namespace anvil::app
