// Facts: what is known of every option before it is pulled; typed, or pasted from a spreadsheet.
#pragma once

#include "widgets/panel.h"

class QTableWidget;

namespace anvil::app {

class FactsPanel : public Panel {
    Q_OBJECT
public:
    explicit FactsPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void edited(int row, int column);
    void fillConditions(const domain::StudyData& data);
    void levelEdited(int row, int column);
    void paste();
    QTableWidget *m_table, *m_conditions;
};

} // namespace anvil::app
