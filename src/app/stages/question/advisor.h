// The advisor beside the plan: a line each for what makes a comparison good, with a sign and a sentence; a
// line opens its page.
#pragma once

#include "widgets/panel.h"
#include <anvil/plan/advice.h>
#include <array>

namespace anvil::app {

class AdviceButton;

class Advisor : public Panel {
    Q_OBJECT
public:
    explicit Advisor(Session& session, QWidget* parent = nullptr);

signals:
    void opened(anvil::plan::Advice about);

private:
    void fill() override;
    std::array<AdviceButton*, plan::adviceCount> m_lines{};
    QLabel* m_totals;
};

} // namespace anvil::app
