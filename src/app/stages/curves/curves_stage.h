// Curves: one curve with landmarks to move and the numbers beside it, or all replicates of a square laid over
// each other.
#pragma once

#include "widgets/panel.h"
#include <anvil/work/open_project.h>

class QLabel;
class QPushButton;
class QTableWidget;
class QStackedWidget;

namespace anvil::app {

class CurveView;

class CurvesStage : public Panel {
    Q_OBJECT
public:
    explicit CurvesStage(Session& session, QWidget* parent = nullptr);
    CurveView* view() const { return m_view; }

signals:
    void importWanted();

private:
    void fill() override;
    void fillNumbers(const curve::ReadCurve& curve, const domain::Pull& pull);
    bool m_overlay = false;
    QLabel *m_title, *m_remark, *m_hint;
    CurveView* m_view;
    QTableWidget* m_numbers;
    QPushButton *m_one, *m_all, *m_clear, *m_next, *m_noSlip, *m_import;
};

} // namespace anvil::app
