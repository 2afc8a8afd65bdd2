// The question in one sentence, and what is asked of the study as a whole.
#pragma once

#include "widgets/panel.h"

class QComboBox;
class QDoubleSpinBox;

namespace anvil::app {

class MetricBox;

class StudyFields : public Panel {
    Q_OBJECT
public:
    explicit StudyFields(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void save(const QString& what, const std::function<void(domain::Study&)>& change);
    void saveAxis();
    QLineEdit *m_question, *m_title, *m_axis, *m_axisUnit;
    MetricBox* m_metric;
    QComboBox *m_intent, *m_control;
    QDoubleSpinBox* m_margin;
};

} // namespace anvil::app
