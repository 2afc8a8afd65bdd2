// A study in three steps: what do you do to it, what do you compare, how many of each.
#pragma once

#include "shell/session.h"
#include <QWidget>
#include <anvil/project/study_commands.h>

class QLabel;
class QLayout;
class QLineEdit;
class QPushButton;
class QSpinBox;

namespace anvil::app {

class MethodCards;
class RowEditor;

class PlanPage : public QWidget {
    Q_OBJECT
public:
    explicit PlanPage(Session& session, QWidget* parent = nullptr);
    void clear();

signals:
    void made(const anvil::project::NewStudy& study);
    void left();

private:
    QWidget* makeSteps();
    QLayout* makeEnd();
    project::NewStudy study() const;
    /// What it can tell so far, as a sentence.
    void tell();
    Session& m_session;
    QLineEdit* m_question;
    MethodCards* m_methods;
    RowEditor *m_options, *m_conditions;
    QSpinBox* m_each;
    QLabel *m_about, *m_sentence;
    QPushButton* m_make;
};

} // namespace anvil::app
