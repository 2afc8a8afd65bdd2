// Gauges read again over hours and days: what is due, and the reading of each piece.
#pragma once

#include "widgets/panel.h"
#include <anvil/plan/next.h>

class QCheckBox;
class QTableWidget;

namespace anvil::app {

class UnitQuestion;

class GaugePanel : public Panel {
    Q_OBJECT
public:
    explicit GaugePanel(Session& session, QWidget* parent = nullptr);

protected:
    void showEvent(QShowEvent* event) override;

private:
    void fill() override;
    void keep();
    void saveEvery();
    QLabel* m_sentence;
    QLineEdit *m_every, *m_value;
    QCheckBox* m_unloaded;
    QTableWidget* m_table;
    Id chosen() const;
    void showChosen();
    std::vector<plan::GaugeState> m_rows;
    bool m_first = false; ///< what is due first is to be chosen
    QLabel* m_piece;
    UnitQuestion* m_question;
    void keepReading(const QString& text);
};

} // namespace anvil::app
