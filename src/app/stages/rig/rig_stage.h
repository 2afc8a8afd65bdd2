// Rig: how it is reached, what it can do, how the load gets to the piece; and the limit of imported curves.
#pragma once

#include "widgets/panel.h"

class QLabel;
class QLineEdit;
class QTabWidget;

namespace anvil::app {

class RigStage : public Panel {
    Q_OBJECT
public:
    explicit RigStage(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void fillLimits();
    /// A line to correct a limit in: of what was recorded on a set-up, or (0) of imported curves.
    void addLimit(const QString& title, Id setup, const std::optional<double>& limit);
    /// What is typed there: a limit, or none; nothing and a message where it cannot be.
    std::optional<std::optional<double>> limitIn(const QLineEdit* edit);
    QLabel *m_sentence, *m_state, *m_card;
    QWidget* m_limits;
    QTabWidget* m_tabs;
};

} // namespace anvil::app
