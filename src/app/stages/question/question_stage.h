// Question: what is asked, of which options, under which conditions.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace anvil::app {

class QuestionStage : public QWidget {
    Q_OBJECT
public:
    explicit QuestionStage(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    void saveStudy(const QString& field, const QJsonValue& value, const QString& what);
    void optionEdited(int row, int column);
    void conditionEdited(int row, int column);
    void addOptions();
    void addConditions();
    bool ensureStudy();

    Session& m_session;
    bool m_filling = false;
    QLabel* m_sentence;
    QLineEdit *m_title, *m_question, *m_newOption, *m_newCondition;
    QComboBox *m_metric, *m_intent;
    QDoubleSpinBox* m_margin;
    QTableWidget *m_options, *m_conditions;
    QPushButton* m_start;
    QWidget* m_body;
};

} // namespace anvil::app
