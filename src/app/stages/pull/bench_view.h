// At the rig, for gloves: one large action for the space bar, digits for choices, the load in large figures.
#pragma once

#include "shell/session.h"
#include "shell/tones.h"
#include "shell/wakefulness.h"
#include <QElapsedTimer>
#include <QWidget>
#include <anvil/work/pull_flow.h>
#include <set>

class QGridLayout;
class QLabel;

namespace anvil::app {

class LiveCurve;

class BenchView : public QWidget {
    Q_OBJECT
public:
    explicit BenchView(Session& session, QWidget* parent = nullptr);
    const work::PullFlow& flow() const { return m_flow; }
    LiveCurve* curve() const { return m_curve; }

signals:
    void toned(anvil::app::Tone tone); ///< a tone was played

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void showEvent(QShowEvent* event) override;

private:
    void rigChanged();
    void studyChanged();
    void follow();
    void ended(const work::Live& live);
    void tick();
    void showStep();
    void carryOut(work::PullAction action);
    void accept();
    void propose();
    void sound(Tone tone);
    void flashNearLimit(bool near);
    QString channelText(const work::Live& live) const;
    const domain::Specimen* next() const;
    qint64 now() const { return m_clock.elapsed(); }

    Session& m_session;
    work::PullFlow m_flow;
    QElapsedTimer m_clock;
    Id m_setup = 0, m_piece = 0, m_pull = 0, m_study = 0;
    std::set<Id> m_skipped;
    std::vector<domain::Mark> m_marks;
    Wakefulness m_awake;
    work::Live m_atStart; ///< when the present recording began
    bool m_lit = false;
    std::uint64_t m_nearTimes = 0; ///< how many of its warnings have been sounded
    work::PullStep m_shown = work::PullStep::noRig;
    QLabel *m_load, *m_peak, *m_rate, *m_channels, *m_specimen, *m_sentence, *m_action;
    QWidget* m_choices;
    QGridLayout* m_grid;
    LiveCurve* m_curve;
};

} // namespace anvil::app
