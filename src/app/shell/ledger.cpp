#include "shell/ledger.h"

#include "shell/ledger_line.h"
#include "shell/pictures_list.h"
#include "theme/theme.h"
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
#include <anvil/project/pull_commands.h>
#include <anvil/project/telling_commands.h>
#include <anvil/project/wall_clock.h>
#include <anvil/quantity/print.h>
#include <anvil/results/corrections.h>
#include <anvil/results/ends.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>
#include <anvil/words/corrections.h>
#include <anvil/words/pull.h>
#include <anvil/words/stands.h>
#include <set>

namespace anvil::app {
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
    if (m_session.tell(project::explainCorrection(*m_session.project(), m_session.studyId(), m_session.pull(),
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
        m_session.tell(project::changeOutcome(*m_session.project(), pull->id, outcome,
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
    m_session.tell(project::changeOutcome(*m_session.project(), pull->id, outcome,
                                          tr("%1: shares of the failure").arg(m_title->text())));
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
    const auto standing = domain::standingFromKey(m_standing->currentData().toString().toStdString())
                              .value_or(domain::Standing::counts);
    if (m_session.tell(
            project::setStanding(*m_session.project(), m_session.pull(), standing, m_reason->text())))
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
    fillStanding(*data, *pull);
    fillBroke(*data, *pull, *s);
    fillEnding(pull->outcome);
    fillRemarks(*pull);
    // A note that is being typed is not taken away by what changes elsewhere.
    if (!(m_note->hasFocus() && m_notePull == pull->id && m_note->document()->isModified()))
        m_note->setPlainText(qs(pull->note));
    m_notePull = pull->id;
    m_noteFile = m_session.project()->file().path();
    fillPhases(*pull);
    m_pictures->refresh();
    fillCard(*data, *pull, *s);
    fillFacts(*data, *pull, *s);
    m_filling = false;
}

QString Ledger::keyOf(domain::Standing standing) { return QString::fromUtf8(domain::key(standing)); }

void Ledger::fillStanding(const domain::StudyData& data, const domain::Pull& pull) {
    const auto* curve = m_session.readings().find(pull.id);
    const auto standing = results::standingOf(data, pull, curve);
    int at = m_standing->findData(keyOf(standing));
    if (at < 0) { // at most and between come only from typed results
        m_standing->addItem(QString::fromUtf8(domain::word(standing)), keyOf(standing));
        at = m_standing->count() - 1;
    }
    m_standing->setCurrentIndex(at);
    const bool counts = standing == domain::Standing::counts;
    m_reason->setText(qs(words::reasonOf(data, pull, curve)));
    m_reason->setVisible(!counts);
    m_reasonHint->setVisible(!counts);
    m_apply->setVisible(!counts);
}

void Ledger::fillEnding(const domain::Outcome& outcome) {
    m_where->setText(qs(outcome.where));
    std::vector<QStringList> shares;
    shares.reserve(outcome.shares.size());
    for (const auto& share : outcome.shares)
        shares.push_back({qs(share.mode), qs(quantity::shortest(100 * share.share))});
    m_shares->setRows(shares);
    m_afterwards->setText(qs(outcome.afterwards));
    m_unloading->setChecked(outcome.whileUnloading);
    m_elsewhere->setText(qs(outcome.elsewhere));
}

void Ledger::fillRemarks(const domain::Pull& pull) {
    auto asked = pull;
    asked.looked = false;
    QStringList remarks;
    for (const auto& w : results::needsLook(asked, m_session.readings()))
        remarks << qs(w);
    m_remarks->setText(remarks.join("\n"));
    m_remarks->setVisible(!remarks.isEmpty());
    m_looked->setVisible(!remarks.isEmpty());
    m_looked->setChecked(pull.looked);
}

void Ledger::fillFacts(const domain::StudyData& data, const domain::Pull& pull,
                       const domain::Specimen& piece) {
    const auto steady = steadyText(pull.id);
    m_steady->setText(steady);
    m_steady->setVisible(!steady.isEmpty());
    m_steadyHead->setVisible(!steady.isEmpty());
    QStringList facts;
    const auto timing = [&](const domain::Pull& p) { return project::wallTiming(data, p); };
    for (const auto& fact :
         words::factsOf(data, pull, piece, m_session.readings(), m_session.units(), timing))
        facts << qs(fact);
    m_facts->setText(facts.join("\n"));
    QStringList history;
    for (const auto& j : m_session.project()->file().historyOfPull(pull.id, 4))
        history << QStringLiteral("%1  %2").arg(QString(j.at).left(16).replace('T', ' '), j.what);
    m_history->setText(history.join("\n"));
}

} // namespace anvil::app
