// The ledger: facts, standing, what broke, notes and history of whatever is selected. Edits in place.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPlainTextEdit;
class QPushButton;
class QCheckBox;
class QVBoxLayout;

namespace anvil::app {

class LedgerLine;
class PicturesList;
class PictureView;
class RowEditor;

class Ledger : public QWidget {
    Q_OBJECT
public:
    explicit Ledger(Session& session, QWidget* parent = nullptr);
    PicturesList* pictures() const { return m_pictures; }

signals:
    void closed(); ///< by its own button

private:
    static QString keyOf(domain::Standing standing);
    QLayout* makeHead();
    void fillCard(const domain::StudyData& data, const domain::Pull& pull, const domain::Specimen& piece);
    void makeInterrupted(QVBoxLayout* edits);
    void makeStanding(QVBoxLayout* edits);
    void makeBroke(QVBoxLayout* edits);
    void makeNotes(QVBoxLayout* edits);
    void connectEdits();
    void refresh();
    void applyStanding();
    void saveOutcome();
    void savePhases();
    std::vector<QStringList> phaseRows(const domain::Pull& pull) const;
    void fillPhases(const domain::Pull& pull);
    void saveShares();
    QString steadyText(Id pull) const;
    void saveNote();
    void explainCorrection();
    void fillPublished(const domain::Pull& pull);
    void fillStanding(const domain::StudyData& data, const domain::Pull& pull);
    void fillEnding(const domain::Outcome& outcome);
    void fillRemarks(const domain::Pull& pull);
    void fillFacts(const domain::StudyData& data, const domain::Pull& pull, const domain::Specimen& piece);
    void fillBroke(const domain::StudyData& data, const domain::Pull& pull, const domain::Specimen& piece);
    bool eventFilter(QObject* watched, QEvent* event) override;

    Session& m_session;
    bool m_filling = false;
    QLabel *m_title, *m_place, *m_facts, *m_remarks, *m_history, *m_reasonHint;
    QComboBox *m_standing, *m_broke, *m_mode, *m_end;
    QLineEdit *m_reason, *m_where, *m_afterwards, *m_elsewhere, *m_correction;
    RowEditor *m_shares, *m_phases;
    QPushButton* m_apply;
    QPlainTextEdit* m_note;
    Id m_notePull = 0; ///< whose note is on show, and of which project
    QString m_noteFile;
    QLabel *m_number, *m_steadyHead, *m_steady;
    PictureView *m_curve, *m_failure;
    LedgerLine *m_stands, *m_brokeLine, *m_whereLine, *m_sharesLine, *m_afterwardsLine, *m_noteLine,
        *m_phasesLine, *m_elsewhereLine, *m_publishedLine;
    QPushButton* m_openCurve;
    Id m_shown = 0; ///< whose card it is
    PicturesList* m_pictures;
    QCheckBox *m_looked, *m_unloading;
    QWidget *m_edits, *m_interrupted;
};

} // namespace anvil::app
