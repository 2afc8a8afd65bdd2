// Places in the sheet: where each piece was made in its sheet, so that holes keep their distance.
#pragma once

#include "widgets/panel.h"

class QComboBox;

namespace anvil::app {

class PictureView;

class SheetsPanel : public Panel {
    Q_OBJECT
public:
    explicit SheetsPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void saveApart();
    QComboBox* m_sheet;
    QLineEdit* m_apart;
    QLabel* m_sentence;
    PictureView* m_map;
};

} // namespace anvil::app
