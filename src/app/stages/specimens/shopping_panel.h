// Shopping and cutting: what the plan eats.
#pragma once

#include "widgets/panel.h"

class QTableWidget;

namespace anvil::app {

class ShoppingPanel : public Panel {
    Q_OBJECT
public:
    explicit ShoppingPanel(Session& session, QWidget* parent = nullptr);
    bool writeStock(const QString& path);

private:
    void fill() override;
    QLabel* m_sentence;
    QTableWidget* m_table;
};

} // namespace anvil::app
