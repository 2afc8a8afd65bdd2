// Safety: the cautions of the method and the kind, and the author's own, pinned to the study.
#pragma once

#include "widgets/panel.h"

class QPlainTextEdit;

namespace anvil::app {

class SafetyPanel : public Panel {
    Q_OBJECT
public:
    explicit SafetyPanel(Session& session, QWidget* parent = nullptr);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void fill() override;
    void save();
    QLabel* m_card;
    QPlainTextEdit* m_own;
};

} // namespace anvil::app
