// Pull: until a rig is connected, results come in as logger files or typed numbers.
#pragma once

#include "shell/session.h"
#include <QWidget>

namespace anvil::app {

class PullStage : public QWidget {
    Q_OBJECT
public:
    explicit PullStage(Session& session, QWidget* parent = nullptr);

signals:
    void importFilesWanted();
    void importTableWanted();
    void pasteWanted();
};

} // namespace anvil::app
