// Preparation: the recipe of a batch, laid out in time; what is due, what was early or late.
#pragma once

#include "widgets/panel.h"

class QPushButton;
class QTableWidget;

namespace anvil::app {

class PreparationPanel : public Panel {
    Q_OBJECT
public:
    explicit PreparationPanel(Session& session, QWidget* parent = nullptr);
    bool writeCalendar(const QString& path);

private:
    void fill() override;
    void recipeEdited();
    void saveHours();
    QLabel* m_prepSentence;
    QTableWidget *m_steps, *m_recipe;
    QPushButton* m_begin;
    QLineEdit *m_from, *m_to;
};

} // namespace anvil::app
