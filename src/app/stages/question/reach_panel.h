// Does it reach? Every square's predicted pull against what the rig can do, in force and in travel.
#pragma once

#include "widgets/panel.h"

class QComboBox;
class QLabel;
class QLineEdit;

namespace anvil::app {

class PictureView;

class ReachPanel : public Panel {
    Q_OBJECT
public:
    explicit ReachPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void fillRigs();
    void save();
    QComboBox* m_rig;
    QLineEdit *m_limit, *m_cell, *m_ratio, *m_travel;
    PictureView *m_bars, *m_travelBars;
    QLabel *m_sentence, *m_travelHead;
};

} // namespace anvil::app
