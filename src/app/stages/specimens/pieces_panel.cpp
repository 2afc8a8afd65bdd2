#include "stages/specimens/pieces_panel.h"

#include "stages/specimens/readings_list.h"
#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/flow_layout.h"
#include "widgets/paste.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QShortcut>
#include <QTableWidget>
#include <anvil/pages/labels.h>
#include <anvil/plan/pieces.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <anvil/results/inputs.h>
#include <anvil/results/values.h>
#include <anvil/words/pull.h>
#include <anvil/work/board_commands.h>
#include <anvil/work/input_commands.h>
#include <anvil/work/plan_commands.h>

namespace anvil::app {

namespace {

constexpr int pieceRole = Qt::UserRole, pullRole = Qt::UserRole + 1;

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

PiecesPanel::PiecesPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(makeMakeRow());
    m_table = makeTable({}, "specimens");
    m_table->setSelectionBehavior(QAbstractItemView::SelectItems);
    m_table->setAccessibleName(tr("Pieces"));
    layout->addWidget(m_table, 1);
    layout->addWidget(m_readings = new ReadingsList(session));
    layout->addLayout(makeAskRow());
    auto* keys = new QShortcut(QKeySequence::Paste, m_table, this, [this] { paste(); });
    keys->setContext(Qt::WidgetShortcut);
    connect(m_table, &QTableWidget::cellChanged, this, &PiecesPanel::edited);
    connect(m_table, &QTableWidget::currentCellChanged, this, [this](int row) { selected(row); });
    connect(&session, &Session::selectionChanged, this, &PiecesPanel::showSelection);
    follow();
}

QWidget* PiecesPanel::makeMakeRow() {
    m_makeRow = new QWidget;
    auto* row = new QHBoxLayout(m_makeRow);
    row->setContentsMargins(0, 0, 0, 0);
    m_make = new QPushButton(icon("plus", true), QString());
    m_make->setObjectName("primary");
    m_batch = field("batch", tr("batch, such as: box of May"), 240);
    m_scheme = field("labelScheme", tr("{A}{1}-{n}"), 160);
    setTip(m_scheme, tr("How new labels read: {A} or {a} the option's letter, {1} the condition's number, "
                        "{option} and {condition} their names, {n} the replicate"));
    row->addWidget(m_make);
    row->addWidget(plainLabel(tr("from")));
    row->addWidget(m_batch);
    row->addWidget(plainLabel(tr("labelled")));
    row->addWidget(m_scheme);
    row->addStretch();
    connect(m_make, &QPushButton::clicked, this, [this] {
        const auto made = work::makePieces(*m_session.project(), m_session.studyId(), m_batch->text());
        if (m_session.tell(made))
            m_session.say(tr("%1 pieces made. Their labels are never used again.").arg(*made));
    });
    connect(m_batch, &QLineEdit::returnPressed, m_make, &QPushButton::click);
    whenEdited(m_scheme, this, [this] {
        const auto* data = m_session.study();
        const auto scheme = m_scheme->text().simplified().toStdString();
        if (!filling() && data && scheme != data->study.plan.labelScheme)
            m_session.tell(work::changePlan(*m_session.project(), m_session.studyId(), tr("How labels read"),
                                            [&](domain::Plan& p) { p.labelScheme = scheme; }));
    });
    return m_makeRow;
}

/// Forms that stand open only when they are asked for; the table has the room otherwise.
QLayout* PiecesPanel::makeAskRow() {
    auto* all = new QVBoxLayout;
    auto* row = new FlowLayout;
    const auto ask = [&](const QString& text, QWidget* form) {
        auto* button = new QPushButton(text);
        button->setCheckable(true);
        row->addWidget(button);
        if (form) {
            form->hide();
            all->addWidget(form);
            connect(button, &QPushButton::toggled, form, &QWidget::setVisible);
        }
        return button;
    };
    ask(tr("Measure more…"), makeMeasureRow());
    m_askReadings = ask(tr("Readings…"), nullptr);
    setTip(m_askReadings, tr("Several readings of one measure, a row each, averaged"));
    connect(m_askReadings, &QPushButton::toggled, this, &PiecesPanel::showReadings);
    ask(tr("Move…"), makeMoveRow());
    m_allColumns = ask(tr("Empty columns"), nullptr);
    setTip(m_allColumns, tr("Shows columns in which no piece has anything yet"));
    connect(m_allColumns, &QPushButton::toggled, this, &PiecesPanel::hideEmptyColumns);
    addLabels(row);
    all->addLayout(row);
    return all;
}

QWidget* PiecesPanel::makeMeasureRow() {
    auto* form = new QWidget;
    auto* row = new QHBoxLayout(form);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(plainLabel(tr("Measure")));
    row->addWidget(m_dimension = field("dimension", tr("such as: depth"), 150));
    row->addWidget(plainLabel(tr("wanted")));
    row->addWidget(m_nominal = field("nominal", tr("such as 3 1/4 in"), 120));
    row->addWidget(plainLabel(tr("±")));
    row->addWidget(m_tolerance = field("tolerance", tr("such as 0.5 mm"), 130));
    auto* add = new QPushButton(tr("Add"));
    add->setObjectName("addDimension");
    row->addWidget(add);
    row->addStretch();
    connect(add, &QPushButton::clicked, this, &PiecesPanel::addDimension);
    connect(m_dimension, &QLineEdit::returnPressed, this, &PiecesPanel::addDimension);
    return form;
}

QWidget* PiecesPanel::makeMoveRow() {
    auto* form = new QWidget;
    auto* row = new QHBoxLayout(form);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(plainLabel(tr("Move the selected piece to")));
    m_option = new QComboBox;
    m_condition = new QComboBox;
    for (auto* box : {m_option, m_condition}) {
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(6);
        row->addWidget(box, 1);
    }
    auto* button = new QPushButton(tr("Move"));
    button->setObjectName("moveSpecimen");
    row->addWidget(button);
    connect(button, &QPushButton::clicked, this, [this] {
        const auto* item = m_table->item(m_table->currentRow(), 0);
        if (!item) return m_session.say(tr("Select the piece to move first."));
        m_session.tell(work::moveSpecimen(*m_session.project(), item->data(pieceRole).toLongLong(),
                                          m_option->currentData().toLongLong(),
                                          m_condition->currentData().toLongLong()));
    });
    return form;
}

void PiecesPanel::addLabels(QLayout* row) {
    m_code = new QComboBox;
    m_code->setObjectName("labelCode");
    m_code->setAccessibleName(tr("The code on the labels"));
    m_code->addItem(tr("bar code"), static_cast<int>(pages::Code::bars));
    m_code->addItem(tr("QR code"), static_cast<int>(pages::Code::qr));
    row->addWidget(m_code);
    auto* labels = new QPushButton(icon("printer"), tr("Labels…"));
    labels->setObjectName("labels");
    row->addWidget(labels);
    connect(labels, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(this, tr("Save the labels"),
                                                       QStringLiteral("labels.pdf"), tr("PDF (*.pdf)"));
        if (!path.isEmpty()) writeLabels(path);
    });
}

