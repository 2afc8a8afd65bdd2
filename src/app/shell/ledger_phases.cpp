// The phases of a pull in the ledger.
#include "shell/ledger.h"

#include "shell/ledger_line.h"
#include "theme/theme.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include "widgets/row_editor.h"
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

namespace anvil::app {

namespace {

constexpr double curveHeight = 84;

} // namespace

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
    if (m_session.tell(phases)) m_session.tell(project::setPhases(*m_session.project(), pull->id, *phases));
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
    const auto reason = qs(words::reasonOf(*m_session.study(), pull, reading));
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

} // namespace anvil::app
