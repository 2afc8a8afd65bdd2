// A bit more until it lets go, for gloves: space says that it held, a digit that it did not.
#pragma once

#include "widgets/panel.h"
#include <QElapsedTimer>
#include <anvil/plan/turn.h>

class QListWidget;

namespace anvil::app {

class LadderPanel : public Panel {
    Q_OBJECT
public:
    /// Keys are ignored so long after the last one.
    static constexpr qint64 guardMs = 600;
    explicit LadderPanel(Session& session, QWidget* parent = nullptr);

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void showEvent(QShowEvent* event) override;

private:
    void fill() override;
    void fillRule(const domain::LadderPlan& ladder);
    void chooseNext(const domain::StudyData& data);
    QString textOf(const domain::LadderStep& step) const;
    void ask(const domain::StudyData& data, const std::vector<domain::LadderStep>& steps);
    void savePlan();
    void step(bool held);
    void digit(int n);
    void settle(const std::string& part);
    const domain::Pull* pull() const;
    QLineEdit *m_first, *m_more, *m_distance, *m_further;
    QLabel *m_piece, *m_step, *m_sentence, *m_choices, *m_action;
    QListWidget* m_steps;
    plan::Turn m_turn;
    Id m_next = 0, m_judged = 0; ///< the piece at hand; the pull of which is asked what broke
    QElapsedTimer m_clock;
};

} // namespace anvil::app
