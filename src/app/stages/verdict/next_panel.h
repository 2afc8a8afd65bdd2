// What next: what the results leave open, to be planned here or as a study of its own.
#pragma once

#include "shell/session.h"
#include <QWidget>
#include <anvil/plan/follow_ups.h>

class QListWidget;

namespace anvil::app {

class NextPanel : public QWidget {
    Q_OBJECT
public:
    explicit NextPanel(Session& session, QWidget* parent = nullptr);
    void show(std::vector<plan::FollowUp> followUps);

private:
    const plan::FollowUp* chosen();
    void planHere();
    void planApart();
    Session& m_session;
    std::vector<plan::FollowUp> m_followUps;
    QListWidget* m_list;
    QWidget* m_buttons;
};

} // namespace anvil::app
