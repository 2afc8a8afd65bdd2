// Limits: what the rig can do, and what it is told when a pull begins and ends.
#pragma once

#include "widgets/panel.h"

class QCheckBox;
class QGridLayout;
class QLayout;

namespace anvil::app {

class LimitsPanel : public Panel {
    Q_OBJECT
public:
    explicit LimitsPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    QLayout* makeAbilities();
    QLayout* makeLines();
    /// A heading, or a label with its field, at the end of a form.
    static void addHead(QGridLayout* form, const QString& text);
    void addField(QGridLayout* form, const QString& text, QLineEdit*& edit, const char* name,
                  const QString& hint);
    void save();
    void stretchFromPull();
    void pullRigidBar();
    QLineEdit *m_rig, *m_cell, *m_travel, *m_resolution, *m_speed, *m_stretch, *m_onArm, *m_onStop, *m_onZero,
        *m_hold, *m_look, *m_onPause, *m_onResume;
    QCheckBox* m_flipped;
    QLabel* m_problems;
};

} // namespace anvil::app
