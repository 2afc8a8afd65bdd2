// Load path: levers, lines in several parts, angles between the cell and the piece.
#pragma once

#include "widgets/panel.h"
#include <anvil/rig/ratio.h>

class QComboBox;

namespace anvil::app {

class FlowLayout;
class PictureView;

class PathPanel : public Panel {
    Q_OBJECT
public:
    explicit PathPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    QLayout* makeDisplay();
    QLayout* makeParts();
    QLayout* makeCheck();
    void showCards(const std::vector<rig::RatioPart>& path);
    void edited(int place, const rig::RatioPart& part);
    void add(rig::RatioPart part);
    void showAs(quantity::Dimension shows);
    void pivot();
    FlowLayout* m_cards;
    std::vector<rig::RatioPart> m_shown;
    QComboBox* m_shows;
    QLabel *m_sentence, *m_pivotSays;
    QLineEdit *m_weight, *m_centre, *m_foot, *m_lift;
    PictureView *m_picture, *m_pivotPicture;
};

} // namespace anvil::app
