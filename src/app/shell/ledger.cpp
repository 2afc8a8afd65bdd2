#include "shell/ledger.h"

#include "shell/ledger_line.h"
#include "shell/pictures_list.h"
#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include "widgets/row_editor.h"
#include <QCheckBox>
#include <QComboBox>
#include <QEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTextDocument>
#include <QVBoxLayout>
#include <anvil/chart/charts.h>
#include <anvil/chart/small_curve.h>
#include <anvil/domain/joints.h>
#include <anvil/domain/outcomes.h>
#include <anvil/domain/phases.h>
#include <anvil/methods/piece_kind.h>
#include <anvil/quantity/print.h>
#include <anvil/results/corrections.h>
#include <anvil/results/ends.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>
#include <anvil/words/corrections.h>
#include <anvil/words/pull.h>
#include <anvil/work/pull_commands.h>
#include <anvil/work/telling_commands.h>
#include <anvil/work/wall_clock.h>
#include <set>

namespace anvil::app {
namespace {

constexpr double curveHeight = 84;

QLabel* section(const QString& text) {
    auto* label = plainLabel(text);
    label->setObjectName("section");
    return label;
}

QLabel* wrapped(const char* name) {
    auto* label = plainLabel();
    label->setObjectName(name);
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    label->setTextFormat(Qt::PlainText);
    return label;
}

} // namespace

Ledger::Ledger(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(10, 10, 10, 10);
    layout->setSpacing(6);
    layout->addLayout(makeHead());
    m_edits = new QWidget;
    auto* edits = new QVBoxLayout(m_edits);
    edits->setContentsMargins(0, 0, 0, 0);
    edits->setSpacing(6);
    makeInterrupted(edits);
    makeStanding(edits);
    makeBroke(edits);
    makeNotes(edits);
    layout->addWidget(m_edits);
    layout->addStretch();
    connectEdits();
    connect(&session, &Session::changed, this, &Ledger::refresh);
    connect(&session, &Session::selectionChanged, this, &Ledger::refresh);
    connect(&session, &Session::unitsChanged, this, &Ledger::refresh);
    refresh();
}

/// Whose card it is, what its curve looked like, and its number.
QLayout* Ledger::makeHead() {
    auto* head = new QVBoxLayout;
    auto* row = new QHBoxLayout;
    m_title = wrapped("big");
    row->addWidget(m_title, 1);
    auto* close = new QPushButton(QStringLiteral("\u00d7"));
    close->setObjectName("closeLedger");
    close->setAccessibleName(tr("Close the ledger"));
    setTip(close, tr("Esc"));
    connect(close, &QPushButton::clicked, this, &Ledger::closed);
    row->addWidget(close, 0, Qt::AlignTop);
    head->addLayout(row);
    m_place = wrapped("faint");
    head->addWidget(m_place);
    m_curve = new PictureView;
    m_curve->setMinimumWidth(0);
    m_curve->setAccessibleName(tr("The curve, small"));
    head->addWidget(m_curve);
    m_number = wrapped("big");
    head->addWidget(m_number);
    return head;
}

void Ledger::makeInterrupted(QVBoxLayout* edits) {
    m_interrupted = new QWidget;
    auto* interrupted = new QVBoxLayout(m_interrupted);
    interrupted->setContentsMargins(0, 0, 0, 6);
    auto* why = wrapped("finding");
    why->setText(
        tr("\u26a0 Its recording was interrupted. What had been saved is here; look at the curve, then say "
           "what it may be used for."));
    interrupted->addWidget(why);
    for (const auto& [text, name, standing, reason] :
         {std::tuple{tr("It broke before that: it counts"), "keepInterrupted", domain::Standing::counts,
                     QString()},
          std::tuple{tr("It held that much: at least"), "boundInterrupted", domain::Standing::atLeast,
                     tr("The recording was interrupted before it broke.")},
          std::tuple{tr("Void"), "voidInterrupted", domain::Standing::voided,
                     tr("The recording was interrupted.")}}) {
        auto* button = new QPushButton(text);
        button->setObjectName(QString::fromLatin1(name));
        interrupted->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, s = standing, r = reason] {
            const auto* data = m_session.study();
            const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
            if (pull)
                m_session.tell(work::judge(*m_session.project(), pull->id,
                                           {pull->outcome.part,
                                            pull->outcome.mode,
                                            domain::Limit::linkLost,
                                            {s, r.toStdString()},
                                            {}}));
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
        m_standing->addItem(text, static_cast<int>(s));
    }
    fields->addWidget(m_standing);
    m_reasonHint = wrapped("faint");
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
    m_remarks = wrapped("remarks");
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
    m_steadyHead = section(tr("All channels at the marks"));
    edits->addWidget(m_steadyHead);
    m_steady = wrapped("steady");
    edits->addWidget(m_steady);
    edits->addWidget(section(tr("Facts")));
    m_facts = wrapped("facts");
    edits->addWidget(m_facts);
    edits->addWidget(section(tr("History")));
    m_history = wrapped("faint");
    edits->addWidget(m_history);
}

void Ledger::connectEdits() {
    connect(m_standing, &QComboBox::activated, this, [this] {
        const bool counts = m_standing->currentData().toInt() == static_cast<int>(domain::Standing::counts);
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

bool Ledger::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_note && event->type() == QEvent::FocusOut) saveNote();
    return QWidget::eventFilter(watched, event);
}

void Ledger::saveNote() {
    const auto* data = m_session.study();
    const auto* pull = data ? data->pull(m_notePull) : nullptr; // whose note it is, whatever is chosen by now
    const auto text = m_note->toPlainText().trimmed();
    if (m_filling || !pull || m_noteFile != m_session.project()->file().path() || text == qs(pull->note))
        return;
    m_session.tell(m_session.project()->changePull(pull->id, tr("%1: note").arg(m_title->text()),
                                                   [&](domain::Pull& p) { p.note = text.toStdString(); }));
}

void Ledger::explainCorrection() {
    if (m_filling || !m_session.project()) return;
    if (m_session.tell(work::explainCorrection(*m_session.project(), m_session.studyId(), m_session.pull(),
                                               m_session.now().toString(Qt::ISODate).toStdString(),
                                               m_correction->text())))
        m_publishedLine->open(false);
}

/// What was published of the pull, where that is another now.
void Ledger::fillPublished(const domain::Pull& pull) {
    const auto* data = m_session.study();
    m_publishedLine->hide();
    const auto* table =
        data->study.telling.publications.empty() ? nullptr : m_session.project()->table(m_session.studyId());
    if (!table) return;
    const auto metric = data->study.goal.metric;
    for (const auto& c : results::correctionsOf(*table, metric))
        if (c.pull == pull.id) {
            m_publishedLine->setFact(
                qs(words::sentence(*data, c, methods::unitFor(*metric, m_session.units()))));
            m_correction->setText(qs(c.why));
            m_publishedLine->show();
        }
}

void Ledger::saveOutcome() {
    const auto* data = m_session.study();
    const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
    if (m_filling || !pull) return;
    auto outcome = pull->outcome;
    outcome.part = m_broke->currentText().simplified().toStdString();
    outcome.mode = m_mode->currentText().simplified().toStdString();
    outcome.end = m_end->currentData().toInt();
    outcome.where = m_where->text().simplified().toStdString();
    outcome.afterwards = m_afterwards->text().simplified().toStdString();
    outcome.whileUnloading = m_unloading->isChecked();
    outcome.elsewhere = m_elsewhere->text().simplified().toStdString();
    if (outcome != pull->outcome)
        m_session.tell(work::changeOutcome(*m_session.project(), pull->id, outcome,
                                           tr("%1: how it failed").arg(m_title->text())));
}

/// Half a list is being typed: it is kept once it can be.
void Ledger::saveShares() {
    const auto* data = m_session.study();
    const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
    if (m_filling || !pull) return;
    std::vector<std::pair<std::string, std::string>> typed;
    for (const auto& row : m_shares->rows()) {
        if (row[0].isEmpty() || row[1].isEmpty()) return;
        typed.emplace_back(row[0].toStdString(), row[1].toStdString());
    }
    const auto shares = domain::sharesOf(typed);
    if (!m_session.tell(shares) || *shares == pull->outcome.shares) return;
    auto outcome = pull->outcome;
    outcome.shares = *shares;
    m_session.tell(work::changeOutcome(*m_session.project(), pull->id, outcome,
                                       tr("%1: shares of the failure").arg(m_title->text())));
}

std::vector<QStringList> Ledger::phaseRows(const domain::Pull& pull) const {
    std::vector<QStringList> out;
    for (const auto& p : pull.outcome.phases) {
        QStringList row{qs(p.name), qs(p.direction)};
        for (const auto& r : p.readings)
            row << qs(quantity::printIn(r, m_session.units().of(r.unit->dimension)));
        while (row.size() < m_phases->columnCount() - 1)
            row << QString();
        out.push_back(row << qs(p.outcome));
    }
    return out;
}

/// The parts of the load path and the ways this kind of piece fails, with what was noted elsewhere.
void Ledger::fillBroke(const domain::StudyData& data, const domain::Pull& pull,
                       const domain::Specimen& piece) {
    std::vector<std::string> parts = domain::breakableParts(data),
                             modes = domain::failureModes(data.optionAt(piece.option).kind);
    for (const auto& p : data.pulls) {
        const auto& o = p.outcome;
        const auto add = [](std::vector<std::string>& to, const std::string& text, bool known) {
            if (!text.empty() && !known) to.push_back(text);
        };
        add(parts, o.part, std::any_of(parts.begin(), parts.end(), [&](const auto& k) {
                return domain::samePart(k, o.part);
            }));
        add(modes, o.mode, std::find(modes.begin(), modes.end(), o.mode) != modes.end());
    }
    for (const auto& [box, all, now] :
         {std::tuple{m_broke, &parts, &pull.outcome.part}, std::tuple{m_mode, &modes, &pull.outcome.mode}}) {
        box->clear();
        for (const auto& text : *all)
            box->addItem(qs(text));
        box->setCurrentIndex(box->findText(qs(*now)));
        box->setEditText(qs(*now));
    }
    m_end->clear();
    const auto ends = domain::endNames(data, &piece);
    m_end->addItem(tr("which end: not noted"), 0);
    for (int k = 0; k < std::max(static_cast<int>(ends.size()), pull.outcome.end); ++k)
        m_end->addItem(k < static_cast<int>(ends.size()) ? qs(ends[static_cast<std::size_t>(k)])
                                                         : tr("end %1").arg(k + 1),
                       k + 1);
    m_end->setCurrentIndex(m_end->findData(pull.outcome.end));
    m_end->setVisible(ends.size() > 1 || pull.outcome.end > 0);
}

/// A column for each reading, as many as any phase has, and three to type in.
void Ledger::fillPhases(const domain::Pull& pull) {
    std::size_t readings = 3;
    for (const auto& p : pull.outcome.phases)
        readings = std::max(readings, p.readings.size());
    QStringList heads{tr("Phase"), tr("Way")};
    for (std::size_t k = 0; k < readings; ++k)
        heads << tr("Reading");
    m_phases->setHeads(heads << tr("Outcome"));
    m_phases->setRows(phaseRows(pull));
}

void Ledger::savePhases() {
    const auto* data = m_session.study();
    const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
    if (m_filling || !pull) return;
    const auto rows = m_phases->rows();
    if (rows == phaseRows(*pull)) return;
    std::vector<domain::PhaseText> typed;
    for (const auto& row : rows) {
        if (row[0].isEmpty()) return; // its name is still to come
        domain::PhaseText t{row[0].toStdString(), row[1].toStdString(), {}, row.last().toStdString()};
        for (qsizetype k = 2; k + 1 < row.size(); ++k)
            t.readings.push_back(row[k].toStdString());
        typed.push_back(std::move(t));
    }
    const auto phases = domain::phasesOf(typed);
    if (m_session.tell(phases)) m_session.tell(work::setPhases(*m_session.project(), pull->id, *phases));
}

/// The lines as they read before anybody edits them.
void Ledger::fillCard(const domain::StudyData& data, const domain::Pull& pull,
                      const domain::Specimen& piece) {
    const auto* reading = m_session.readings().find(pull.id);
    const auto standing = results::standingOf(*m_session.study(), pull, reading);
    m_number->setText(qs(words::metricText(data, pull, piece, m_session.readings(), data.study.goal.metric,
                                           m_session.units())));
    auto stands = qs(words::standsText(pull, standing));
    stands[0] = stands[0].toUpper();
    const auto reason = qs(results::reasonOf(*m_session.study(), pull, reading));
    m_stands->setFact(reason.isEmpty() ? stands : tr("%1: %2").arg(stands, reason));
    const auto& o = pull.outcome;
    QStringList broke;
    for (const auto& part : {o.part, o.mode, o.where})
        if (!part.empty()) broke << qs(part);
    QStringList shares;
    for (const auto& share : o.shares)
        shares << tr("%1 %").arg(qs(quantity::shortest(100 * share.share))) + ' ' + qs(share.mode);
    QStringList whole = broke + shares;
    if (o.end > 0) whole << tr("end %1").arg(o.end);
    if (!o.afterwards.empty()) whole << tr("afterwards %1").arg(qs(o.afterwards));
    if (o.whileUnloading) whole << tr("broke on unloading");
    m_brokeLine->setFact(whole.join(QStringLiteral(", ")));
    m_failure->setVisible(!o.mode.empty());
    if (!o.mode.empty())
        m_failure->setBuild([failure = methods::failureOf(o.mode).value_or(methods::Failure::snapped)](
                                double) { return chart::failurePicture(failure); });
    m_whereLine->setFact(qs(o.where));
    m_sharesLine->setFact(shares.join(QStringLiteral(", ")));
    m_afterwardsLine->setFact(qs(o.afterwards));
    m_noteLine->setFact(qs(pull.note));
    m_elsewhereLine->setFact(o.elsewhere.empty() ? QString() : tr("Not from here: %1").arg(qs(o.elsewhere)));
    fillPublished(pull);
    QStringList phases;
    for (const auto& row : phaseRows(pull)) {
        auto cells = row;
        cells.removeAll(QString());
        phases << cells.join(QStringLiteral(", "));
    }
    m_phasesLine->setFact(phases.join('\n'));
    m_openCurve->setVisible(pull.curve != 0);
    const auto curve = pull.curve ? m_session.source().curve(pull.id) : nullptr;
    m_curve->setVisible(curve != nullptr);
    if (curve)
        m_curve->setBuild([curve](double width) { return chart::smallCurve(*curve, width, curveHeight); });
}

QString Ledger::steadyText(Id pull) const {
    QStringList out;
    for (const auto& row :
         words::steadyTable({}, m_session.project()->steadyAtMarks(pull), m_session.units()).rows) {
        const auto cell = [&](std::size_t k) { return qs(row.cells[k]); };
        const auto head =
            cell(1) + (row.cells[6].empty() ? QString() : QStringLiteral(" (⚠ %1)").arg(cell(6)));
        if (out.isEmpty() || !out.contains(head)) out << head;
        auto line = QStringLiteral("  %1: %2 ± %3").arg(cell(2), cell(3), cell(4));
        if (!row.cells[5].empty()) line += tr(", %1 of the legs").arg(cell(5));
        out << line;
    }
    return out.join('\n');
}

void Ledger::applyStanding() {
    if (!m_session.project() || !m_session.pull()) return;
    const auto standing = static_cast<domain::Standing>(m_standing->currentData().toInt());
    if (m_session.tell(work::setStanding(*m_session.project(), m_session.pull(), standing, m_reason->text())))
        m_session.say(tr("%1 now stands as: %2. Ctrl+Z takes it back.")
                          .arg(m_title->text(), QString::fromUtf8(domain::word(standing))));
    else
        m_reason->setFocus();
}

void Ledger::refresh() {
    if (m_notePull && m_notePull != m_session.pull() && m_note->document()->isModified()) {
        m_note->document()->setModified(false); // once: saving comes back here
        saveNote();
    }
    m_filling = true;
    const auto* data = m_session.study();
    const auto* pull = data ? data->pull(m_session.pull()) : nullptr;
    m_edits->setVisible(pull != nullptr);
    m_number->setVisible(pull != nullptr);
    m_curve->setVisible(false);
    if (const auto now = pull ? pull->id : 0; now != m_shown) { // another card: its forms are closed
        m_shown = now;
        for (auto* line : {m_stands, m_brokeLine, m_whereLine, m_sharesLine, m_afterwardsLine, m_noteLine,
                           m_phasesLine, m_elsewhereLine, m_publishedLine})
            line->open(false);
    }
    m_edits->setEnabled(!m_session.readOnly());
    if (!pull) {
        const auto* option = data ? data->option(m_session.option()) : nullptr;
        m_title->setText(option ? qs(option->name) : tr("Nothing selected"));
        m_place->setText(option ? tr("No pull in this square yet.")
                                : tr("Click a mark on the board to see its facts here."));
        m_filling = false;
        return;
    }
    m_interrupted->setVisible(pull->recording == domain::Recording::interrupted);
    const auto* s = &data->specimenAt(pull->specimen);
    m_title->setText(qs(s->label));
    m_place->setText(tr("%1, %2, replicate %3")
                         .arg(qs(data->optionAt(s->option).name), qs(data->conditionAt(s->condition).name))
                         .arg(s->replicate));
    const auto* curve = m_session.readings().find(pull->id);
    const auto standing = results::standingOf(*m_session.study(), *pull, curve);
    int at = m_standing->findData(static_cast<int>(standing));
    if (at < 0) { // at most and between come only from typed results
        m_standing->addItem(QString::fromUtf8(domain::word(standing)), static_cast<int>(standing));
        at = m_standing->count() - 1;
    }
    m_standing->setCurrentIndex(at);
    const bool counts = standing == domain::Standing::counts;
    m_reason->setText(qs(results::reasonOf(*m_session.study(), *pull, curve)));
    m_reason->setVisible(!counts);
    m_reasonHint->setVisible(!counts);
    m_apply->setVisible(!counts);
    fillBroke(*data, *pull, *s);
    m_where->setText(qs(pull->outcome.where));
    std::vector<QStringList> shares;
    shares.reserve(pull->outcome.shares.size());
    for (const auto& share : pull->outcome.shares)
        shares.push_back({qs(share.mode), qs(quantity::shortest(100 * share.share))});
    m_shares->setRows(shares);
    m_afterwards->setText(qs(pull->outcome.afterwards));
    m_unloading->setChecked(pull->outcome.whileUnloading);
    m_elsewhere->setText(qs(pull->outcome.elsewhere));
    auto asked = *pull;
    asked.looked = false;
    QStringList remarks;
    for (const auto& w : results::needsLook(asked, m_session.readings()))
        remarks << qs(w);
    m_remarks->setText(remarks.join("\n"));
    m_remarks->setVisible(!remarks.isEmpty());
    m_looked->setVisible(!remarks.isEmpty());
    m_looked->setChecked(pull->looked);
    // A note that is being typed is not taken away by what changes elsewhere.
    if (!(m_note->hasFocus() && m_notePull == pull->id && m_note->document()->isModified()))
        m_note->setPlainText(qs(pull->note));
    m_notePull = pull->id;
    m_noteFile = m_session.project()->file().path();
    fillPhases(*pull);
    m_pictures->refresh();
    fillCard(*data, *pull, *s);
    const auto steady = steadyText(pull->id);
    m_steady->setText(steady);
    m_steady->setVisible(!steady.isEmpty());
    m_steadyHead->setVisible(!steady.isEmpty());
    QStringList facts;
    const auto timing = [&](const domain::Pull& p) { return work::wallTiming(*data, p); };
    for (const auto& fact : words::factsOf(*data, *pull, *s, m_session.readings(), m_session.units(), timing))
        facts << qs(fact);
    m_facts->setText(facts.join("\n"));
    QStringList history;
    for (const auto& j : m_session.project()->file().historyOfPull(pull->id, 4))
        history << QStringLiteral("%1  %2").arg(QString(j.at).left(16).replace('T', ' '), j.what);
    m_history->setText(history.join("\n"));
    m_filling = false;
}

} // namespace anvil::app
