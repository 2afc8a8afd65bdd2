// The metrics a study's method offers, to choose from.
#pragma once

#include <QComboBox>
#include <anvil/domain/model.h>

namespace anvil::app {

class MetricBox : public QComboBox {
    Q_OBJECT
public:
    using QComboBox::QComboBox;
    /// Offers what the study's method tells, and what decides in it; without a study what a force curve
    /// tells.
    void offer(const domain::StudyData* data);
    domain::Metric chosen() const;
    void choose(const domain::Metric& metric);

private:
    std::vector<domain::Metric> m_offered;
};

} // namespace anvil::app
