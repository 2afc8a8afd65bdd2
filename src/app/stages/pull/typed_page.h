// A number read off a display, spoken or noted, for the piece that is next: large enough for gloves, with the
// study's ladder filling up beside it.
#pragma once

#include "widgets/panel.h"
#include <anvil/plan/turn.h>

class QComboBox;
class QPushButton;
class QVBoxLayout;

namespace anvil::app {

class PictureView;
class UnitQuestion;

class TypedPage : public Panel {
    Q_OBJECT
public:
    explicit TypedPage(Session& session, QWidget* parent = nullptr);

private:
    QLayout* makeEntry();
    QLayout* makeSoFar();
    QLayout* makeUnplanned();
    void fill() override;
    void outdated() override;
    void showPiece(const domain::StudyData* data);
    void showLast(const domain::StudyData* data);
    void keep(bool lost);
    /// What a number without a unit is in: as the last one was typed, else as the window shows it.
    void keepNumber(const QString& text, bool lost);
    /// Makes what is planned and not made, where no piece waits; false and a message when it cannot.
    bool makeWaiting();
    QLabel *m_piece, *m_place, *m_none, *m_doubt, *m_soFar;
    QLineEdit* m_value;
    QComboBox* m_broke;
    QPushButton *m_keep, *m_takeBack;
    QWidget* m_entry;
    PictureView* m_ladder;
    QVBoxLayout* m_last;
    plan::Turn m_turn;
    Id m_next = 0;
    UnitQuestion* m_question;
};

} // namespace anvil::app
