// At the rig, for gloves: one large action for the space bar, digits for choices, the load in large figures.
#pragma once

#include "shell/session.h"
#include "shell/tones.h"
#include "shell/wakefulness.h"
#include <QElapsedTimer>
#include <QWidget>
#include <anvil/station/pull_run.h>

class QGridLayout;
class QLabel;

namespace anvil::app {

class LiveCurve;
class PictureView;

class BenchView : public QWidget {
    Q_OBJECT
public:
    explicit BenchView(Session& session, QWidget* parent = nullptr);
    const station::PullFlow& flow() const { return m_run.flow(); }
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
    void heard(const station::Event& event);
    void tick();
    void showStep();
    void showChoices();
    void carryOut(station::PullAction action);
    void arm();
    void accept();
    void sound(Tone tone);
    void flashNearLimit(bool near);
    void drawLegs(const station::Live& live);
    QString channelText(const station::Live& live) const;
    QString rateText(const station::Live& live) const;
    qint64 now() const { return m_clock.elapsed(); }

    Session& m_session;
    station::PullRun m_run;
    QElapsedTimer m_clock;
    Wakefulness m_awake;
    bool m_lit = false;
    station::PullStep m_shown = station::PullStep::noRig;
    QLabel *m_load, *m_peak, *m_rate, *m_channels, *m_specimen, *m_sentence, *m_action;
    QWidget* m_choices;
    QGridLayout* m_grid;
    LiveCurve* m_curve;
    PictureView* m_legs; ///< how legs share the load now
    qint64 m_legsDrawn = 0;
};

} // namespace anvil::app
