// Asked once: are typed loads read off the display, or are they those at the piece?
#pragma once

#include "widgets/panel.h"

namespace anvil::app {

/// Shown where the rig of the study stands between display and piece: first as a question with two answers,
/// then as a line that says what was answered and lets it be changed.
class PathQuestion : public Panel {
    Q_OBJECT
public:
    explicit PathQuestion(Session& session, QWidget* parent = nullptr);

signals:
    void answered(); ///< the number comes next

private:
    void fill() override;
    void answer(const char* where);
    QLabel* m_text;
    QWidget *m_display, *m_piece;
};

} // namespace anvil::app
