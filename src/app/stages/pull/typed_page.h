// A number read off a display, spoken or noted, for the piece that is next: large enough for gloves, with the
// study's ladder filling up beside it.
#pragma once

#include "widgets/panel.h"
#include <set>

class QComboBox;
class QPushButton;
class QVBoxLayout;

namespace anvil::app {

class PictureView;

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
    const quantity::Unit& unitOf(const domain::StudyData& data) const;
    /// Makes what is planned and not made, where no piece waits; false and a message when it cannot.
    bool makeWaiting();
    QLabel *m_piece, *m_place, *m_none, *m_doubt, *m_soFar;
    QLineEdit* m_value;
    QComboBox* m_broke;
    QPushButton *m_keep, *m_takeBack;
    QWidget* m_entry;
    PictureView* m_ladder;
    QVBoxLayout* m_last;
    std::set<Id> m_skipped;
    Id m_next = 0;
    const quantity::Unit* m_typedIn = nullptr; ///< the unit of the last number that said one
};

} // namespace anvil::app
