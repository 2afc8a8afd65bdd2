// What counts, as one sentence whose words are choices: wanted, needed, enough, what matters, compared with
// what.
#pragma once

#include "widgets/panel.h"

class QComboBox;

namespace anvil::app {

class FittedEdit;
class FlowLayout;
class MetricBox;
class NumberBox;

class GoalSentence : public Panel {
    Q_OBJECT
public:
    explicit GoalSentence(Session& session, QWidget* parent = nullptr);

private:
    void makeGoal(FlowLayout* line);
    void followGoal();
    void makeStudy(FlowLayout* line);
    void fill() override;
    void fillGoal(const domain::Goal& goal);
    void saveGoal();
    void saveAxis();
    void save(const QString& what, const std::function<void(domain::Study&)>& change);
    void change(const QString& what, const std::function<void(domain::Goal&)>& change);
    MetricBox* m_metric;
    QComboBox *m_sense, *m_control, *m_intent;
    FittedEdit *m_part, *m_need, *m_ceiling, *m_low, *m_high, *m_title, *m_axis, *m_axisUnit;
    NumberBox* m_margin;
    QLabel *m_needed, *m_isNeeded, *m_from, *m_to;
};

} // namespace anvil::app
