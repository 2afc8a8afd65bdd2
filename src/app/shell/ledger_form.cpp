// How the ledger is laid out, and what its fields do.
#include "shell/ledger.h"

#include "shell/ledger_labels.h"
#include "shell/ledger_line.h"
#include "shell/pictures_list.h"
#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include "widgets/row_editor.h"
#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <anvil/domain/joints.h>
#include <anvil/domain/outcomes.h>
#include <anvil/domain/phases.h>
#include <anvil/project/pull_commands.h>
#include <anvil/project/telling_commands.h>
#include <anvil/project/wall_clock.h>

namespace anvil::app {

QLayout* Ledger::makeHead() {
    auto* head = new QVBoxLayout;
    auto* row = new QHBoxLayout;
    m_title = ledgerLabel("big");
    row->addWidget(m_title, 1);
    auto* close = new QPushButton(QStringLiteral("\u00d7"));
    close->setObjectName("closeLedger");
    close->setAccessibleName(tr("Close the ledger"));
    setTip(close, tr("Esc"));
    connect(close, &QPushButton::clicked, this, &Ledger::closed);
    row->addWidget(close, 0, Qt::AlignTop);
    head->addLayout(row);
    m_place = ledgerLabel("faint");
    head->addWidget(m_place);
    m_curve = new PictureView;
    m_curve->setMinimumWidth(0);
    m_curve->setAccessibleName(tr("The curve, small"));
    head->addWidget(m_curve);
    m_number = ledgerLabel("big");
    head->addWidget(m_number);
    return head;
}

void Ledger::makeInterrupted(QVBoxLayout* edits) {
    m_interrupted = new QWidget;
    auto* interrupted = new QVBoxLayout(m_interrupted);
    interrupted->setContentsMargins(0, 0, 0, 6);
    auto* why = ledgerLabel("finding");
    why->setText(
        tr("\u26a0 Its recording was interrupted. What had been saved is here; look at the curve, then say "
           "what it may be used for."));
    interrupted->addWidget(why);
    for (const auto& [text, name, standing, reason] :
         {std::tuple{tr("It broke before that: it counts"), "keepInterrupted", domain::Standing::counts,
                     domain::Because::nothing},
          std::tuple{tr("It held that much: at least"), "boundInterrupted", domain::Standing::atLeast,
                     domain::Because::cutShort},
          std::tuple{tr("Void"), "voidInterrupted", domain::Standing::voided, domain::Because::cutOff}}) {
        auto* button = new QPushButton(text);
        button->setObjectName(QString::fromLatin1(name));
        interrupted->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, s = standing, r = reason] {
            const auto* data = m_session.study();
            const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
            if (pull)
                m_session.tell(project::judge(
                    *m_session.project(), pull->id,
                    {pull->outcome.part, pull->outcome.mode, domain::Limit::linkLost, {s, r}, {}}));
        });
    }
    edits->addWidget(m_interrupted);
}

void Ledger::makeStanding(QVBoxLayout* edits) {
    auto* form = new QWidget;
    auto* fields = new QVBoxLayout(form);
    fields->setContentsMargins(0, 0, 0, 0);
    m_standing = new QComboBox;
    m_standing->setObjectName("standing");
    m_standing->setAccessibleName(tr("Standing"));
    for (const auto s : {domain::Standing::counts, domain::Standing::atLeast, domain::Standing::aside,
                         domain::Standing::voided, domain::Standing::notRead}) {
        auto text = QString::fromUtf8(domain::word(s));
        text[0] = text[0].toUpper();
        m_standing->addItem(text, keyOf(s));
    }
    fields->addWidget(m_standing);
    m_reasonHint = ledgerLabel("faint");
    m_reasonHint->setText(tr("Why? A reason in the test, never its number."));
    fields->addWidget(m_reasonHint);
    m_reason = new QLineEdit;
    m_reason->setObjectName("reason");
    m_reason->setAccessibleName(tr("Reason"));
    m_reason->setPlaceholderText(tr("such as: jaw slipped"));
    fields->addWidget(m_reason);
    m_apply = new QPushButton(tr("Apply"));
    m_apply->setObjectName("applyStanding");
    fields->addWidget(m_apply, 0, Qt::AlignLeft);
    edits->addWidget(m_stands = new LedgerLine(tr("say how it stands"), form));
}

void Ledger::makeBroke(QVBoxLayout* edits) {
    auto* form = new QWidget;
    auto* fields = new QVBoxLayout(form);
    fields->setContentsMargins(0, 0, 0, 0);
    fields->setSpacing(6);
    const auto words = [&](const char* name, const QString& about, const QString& hint) {
        auto* box = new QComboBox;
        box->setObjectName(name);
        box->setAccessibleName(about);
        box->setEditable(true);
        box->setInsertPolicy(QComboBox::NoInsert);
        box->lineEdit()->setPlaceholderText(hint);
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(8);
        fields->addWidget(box);
        return box;
    };
    m_broke = words("whatBroke", tr("What broke"), tr("not recorded"));
    m_mode = words("mode", tr("How it failed"), tr("how: pulled out, snapped"));
    m_end = new QComboBox;
    m_end->setObjectName("end");
    m_end->setAccessibleName(tr("Which end failed"));
    fields->addWidget(m_end);
    m_where = new QLineEdit;
    m_where->setObjectName("where");
    m_where->setPlaceholderText(tr("where: at the second tuck"));
    fields->addWidget(m_whereLine = new LedgerLine(tr("add where it broke"), m_where));
    m_shares = new RowEditor({tr("Mixed"), tr("%")}, tr("Shares by area of a mixed failure"));
    m_shares->setObjectName("shares");
    setTip(m_shares, tr("Only for a mixed failure: shares by area, together 100 %"));
    fields->addWidget(m_sharesLine = new LedgerLine(tr("add shares of a mixed failure"), m_shares));
    m_afterwards = new QLineEdit;
    m_afterwards->setObjectName("afterwards");
    m_afterwards->setPlaceholderText(tr("afterwards: bent, stuck"));
    setTip(m_afterwards, tr("What the piece is like now: bent, stuck, still works"));
    fields->addWidget(m_afterwardsLine = new LedgerLine(tr("add what it was like afterwards"), m_afterwards));
    m_unloading = new QCheckBox(tr("Broke on unloading"));
    m_unloading->setObjectName("whileUnloading");
    setTip(m_unloading, tr("Or while it was handled: the greatest load before is what counts"));
    fields->addWidget(m_unloading);
    edits->addWidget(m_brokeLine = new LedgerLine(tr("add what broke"), form));
    m_failure = new PictureView;
    m_failure->setMinimumWidth(0);
    m_failure->setFixedWidth(grown(80));
    m_brokeLine->setSign(m_failure);
}

