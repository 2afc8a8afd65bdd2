// Is it fair? What stands in the way of a fair comparison, each with its remedy or the reason it is accepted.
#pragma once

#include "widgets/panel.h"
#include <anvil/plan/fairness.h>

class QVBoxLayout;

namespace anvil::app {

class FairnessPanel : public QWidget {
    Q_OBJECT
public:
    explicit FairnessPanel(Session& session, QWidget* parent = nullptr);
    void show(const std::vector<plan::Finding>& findings);

private:
    QWidget* row(const plan::Finding& finding);
    Session& m_session;
    QVBoxLayout* m_rows;
};

} // namespace anvil::app
