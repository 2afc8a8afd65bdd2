// Preparation: the recipe of a batch, laid out in time; what is due, what was early or late.
#pragma once

#include "widgets/panel.h"
#include <anvil/plan/timetable.h>

class QPushButton;
class QTableWidget;
class QVBoxLayout;

namespace anvil::app {

class PreparationPanel : public Panel {
    Q_OBJECT
public:
    explicit PreparationPanel(Session& session, QWidget* parent = nullptr);
    bool writeCalendar(const QString& path);

private:
    void fill() override;
    void makeSteps(QVBoxLayout* layout);
    void makeRecipe(QVBoxLayout* layout);
    void fillRecipe(const std::vector<domain::RecipeStep>& recipe);
    void fillSteps(const std::vector<plan::Step>& steps);
    void begin();
    void stepDone();
    void recipeEdited();
    void saveHours();
    QLabel* m_prepSentence;
    QTableWidget *m_steps, *m_recipe;
    QPushButton* m_begin;
    QLineEdit *m_from, *m_to;
};

} // namespace anvil::app
