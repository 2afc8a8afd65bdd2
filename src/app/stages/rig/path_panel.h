// Load path: levers, lines in several parts, angles between the cell and the piece.
#pragma once

#include "widgets/panel.h"
#include <anvil/rig/ratio.h>

class QTableWidget;

namespace anvil::app {

class PictureView;

class PathPanel : public Panel {
    Q_OBJECT
public:
    explicit PathPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void edited();
    void add(rig::RatioPart part);
    void pivot();
    QTableWidget* m_table;
    QLabel *m_sentence, *m_pivotSays;
    QLineEdit *m_weight, *m_centre, *m_foot, *m_lift;
    PictureView* m_picture;
};

} // namespace anvil::app
