// Pull: at a connected rig one piece after the other; until then results come in as logger files or typed
// numbers.
#pragma once

#include "shell/session.h"
#include <QWidget>

namespace anvil::app {

class BenchView;

class PullStage : public QWidget {
    Q_OBJECT
public:
    explicit PullStage(Session& session, QWidget* parent = nullptr);

    BenchView* bench() const { return m_bench; }

signals:
    void importFilesWanted();
    void importTableWanted();
    void pasteWanted();

private:
    void refresh();
    Session& m_session;
    BenchView* m_bench;
    QWidget* m_ways;
};

} // namespace anvil::app
