// A number read off a display, spoken or noted, for the piece that is next; with its doubt.
#pragma once

#include "widgets/panel.h"
#include <set>

class QComboBox;

namespace anvil::app {

class TypedRow : public Panel {
    Q_OBJECT
public:
    explicit TypedRow(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void keep(bool lost);
    QLabel* m_piece;
    QLineEdit* m_value;
    QComboBox* m_broke;
    std::set<Id> m_skipped;
    Id m_next = 0;
};

} // namespace anvil::app
