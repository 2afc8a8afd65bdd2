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
#include <anvil/project/board_commands.h>
#include <anvil/project/input_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <anvil/results/inputs.h>
#include <anvil/results/values.h>
#include <anvil/words/pull.h>

namespace anvil::app {

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
        const auto made = project::makePieces(*m_session.project(), m_session.studyId(), m_batch->text());
        if (m_session.tell(made))
            m_session.say(tr("%1 pieces made. Their labels are never used again.").arg(*made));
    });
    connect(m_batch, &QLineEdit::returnPressed, m_make, &QPushButton::click);
    whenEdited(m_scheme, this, [this] {
        const auto* data = m_session.study();
        const auto scheme = m_scheme->text().simplified().toStdString();
        if (!filling() && data && scheme != data->study.plan.labelScheme)
            m_session.tell(project::changePlan(*m_session.project(), m_session.studyId(),
                                               tr("How labels read"),
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
        m_session.tell(project::moveSpecimen(*m_session.project(), item->data(pieceRole).toLongLong(),
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
    case PieceColumn::Kind::label:
        if (text.isEmpty()) return refuse(tr("A piece needs a label."));
        for (const auto& other : data->specimens)
            if (other.id != s.id && qs(other.label) == text)
                return refuse(tr("%1 is taken: labels are never used twice.").arg(text));
        return save(tr("Label %1 → %2").arg(label, text),
                    [&](domain::Specimen& p) { p.label = text.toStdString(); });
    case PieceColumn::Kind::text:
        return save(named, [&](domain::Specimen& p) {
            (what.key == "batch" ? p.batch : what.key == "block" ? p.block : p.history) = text.toStdString();
        });
    case PieceColumn::Kind::place: {
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
    case PieceColumn::Kind::dimension:
        return measuredEdited(s, what.key.toStdString(), text);
    case PieceColumn::Kind::input: {
        const auto unitOf = [this](quantity::Dimension d) { return m_session.typedUnit(d); };
        if (!m_session.tell(
                project::tellOfPiece(*m_session.project(), s.id, *what.input, text.toStdString(), unitOf)))
            refill();
        return;
    }
    case PieceColumn::Kind::option:
    case PieceColumn::Kind::condition:
    case PieceColumn::Kind::state:
    case PieceColumn::Kind::area:
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
    const auto done = project::measureAll(*m_session.project(), data->study.id, fresh);
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