/// Fields of a piece that nobody has filled are no columns, unless they are asked for.
void PiecesPanel::hideEmptyColumns() {
    bool any = false;
    for (int k = 0; k < static_cast<int>(m_columns.size()); ++k) {
        const auto& column = m_columns[static_cast<std::size_t>(k)];
        const bool asked = column.input && column.input->needed;
        bool empty = column.kind == Column::Kind::text || (column.input && !asked);
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

std::vector<PiecesPanel::Column> PiecesPanel::columnsOf(const domain::StudyData& data) const {
    const auto length = qs(std::string(m_session.units().length->symbol));
    std::vector<Column> out{{Column::Kind::label, tr("Label"), {}},
                            {Column::Kind::option, tr("Option"), {}},
                            {Column::Kind::condition, tr("Condition"), {}},
                            {Column::Kind::state, tr("State"), {}}};
    std::vector<QString> names;
    bool area = false;
    for (const auto& s : data.specimens) {
        area = area || plan::derivedArea(s.measured).has_value();
        for (const auto& m : s.measured)
            if (std::find(names.begin(), names.end(), qs(m.name)) == names.end()) names.push_back(qs(m.name));
    }
    for (const auto& n : names)
        out.push_back({Column::Kind::dimension, tr("%1 (%2)").arg(n, length), n});
    if (area)
        out.push_back(
            {Column::Kind::area,
             tr("Area (%1)").arg(qs(std::string(m_session.units().of(quantity::Dimension::area).symbol))),
             {}});
    for (const auto& input :
         results::methodOf(data.study.plan).inputs) { // what its method asks for of a piece
        if (input.of != methods::Of::specimen) continue;
        const auto title = qs(input.title);
        const bool measure =
            input.dimension == quantity::Dimension::length && input.form != methods::Form::perLeg;
        const bool there = std::any_of(names.begin(), names.end(), [&](const QString& n) {
            return n.compare(title, Qt::CaseInsensitive) == 0 ||
                   n.compare(qs(input.key), Qt::CaseInsensitive) == 0;
        });
        if (measure && !there)
            out.push_back({Column::Kind::dimension, tr("%1 (%2)").arg(title, length), title, &input});
        else if (!measure)
            out.push_back({Column::Kind::input, title, qs(input.key), &input});
    }
    out.push_back({Column::Kind::text, tr("Batch"), "batch"});
    out.push_back({Column::Kind::text, tr("Made in"), "block"});
    if (!plan::sheets(data).empty())
        for (const char* axis : {"x", "y"})
            out.push_back({Column::Kind::place, tr("%1 (%2)").arg(QString::fromLatin1(axis), length),
                           QString::fromLatin1(axis)});
    out.push_back({Column::Kind::text, tr("History"), "history"});
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
    m_columns = data ? columnsOf(*data) : std::vector<Column>{};
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

QTableWidgetItem* PiecesPanel::cellOf(const Column& column, const domain::Specimen& s,
                                      const QString& state) const {
    const auto& data = *m_session.study();
    using Kind = Column::Kind;
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

bool PiecesPanel::isTyped(const Column& column, const domain::Specimen& s) {
    using Kind = Column::Kind;
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

void PiecesPanel::selected(int row) {
    const auto* item = m_table->item(row, 0);
    const auto* data = m_session.study();
    if (!item || filling() || !data) return;
    showReadings();
    if (const auto pull = item->data(pullRole).toLongLong())
        m_session.selectPull(pull);
    else if (const auto* s = data->specimen(item->data(pieceRole).toLongLong()))
        m_session.selectSquare(s->option, s->condition);
}

void PiecesPanel::showReadings() {
    const auto* item = m_table->item(m_table->currentRow(), 0);
    const auto* data = m_session.study();
    m_readings->showPiece(item && data && m_askReadings->isChecked()
                              ? data->specimen(item->data(pieceRole).toLongLong())
                              : nullptr);
}

void PiecesPanel::showSelection() {
    const QSignalBlocker quiet(m_table);
    for (int i = 0; i < m_table->rowCount(); ++i)
        if (m_session.pull() && m_table->item(i, 0)->data(pullRole).toLongLong() == m_session.pull() &&
            m_table->currentRow() != i)
            m_table->setCurrentCell(i, 0);
    showReadings();
    m_option->setCurrentIndex(m_option->findData(m_session.option()));
    m_condition->setCurrentIndex(m_condition->findData(m_session.condition()));
}

void PiecesPanel::edited(int row, int column) {
    const auto* data = m_session.study();
    if (filling() || !data || row >= static_cast<int>(data->specimens.size())) return;
    const auto& s = data->specimens[static_cast<std::size_t>(row)];
    const auto& what = m_columns[static_cast<std::size_t>(column)];
    const auto text = m_table->item(row, column)->text().simplified();
    const auto label = qs(s.label);
    const auto refuse = [&](const QString& why) {
        m_session.say(why, true);
        refill();
    };
    const auto save = [&](const QString& name, const std::function<void(domain::Specimen&)>& change) {
        if (!m_session.tell(m_session.project()->changeSpecimen(s.id, name, change))) refill();
    };
    const auto named = tr("%1: %2").arg(label, what.head);
    switch (what.kind) {
    case Column::Kind::label:
        if (text.isEmpty()) return refuse(tr("A piece needs a label."));
        for (const auto& other : data->specimens)
            if (other.id != s.id && qs(other.label) == text)
                return refuse(tr("%1 is taken: labels are never used twice.").arg(text));
        return save(tr("Label %1 → %2").arg(label, text),
                    [&](domain::Specimen& p) { p.label = text.toStdString(); });
    case Column::Kind::text:
        return save(named, [&](domain::Specimen& p) {
            (what.key == "batch" ? p.batch : what.key == "block" ? p.block : p.history) = text.toStdString();
        });
    case Column::Kind::place: {
        const auto place = [&](std::optional<double> at) {
            save(named, [&](domain::Specimen& p) { (what.key == "x" ? p.x : p.y) = at; });
        };
        if (text.isEmpty()) return place({});
        const auto entry =
            quantity::parseEntry(text.toStdString(), quantity::Dimension::length, m_session.units().length);
        if (!entry) return refuse(qs(entry.error().message));
        if (entry->si < 0)
            return refuse(tr("Places are counted from the lower left corner, so they cannot be below zero."));
        return place(entry->si);
    }
    case Column::Kind::dimension:
        return measuredEdited(s, what.key.toStdString(), text);
    case Column::Kind::input: {
        const auto unitOf = [this](quantity::Dimension d) { return m_session.typedUnit(d); };
        if (!m_session.tell(
                work::tellOfPiece(*m_session.project(), s.id, *what.input, text.toStdString(), unitOf)))
            refill();
        return;
    }
    case Column::Kind::option:
    case Column::Kind::condition:
    case Column::Kind::state:
    case Column::Kind::area:
        break;
    }
    refill();
}

void PiecesPanel::measuredEdited(const domain::Specimen& s, const std::string& name, const QString& text) {
    std::vector<double> readings;
    if (!text.isEmpty()) {
        const auto entry =
            quantity::parseEntry(text.toStdString(), quantity::Dimension::length, m_session.units().length);
        if (!m_session.tell(entry)) return refill();
        if (!(entry->si > 0)) {
            m_session.say(tr("A length of zero or less cannot be."), true);
            return refill();
        }
        readings.push_back(entry->si);
    }
    auto measured = s.measured;
    const auto at =
        std::find_if(measured.begin(), measured.end(), [&](const auto& m) { return m.name == name; });
    if (at != measured.end() && at->readings.size() == 1 &&
        text == qs(quantity::significant(m_session.units().length->fromSi(at->readings[0]))))
        return refill(); // what was not touched stays, to the last digit
    if (at != measured.end())
        at->readings = readings;
    else
        measured.push_back({name, std::nullopt, std::nullopt, readings});
    m_session.tell(m_session.project()->changeSpecimen(s.id, tr("%1: %2").arg(qs(s.label), qs(name)),
                                                       [&](domain::Specimen& p) { p.measured = measured; }));
}

void PiecesPanel::addDimension() {
    const auto* data = m_session.study();
    const auto name = m_dimension->text().simplified();
    if (!data || data->specimens.empty()) return m_session.say(tr("There is no piece to measure yet."), true);
    if (name.isEmpty()) return m_session.say(tr("Type what is measured, such as: depth."), true);
    domain::Measured fresh{name.toStdString(), std::nullopt, std::nullopt, {}};
    for (const auto& [edit, target] :
         {std::pair{m_nominal, &fresh.nominal}, std::pair{m_tolerance, &fresh.tolerance}}) {
        if (edit->text().trimmed().isEmpty()) continue;
        const auto entry = quantity::parseEntry(edit->text().toStdString(), quantity::Dimension::length,
                                                m_session.units().length);
        if (!m_session.tell(entry)) return;
        *target = std::abs(entry->si);
    }
    const auto done = work::measureAll(*m_session.project(), data->study.id, fresh);
    if (!m_session.tell(done)) return;
    m_dimension->clear();
    for (std::size_t k = 0; k < m_columns.size(); ++k)
        if (m_columns[k].key == name) m_table->setCurrentCell(0, static_cast<int>(k));
    m_table->setFocus();
}

void PiecesPanel::paste() {
    if (!m_session.project()) return;
    int taken = 0;
    m_session.project()->together([&] { taken = pasteInto(*m_table); });
    m_session.say(taken ? tr("%1 cells taken; one Ctrl+Z takes them back.").arg(taken)
                        : tr("There is nothing new to paste."));
}

bool PiecesPanel::writeLabels(const QString& path) {
    const auto* data = m_session.study();
    std::vector<pages::PieceLabel> labels;
    if (data)
        for (const auto& s : data->specimens)
            if (std::none_of(data->pulls.begin(), data->pulls.end(),
                             [&](const auto& p) { return p.specimen == s.id; }))
                labels.push_back({qs(s.label), qs(data->optionAt(s.option).name),
                                  qs(data->conditionAt(s.condition).name) +
                                      (s.batch.empty() ? QString() : ", " + qs(s.batch))});
    if (!m_session.tell(
            pages::writeLabels(labels, path, static_cast<pages::Code>(m_code->currentData().toInt()))))
        return false;
    m_session.say(tr("%1 labels are in %2.").arg(labels.size()).arg(path));
    return true;
}

} // namespace anvil::app