void Ledger::makeNotes(QVBoxLayout* edits) {
    m_remarks = ledgerLabel("remarks");
    edits->addWidget(m_remarks);
    m_looked = new QCheckBox(tr("Looked at, it is fine"));
    m_looked->setObjectName("looked");
    edits->addWidget(m_looked);
    m_note = new QPlainTextEdit;
    m_note->setObjectName("note");
    m_note->setAccessibleName(tr("Note"));
    m_note->setTabChangesFocus(true);
    m_note->setFixedHeight(grown(58));
    m_note->installEventFilter(this);
    edits->addWidget(m_noteLine = new LedgerLine(tr("add a note"), m_note));
    m_phases =
        new RowEditor({tr("Phase"), tr("Way"), tr("Reading"), tr("Reading"), tr("Reading"), tr("Outcome")},
                      tr("Phases of the pull"));
    m_phases->setObjectName("phases");
    setTip(m_phases, tr("Such as: set, down, 400 N, 120 mm, held"));
    edits->addWidget(m_phasesLine = new LedgerLine(tr("add phases"), m_phases));
    m_elsewhere = new QLineEdit;
    m_elsewhere->setObjectName("elsewhere");
    m_elsewhere->setAccessibleName(tr("Whose result it is"));
    m_elsewhere->setPlaceholderText(tr("such as: the maker, another laboratory"));
    edits->addWidget(m_elsewhereLine = new LedgerLine(tr("add whose result it is"), m_elsewhere));
    m_correction = new QLineEdit;
    m_correction->setObjectName("correction");
    m_correction->setAccessibleName(tr("Why it was changed"));
    m_correction->setPlaceholderText(tr("why: the ratio was wrong"));
    edits->addWidget(m_publishedLine = new LedgerLine(QString(), m_correction));
    m_pictures = new PicturesList(m_session);
    edits->addWidget(m_pictures);
    auto* curve = new QPushButton(tr("Open the curve"));
    m_openCurve = curve;
    edits->addWidget(curve, 0, Qt::AlignLeft);
    connect(curve, &QPushButton::clicked, this, [this] { m_session.go(Stage::curves); });
    m_steadyHead = sectionLabel(tr("All channels at the marks"));
    edits->addWidget(m_steadyHead);
    m_steady = ledgerLabel("steady");
    edits->addWidget(m_steady);
    edits->addWidget(sectionLabel(tr("Facts")));
    m_facts = ledgerLabel("facts");
    edits->addWidget(m_facts);
    edits->addWidget(sectionLabel(tr("History")));
    m_history = ledgerLabel("faint");
    edits->addWidget(m_history);
}

void Ledger::connectEdits() {
    connect(m_standing, &QComboBox::activated, this, [this] {
        const bool counts = m_standing->currentData() == keyOf(domain::Standing::counts);
        m_reason->setVisible(!counts);
        m_reasonHint->setVisible(!counts);
        m_apply->setVisible(!counts);
        m_stands->open();
        if (counts)
            applyStanding();
        else
            m_reason->setFocus();
    });
    connect(m_reason, &QLineEdit::returnPressed, this, &Ledger::applyStanding);
    connect(m_apply, &QPushButton::clicked, this, &Ledger::applyStanding);
    for (auto* box : {m_broke, m_mode}) {
        whenEdited(box->lineEdit(), this, [this] { saveOutcome(); });
        connect(box, &QComboBox::activated, this, &Ledger::saveOutcome);
    }
    connect(m_end, &QComboBox::activated, this, &Ledger::saveOutcome);
    connect(m_shares, &RowEditor::edited, this, &Ledger::saveShares);
    connect(m_phases, &RowEditor::edited, this, &Ledger::savePhases);
    connect(m_correction, &QLineEdit::returnPressed, this, &Ledger::explainCorrection);
    for (auto* edit : {m_where, m_afterwards, m_elsewhere})
        whenEdited(edit, this, [this] { saveOutcome(); });
    connect(m_unloading, &QCheckBox::clicked, this, &Ledger::saveOutcome);
    connect(m_looked, &QCheckBox::clicked, this, [this](bool on) {
        if (m_session.project())
            m_session.tell(m_session.project()->changePull(
                m_session.pull(),
                tr("%1: %2").arg(m_title->text(), on ? tr("looked at") : tr("to be looked at")),
                [&](domain::Pull& p) { p.looked = on; }));
    });
}

} // namespace anvil::app
