// Curves: one curve with landmarks to move and the numbers beside it, or many: the replicates of a square
// laid over each other, their average, every option beside the others.
#pragma once

#include "widgets/panel.h"
#include <anvil/pages/page.h>
#include <anvil/project/open_project.h>

class QButtonGroup;
class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace anvil::app {

class CurveView;
class PictureView;

class CurvesStage : public Panel {
    Q_OBJECT
public:
    explicit CurvesStage(Session& session, QWidget* parent = nullptr);
    CurveView* view() const { return m_view; }

signals:
    void importWanted();

private:
    enum class Shows { pull, square, average, options };
    QLayout* makeTop();
    QLayout* makeBottom();
    void fill() override;
    void fillPull(const domain::StudyData& data, const domain::Pull& pull);
    void fillSquare(const domain::StudyData& data, const domain::Pull& pull);
    void fillAverage(const domain::StudyData& data, const domain::Pull& pull);
    void fillOptions(const domain::StudyData& data, const domain::Pull& pull);
    void fillChoices(const domain::StudyData& data, const domain::Specimen& piece);
    void showRemark(const QString& text);
    void fillNumbers(const curve::ReadCurve& curve, const domain::Pull& pull,
                     const std::vector<curve::Channel>& beside);
    void drawRate();
    void holdHere();
    Shows m_shows = Shows::pull;
    QLabel *m_title, *m_remark, *m_hint;
    CurveView* m_view;
    PictureView *m_rate, *m_many;
    QTableWidget* m_numbers;
    QButtonGroup* m_views;
    QComboBox *m_along, *m_against;
    QPushButton *m_logged, *m_clear, *m_next, *m_noSlip, *m_import, *m_how, *m_hold;
    chart::RateStrip m_strip;
};

} // namespace anvil::app
