// The curve of the present pull while it grows, with the limit and the earlier replicates of its square.
#pragma once

#include "shell/session.h"
#include <QWidget>
#include <anvil/chart/charts.h>
#include <anvil/rig/live_trace.h>

namespace anvil::app {

class LiveCurve : public QWidget {
    Q_OBJECT
public:
    explicit LiveCurve(Session& session, QWidget* parent = nullptr);
    /// Which square's replicates are drawn behind.
    void setSquare(Id option, Id condition);
    /// Draws what has arrived by now.
    void update(const std::vector<rig::LiveTrace::Stretch>& trace, const std::vector<study::Mark>& marks);
    const chart::Picture& picture() const { return m_picture; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Session& m_session;
    std::vector<chart::Trace> m_earlier;                 ///< s and N, from the beginning of the log
    std::optional<std::pair<double, double>> m_expected; ///< N: what is predicted, and its upper end
    chart::Picture m_picture;
};

} // namespace anvil::app
