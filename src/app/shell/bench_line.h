// The bench line: the live rig at the foot of the window, at every stage.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QLabel;
class QPushButton;

namespace anvil::app {

class BenchLine : public QWidget {
    Q_OBJECT
public:
    explicit BenchLine(Session& session, QWidget* parent = nullptr);
    QString stateText() const;
    QString loadText() const;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void refresh();
    Session& m_session;
    QLabel *m_state, *m_load, *m_next;
    QPushButton *m_zero, *m_unit;
    QWidget* m_bar;
    double m_share = 0;
};

} // namespace anvil::app
