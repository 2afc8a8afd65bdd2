// The curve of the present pull while it grows, with the limit and the earlier replicates of its square.
#pragma once

#include "shell/session.h"
#include <QWidget>
#include <anvil/chart/charts.h>

namespace anvil::app {

class LiveCurve : public QWidget {
    Q_OBJECT
public:
    explicit LiveCurve(Session& session, QWidget* parent = nullptr);
    /// Which square's replicates are drawn behind.
    void setSquare(Id option, Id condition);
    /// Draws what has arrived by now; nothing where nothing is new.
    void update(std::vector<rig::LiveTrace::Stretch> trace, const std::vector<domain::Mark>& marks);
    const chart::Picture& picture() const { return m_picture; }

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void build();
    Session& m_session;
    chart::LivePull m_pull;
    chart::Picture m_picture;
};

} // namespace anvil::app
