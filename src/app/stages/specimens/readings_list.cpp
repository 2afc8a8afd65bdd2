#include "stages/specimens/readings_list.h"

#include "widgets/plain_text.h"
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {
namespace {

std::vector<QStringList> rowsOf(const std::vector<domain::Measured>& measured, const quantity::Unit& unit) {
    std::size_t most = 0;
    for (const auto& m : measured)
        most = std::max(most, m.readings.size());
    std::vector<QStringList> out(most);
    for (std::size_t r = 0; r < most; ++r)
        for (const auto& m : measured)
            out[r] << (r < m.readings.size() ? qs(quantity::asEntered(m.readings[r], unit)) : QString());
    return out;
}

/// What a cell says; a reading that was not touched stays as it was, to the last digit.
Expected<double> readingFrom(const QString& text, const domain::Measured& before,
                             const quantity::Unit& unit) {
    for (const double known : before.readings)
        if (qs(quantity::asEntered(known, unit)) == text) return known;
    const auto entry = quantity::parseEntry(text.toStdString(), quantity::Dimension::length, &unit);
    if (!entry) return tl::unexpected(entry.error());
    if (!(entry->si > 0)) return fail("A length of zero or less cannot be.");
    return entry->si;
}

} // namespace

ReadingsList::ReadingsList(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(m_head = plainLabel());
    m_rows = new RowEditor({QString()}, tr("Readings of the selected piece"));
    m_rows->setObjectName("readings");
    layout->addWidget(m_rows);
    connect(m_rows, &RowEditor::edited, this, &ReadingsList::save);
}

void ReadingsList::showPiece(const domain::Specimen* piece) {
    m_piece = piece ? piece->id : 0;
    setVisible(piece && !piece->measured.empty());
    if (!piece || piece->measured.empty()) return;
    const auto& unit = *m_session.units().length;
    m_head->setText(tr("Readings of %1: a row each, averaged").arg(qs(piece->label)));
    QStringList heads;
    for (const auto& m : piece->measured)
        heads << tr("%1 (%2)").arg(qs(m.name), qs(std::string(unit.symbol)));
    m_rows->setHeads(heads);
    m_rows->setRows(rowsOf(piece->measured, unit));
}

void ReadingsList::save() {
    const auto* data = m_session.study();
    const auto* piece = data ? data->specimen(m_piece) : nullptr;
    if (!piece) return;
    auto measured = piece->measured;
    for (auto& m : measured)
        m.readings.clear();
    for (const auto& row : m_rows->rows())
        for (std::size_t k = 0; k < measured.size(); ++k) {
            const auto text = row.value(static_cast<int>(k));
            if (text.isEmpty()) continue;
            const auto reading = readingFrom(text, piece->measured[k], *m_session.units().length);
            if (!m_session.tell(reading)) return showPiece(piece);
            measured[k].readings.push_back(*reading);
        }
    if (measured == piece->measured) return;
    if (!m_session.tell(
            m_session.project()->changeSpecimen(m_piece, tr("%1: readings").arg(qs(piece->label)),
                                                [&](domain::Specimen& p) { p.measured = measured; })))
        showPiece(data->specimen(m_piece));
}

} // namespace anvil::app
