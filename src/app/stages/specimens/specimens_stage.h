// Specimens: pieces made from the plan, measured, placed and labelled; their preparation in time; what the
// plan eats.
#pragma once

#include "widgets/panel.h"

class QLabel;
class QTabWidget;

namespace anvil::app {

class PiecesPanel;
class PreparationPanel;
class ShoppingPanel;

class SpecimensStage : public Panel {
    Q_OBJECT
public:
    explicit SpecimensStage(Session& session, QWidget* parent = nullptr);
    /// Each writes a file; false and a message when it cannot.
    bool writeLabels(const QString& path);
    bool writeCalendar(const QString& path);
    bool writeStock(const QString& path);

private:
    void fill() override;

    QLabel* m_sentence;
    QTabWidget* m_tabs;
    PiecesPanel* m_pieces;
    PreparationPanel* m_preparation;
    ShoppingPanel* m_shopping;
};

} // namespace anvil::app
