#include "shell/due_watch.h"

#include <QTimer>
#include <anvil/plan/next.h>
#include <anvil/plan/reach.h>
#include <anvil/plan/timetable.h>

namespace anvil::app {

DueWatch::DueWatch(Session& session) : m_session(session) {
    auto* timer = new QTimer(this);
    connect(timer, &QTimer::timeout, this, &DueWatch::look);
    timer->start(20000);
}

void DueWatch::look() {
    QString due;
    for (const auto& s : m_session.timetable())
        if (s.state == plan::StepState::due || s.state == plan::StepState::overdue)
            due = tr("%1 is %2").arg(qs(s.name), QString::fromUtf8(plan::word(s.state)));
    if (const auto* data = m_session.study()) {
        int gauges = 0;
        for (const auto& g : plan::gauges(*data, static_cast<double>(m_session.now().toSecsSinceEpoch())))
            gauges += g.due && g.pull;
        if (gauges)
            due = gauges == 1 ? tr("One gauge is to be read again")
                              : tr("%1 gauges are to be read again").arg(gauges);
    }
    if (due == m_told) return;
    m_told = due;
    m_session.tick();
    if (!due.isEmpty()) m_session.notify(due);
}

} // namespace anvil::app
