#include "widgets/scrolled.h"

namespace anvil::app {

QScrollArea* scrolled(QWidget* panel) {
    auto* area = new QScrollArea;
    area->setWidget(panel);
    area->setWidgetResizable(true);
    area->setFrameShape(QFrame::NoFrame);
    panel->setAutoFillBackground(false); // setWidget() has it filled
    area->viewport()->setAutoFillBackground(false);
    return area;
}

} // namespace anvil::app
