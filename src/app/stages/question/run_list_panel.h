// Run list: the order in which the pieces are pulled, drawn in random blocks and changed by hand.
#pragma once

#include "widgets/panel.h"

class QCheckBox;
class QListWidget;
class QSpinBox;

namespace anvil::app {

class RunListPanel : public Panel {
    Q_OBJECT
public:
    explicit RunListPanel(Session& session, QWidget* parent = nullptr);
    /// Writes the list for paper; false and a message when it cannot.
    bool write(const QString& path);

private:
    void fill() override;
    QLabel* m_order;
    QCheckBox* m_group;
    QSpinBox* m_seed;
    QListWidget* m_runs;
};

} // namespace anvil::app
