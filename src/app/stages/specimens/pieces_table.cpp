// What the table of the pieces shows.
#include "stages/specimens/pieces_panel.h"

#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <anvil/plan/pieces.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <anvil/results/inputs.h>
#include <anvil/results/values.h>
#include <anvil/words/pull.h>

namespace anvil::app {

namespace {

/// Shows more than is edited: the number alone goes into the editor.
class MeasuredItem : public QTableWidgetItem {
public:
    QVariant data(int role) const override {
        return role == Qt::EditRole && !m_edited.isEmpty() ? m_edited : QTableWidgetItem::data(role);
    }
    /// Typing replaces both.
    void setData(int role, const QVariant& value) override {
        if (role == Qt::EditRole) m_edited.clear();
        QTableWidgetItem::setData(role, value);
    }
    void show(const QString& number, const QString& remark) {
        setText(number + remark);
        m_edited = number;
    }

private:
    QString m_edited;
};

} // namespace

void PiecesPanel::hideEmptyColumns() {
    bool any = false;
    for (int k = 0; k < static_cast<int>(m_columns.size()); ++k) {
        const auto& column = m_columns[static_cast<std::size_t>(k)];
        const bool asked = column.input && column.input->needed;
        bool empty = column.kind == PieceColumn::Kind::text || (column.input && !asked);
        for (int row = 0; empty && row < m_table->rowCount(); ++row)
            empty = m_table->item(row, k)->text().isEmpty();
        any = any || empty;
        m_table->setColumnHidden(k, empty && !m_allColumns->isChecked());
    }
    m_allColumns->setVisible(any);
    m_table->horizontalHeader()->setStretchLastSection(false); // the last one now is another
    m_table->resizeColumnsToContents();
    m_table->horizontalHeader()->setStretchLastSection(true);
}

std::vector<PiecesPanel::PieceColumn> PiecesPanel::columnsOf(const domain::StudyData& data) const {
    const auto length = qs(std::string(m_session.units().length->symbol));
    std::vector<PieceColumn> out{{PieceColumn::Kind::label, tr("Label"), {}},
                                 {PieceColumn::Kind::option, tr("Option"), {}},
                                 {PieceColumn::Kind::condition, tr("Condition"), {}},
                                 {PieceColumn::Kind::state, tr("State"), {}}};
    std::vector<QString> names;
    bool area = false;
    for (const auto& s : data.specimens) {
        area = area || plan::derivedArea(s.measured).has_value();
        for (const auto& m : s.measured)
            if (std::find(names.begin(), names.end(), qs(m.name)) == names.end()) names.push_back(qs(m.name));
    }
    for (const auto& n : names)
        out.push_back({PieceColumn::Kind::dimension, tr("%1 (%2)").arg(n, length), n});
    if (area)
        out.push_back(
            {PieceColumn::Kind::area,
             tr("Area (%1)").arg(qs(std::string(m_session.units().of(quantity::Dimension::area).symbol))),
             {}});
    for (const auto& input :
         results::methodOf(data.study.plan).inputs) { // what its method asks for of a piece
        if (input.of != methods::Of::specimen) continue;
        const auto title = qs(input.title);
        const bool measure = methods::isLength(input);
        const bool there = std::any_of(names.begin(), names.end(), [&](const QString& n) {
            return methods::inputMeasured(results::methodOf(data.study.plan), n.toStdString()) == &input;
        });
        if (measure && !there)
            out.push_back({PieceColumn::Kind::dimension, tr("%1 (%2)").arg(title, length), title, &input});
        else if (!measure)
            out.push_back({PieceColumn::Kind::input, title, qs(input.key), &input});
    }
    out.push_back({PieceColumn::Kind::text, tr("Batch"), "batch"});
    out.push_back({PieceColumn::Kind::text, tr("Made in"), "block"});
    if (!plan::sheets(data).empty())
        for (const char* axis : {"x", "y"})
            out.push_back({PieceColumn::Kind::place, tr("%1 (%2)").arg(QString::fromLatin1(axis), length),
                           QString::fromLatin1(axis)});
    out.push_back({PieceColumn::Kind::text, tr("History"), "history"});
    return out;
}

void PiecesPanel::fill() {
    const auto* data = m_session.study();
    const int missing = data ? static_cast<int>(domain::missingPieces(*data).size()) : 0;
    m_makeRow->setVisible(missing > 0);
    m_make->setText(missing == 1 ? tr("Make 1 piece") : tr("Make %1 pieces").arg(missing));
    m_scheme->setText(data ? qs(data->study.plan.labelScheme) : QString());
    m_option->clear();
    m_condition->clear();
    m_columns = data ? columnsOf(*data) : std::vector<PieceColumn>{};
    m_table->setColumnCount(static_cast<int>(m_columns.size()));
    QStringList heads;
    for (const auto& c : m_columns)
        heads << c.head;
    m_table->setHorizontalHeaderLabels(heads);
    m_table->setRowCount(data ? static_cast<int>(data->specimens.size()) : 0);
    if (!data) return;
    for (const auto& o : data->options)
        m_option->addItem(qs(o.name), o.id);
    for (const auto& c : data->conditions)
        m_condition->addItem(qs(c.name), c.id);
    for (int row = 0; row < m_table->rowCount(); ++row)
        fillRow(row, data->specimens[static_cast<std::size_t>(row)]);
    hideEmptyColumns();
    showSelection();
}

QString PiecesPanel::tipOf(const domain::Measured& m) const {
    const auto& length = *m_session.units().length;
    QStringList out;
    if (m.readings.size() > 1) out << tr("the mean of %1 readings").arg(m.readings.size());
    if (m.nominal)
        out << tr("wanted %1 ± %2")
                   .arg(qs(quantity::withUnit(*m.nominal, length)),
                        qs(quantity::withUnit(m.tolerance.value_or(0), length)));
    return out.join(QStringLiteral("; "));
}

QTableWidgetItem* PiecesPanel::dimensionCell(const domain::Specimen& s, const QString& name) const {
    const auto m =
        std::find_if(s.measured.begin(), s.measured.end(), [&](const auto& x) { return qs(x.name) == name; });
    auto* item = new MeasuredItem;
    if (m == s.measured.end()) return item;
    setTip(item, tipOf(*m));
    const auto mean = m->mean();
    if (!mean) return item;
    const auto fit = m->fit();
    QString remark;
    if (m->readings.size() > 1) remark += tr("  of %1").arg(m->readings.size());
    if (fit == domain::Fit::tooLarge) remark += tr("  \u25b2 too large");
    if (fit == domain::Fit::tooSmall) remark += tr("  \u25bc too small");
    item->show(qs(quantity::significant(m_session.units().length->fromSi(*mean))), remark);
    if (fit != domain::Fit::fits) item->setForeground(theme().warn);
    return item;
}

QTableWidgetItem* PiecesPanel::cellOf(const PieceColumn& column, const domain::Specimen& s,
                                      const QString& state) const {
    const auto& data = *m_session.study();
    using Kind = PieceColumn::Kind;
    switch (column.kind) {
    case Kind::label:
        return new QTableWidgetItem(qs(s.label));
    case Kind::option:
        return new QTableWidgetItem(qs(data.optionAt(s.option).name));
    case Kind::condition:
        return new QTableWidgetItem(qs(data.conditionAt(s.condition).name));
    case Kind::state:
        return new QTableWidgetItem(state);
    case Kind::dimension:
        return dimensionCell(s, column.key);
    case Kind::input: {
        auto* item = new QTableWidgetItem(qs(results::textOf(s.inputs, *column.input)));
        const auto hint = qs(column.input->hint);
        setTip(item, column.input->form == methods::Form::perLeg
                         ? tr("%1, leg by leg, such as 0°; 120°; 240°").arg(hint)
                         : hint);
        return item;
    }
    case Kind::area: {
        const auto area = plan::derivedArea(s.measured);
        if (!area) break;
        const auto& unit = m_session.units().of(quantity::Dimension::area);
        auto* item = new QTableWidgetItem(qs(quantity::significant(unit.fromSi(area->value))));
        setTip(item, tr("worked out as %1").arg(qs(area->how)));
        return item;
    }
    case Kind::text:
        return new QTableWidgetItem(qs(column.key == "batch"   ? s.batch
                                       : column.key == "block" ? s.block
                                                               : s.history));
    case Kind::place: {
        const auto& at = column.key == "x" ? s.x : s.y;
        if (!at) break;
        return new QTableWidgetItem(qs(quantity::significant(m_session.units().length->fromSi(*at))));
    }
    }
    return new QTableWidgetItem;
}

bool PiecesPanel::isTyped(const PieceColumn& column, const domain::Specimen& s) {
    using Kind = PieceColumn::Kind;
    if (column.kind == Kind::dimension) { // of several readings each is typed below
        const auto m = std::find_if(s.measured.begin(), s.measured.end(),
                                    [&](const auto& x) { return qs(x.name) == column.key; });
        return m == s.measured.end() || m->readings.size() < 2;
    }
    return column.kind == Kind::label || column.kind == Kind::input || column.kind == Kind::text ||
           column.kind == Kind::place;
}

void PiecesPanel::fillRow(int row, const domain::Specimen& s) {
    const auto& data = *m_session.study();
    const auto prepared = m_session.preparation();
    Id pull = 0;
    QString state = !prepared || *prepared >= 1 ? tr("ready") : tr("in preparation");
    for (const auto& p : data.pulls)
        if (p.specimen == s.id && !p.practice) {
            pull = p.id;
            state = qs(words::standsText(p, results::standingOf(data, p, m_session.readings().find(p.id))));
        }
    for (int k = 0; k < static_cast<int>(m_columns.size()); ++k) {
        const auto& column = m_columns[static_cast<std::size_t>(k)];
        auto* item = cellOf(column, s, state);
        item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                       (isTyped(column, s) ? Qt::ItemIsEditable : Qt::NoItemFlags));
        item->setData(pieceRole, s.id);
        item->setData(pullRole, pull);
        m_table->setItem(row, k, item);
    }
}

} // namespace anvil::app
