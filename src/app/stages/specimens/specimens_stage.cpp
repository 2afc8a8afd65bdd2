#include "stages/specimens/specimens_stage.h"

#include "theme/theme.h"
#include "widgets/paste.h"
#include <QComboBox>
#include <QFile>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSaveFile>
#include <QShortcut>
#include <QTabWidget>
#include <QTableWidget>
#include <QTimer>
#include <QVBoxLayout>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/report/labels.h>
#include <anvil/report/pages.h>
#include <anvil/study/planning.h>
#include <utility>

namespace anvil::app {
namespace {

/// After these come the measured dimensions, then batch, the piece it was made in, and history.
enum Columns { labelColumn, optionColumn, conditionColumn, stateColumn, firstDimension };
enum RecipeColumns {
    nameColumn,
    minutesColumn,
    waitColumn,
    latestColumn,
    repeatColumn,
    everyColumn,
    productColumn,
    expiresColumn,
    recipeColumns
};

/// Minutes as people type them: "20 min", "24 h", "3 d"; a bare number is minutes.
Expected<double> minutesFrom(const QString& text) {
    if (text.trimmed().isEmpty()) return 0.0;
    const auto entry =
        quantity::parseEntry(text.toStdString(), quantity::Dimension::time, &quantity::unit("min"));
    if (!entry) return tl::unexpected(entry.error());
    return entry->si / 60;
}

QString minutesText(double minutes) {
    if (minutes == 0) return {};
    const bool days = std::fmod(minutes, 1440) == 0, hours = std::fmod(minutes, 60) == 0;
    return qs(quantity::shortest(minutes / (days    ? 1440
                                            : hours ? 60
                                                    : 1))) +
           (days    ? " d"
            : hours ? " h"
                    : " min");
}

QString when(study::Instant at) {
    return at ? QDateTime::fromSecsSinceEpoch(at).toString("ddd d MMM, hh:mm") : QString();
}

QTableWidget* makeTable(const QStringList& heads, const char* name) {
    auto* t = new QTableWidget(0, static_cast<int>(heads.size()));
    t->setObjectName(name);
    t->setHorizontalHeaderLabels(heads);
    t->verticalHeader()->hide();
    t->verticalHeader()->setDefaultSectionSize(26);
    return t;
}

} // namespace

SpecimensStage::SpecimensStage(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    m_sentence = new QLabel;
    m_sentence->setObjectName("sentence");
    m_sentence->setWordWrap(true);
    layout->addWidget(m_sentence);
    m_tabs = new QTabWidget;
    m_tabs->setObjectName("specimenTabs");
    m_tabs->addTab(makePieces(), tr("Pieces"));
    m_tabs->addTab(makePreparation(), tr("Preparation"));
    m_tabs->addTab(makeShopping(), tr("Shopping and cutting"));
    layout->addWidget(m_tabs, 1);
    m_timer = new QTimer(this);
    connect(m_timer, &QTimer::timeout, this, &SpecimensStage::checkDue);
    m_timer->start(20000);
    connect(&session, &Session::changed, this, &SpecimensStage::refresh);
    connect(&session, &Session::unitsChanged, this, &SpecimensStage::refresh);
    connect(&session, &Session::selectionChanged, this, &SpecimensStage::follow);
    refresh();
}

QWidget* SpecimensStage::makePieces() {
    auto* page = new QWidget;
    auto* layout = new QVBoxLayout(page);
    m_makeRow = new QWidget;
    auto* make = new QHBoxLayout(m_makeRow);
    make->setContentsMargins(0, 0, 0, 0);
    m_make = new QPushButton(icon("plus", true), QString());
    m_make->setObjectName("primary");
    m_batch = new QLineEdit;
    m_batch->setObjectName("batch");
    m_batch->setPlaceholderText(tr("batch, such as: box of May"));
    m_batch->setMaximumWidth(240);
    make->addWidget(m_make);
    make->addWidget(new QLabel(tr("from")));
    make->addWidget(m_batch);
    make->addStretch();
    layout->addWidget(m_makeRow);
    m_table = makeTable({}, "specimens");
    m_table->setSelectionBehavior(QAbstractItemView::SelectItems);
    auto* paste = new QShortcut(QKeySequence::Paste, m_table, this,
                                [this] { m_session.say(tr("%1 cells taken.").arg(pasteInto(*m_table))); });
    paste->setContext(Qt::WidgetShortcut);
    layout->addWidget(m_table, 1);
    auto* measure = new QHBoxLayout;
    measure->addWidget(new QLabel(tr("Measure")));
    const auto field = [&](QLineEdit*& edit, const char* name, const QString& hint, int width) {
        edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setPlaceholderText(hint);
        edit->setMaximumWidth(width);
        measure->addWidget(edit);
    };
    field(m_dimension, "dimension", tr("what, such as: depth"), 150);
    measure->addWidget(new QLabel(tr("wanted")));
    field(m_nominal, "nominal", tr("such as 3 1/4 in"), 120);
    measure->addWidget(new QLabel(tr("±")));
    field(m_tolerance, "tolerance", tr("such as 0.5 mm"), 110);
    auto* add = new QPushButton(tr("Add"));
    add->setObjectName("addDimension");
    measure->addWidget(add);
    measure->addStretch();
    auto* labels = new QPushButton(icon("printer"), tr("Labels…"));
    labels->setObjectName("labels");
    measure->addWidget(labels);
    layout->addLayout(measure);
    auto* move = new QHBoxLayout;
    move->addWidget(new QLabel(tr("Move the selected piece to")));
    m_option = new QComboBox;
    m_condition = new QComboBox;
    for (auto* box : {m_option, m_condition}) {
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(6);
        move->addWidget(box, 1);
    }
    auto* button = new QPushButton(tr("Move"));
    button->setObjectName("moveSpecimen");
    move->addWidget(button);
    layout->addLayout(move);
    connect(m_make, &QPushButton::clicked, this, [this] {
        const auto made = m_session.project()->makePieces(m_session.studyId(), m_batch->text());
        if (m_session.tell(made))
            m_session.say(tr("%1 pieces made. Their labels are never used again.").arg(*made));
    });
    connect(m_batch, &QLineEdit::returnPressed, m_make, &QPushButton::click);
    connect(m_table, &QTableWidget::cellChanged, this, &SpecimensStage::pieceEdited);
    connect(m_table, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (const auto* item = m_table->item(row, stateColumn); item && !m_filling) {
            if (const auto pull = item->data(Qt::UserRole).toLongLong())
                m_session.selectPull(pull);
            else if (const auto* s = m_session.study()->specimen(
                         m_table->item(row, labelColumn)->data(Qt::UserRole).toLongLong()))
                m_session.selectSquare(s->option, s->condition);
        }
    });
    connect(add, &QPushButton::clicked, this, &SpecimensStage::addDimension);
    connect(m_dimension, &QLineEdit::returnPressed, this, &SpecimensStage::addDimension);
    connect(labels, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(this, tr("Save the labels"),
                                                       QStringLiteral("labels.pdf"), tr("PDF (*.pdf)"));
        if (!path.isEmpty()) writeLabels(path);
    });
    connect(button, &QPushButton::clicked, this, [this] {
        const auto* item = m_table->item(m_table->currentRow(), labelColumn);
        if (!item) return m_session.say(tr("Select the piece to move first."));
        m_session.tell(m_session.project()->moveSpecimen(item->data(Qt::UserRole).toLongLong(),
                                                         m_option->currentData().toLongLong(),
                                                         m_condition->currentData().toLongLong()));
    });
    return page;
}

QWidget* SpecimensStage::makePreparation() {
    auto* page = new QWidget;
    auto* layout = new QVBoxLayout(page);
    m_prepSentence = new QLabel;
    m_prepSentence->setObjectName("prepSentence");
    m_prepSentence->setWordWrap(true);
    layout->addWidget(m_prepSentence);
    m_steps = makeTable({tr("Step"), tr("From"), tr("At the latest"), tr("State"), tr("Done at")}, "steps");
    m_steps->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_steps->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_steps->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_steps->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    layout->addWidget(m_steps, 3);
    auto* row = new QHBoxLayout;
    m_begin = new QPushButton;
    m_begin->setObjectName("beginBatch");
    auto* done = new QPushButton(icon("check"), tr("Done now"));
    done->setObjectName("stepDone");
    done->setToolTip(tr("Marks the selected step, or the first that is due, as done now"));
    auto* calendar = new QPushButton(tr("Calendar file…"));
    calendar->setToolTip(tr("The steps that are left as .ics, for any calendar"));
    row->addWidget(m_begin);
    row->addWidget(done);
    row->addStretch();
    row->addWidget(calendar);
    layout->addLayout(row);
    auto* head = new QLabel(tr("Recipe: times as 20 min, 24 h or 3 d; the last row takes another step."));
    head->setObjectName("faint");
    layout->addWidget(head);
    m_recipe = makeTable({tr("Step"), tr("Takes"), tr("Then wait"), tr("Next within"), tr("Times"),
                          tr("Every"), tr("Product"), tr("Good until")},
                         "recipe");
    m_recipe->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_recipe->horizontalHeader()->setStretchLastSection(true);
    layout->addWidget(m_recipe, 2);
    connect(m_begin, &QPushButton::clicked, this, [this] {
        const auto* data = m_session.study();
        if (!data) return m_session.say(tr("There is no study yet."), true);
        const bool begun = !data->study.plan.recipeStarted.empty();
        m_session.tell(m_session.project()->startRecipe(
            m_session.studyId(), begun ? QString() : m_session.now().toString(Qt::ISODate)));
    });
    connect(done, &QPushButton::clicked, this, [this] {
        const auto steps = m_session.timetable();
        int at = m_steps->selectedItems().isEmpty() ? -1 : m_steps->currentRow();
        for (int i = 0; at < 0 && i < static_cast<int>(steps.size()); ++i)
            if (!steps[static_cast<std::size_t>(i)].done) at = i;
        if (at < 0 || at >= static_cast<int>(steps.size()))
            return m_session.say(tr("No step is left to do."));
        const auto& step = steps[static_cast<std::size_t>(at)];
        m_session.tell(m_session.project()->markStep(
            m_session.studyId(), step.key, step.done ? QString() : m_session.now().toString(Qt::ISODate)));
    });
    connect(calendar, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(
            this, tr("Save the timetable"), QStringLiteral("preparation.ics"), tr("Calendar (*.ics)"));
        if (!path.isEmpty()) writeCalendar(path);
    });
    connect(m_recipe, &QTableWidget::cellChanged, this, &SpecimensStage::recipeEdited);
    return page;
}

QWidget* SpecimensStage::makeShopping() {
    auto* page = new QWidget;
    auto* layout = new QVBoxLayout(page);
    m_stockSentence = new QLabel;
    m_stockSentence->setWordWrap(true);
    layout->addWidget(m_stockSentence);
    m_stock = makeTable({tr("What"), tr("Needed"), tr("Made already"), tr("Each"), tr("Together")}, "stock");
    m_stock->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_stock->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    layout->addWidget(m_stock, 1);
    auto* save = new QPushButton(tr("Save as CSV…"));
    auto* print = new QPushButton(icon("printer"), tr("Save as PDF…"));
    auto* row = new QHBoxLayout;
    row->addWidget(save);
    row->addWidget(print);
    row->addStretch();
    layout->addLayout(row);
    connect(print, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(this, tr("Save the list"),
                                                       QStringLiteral("shopping.pdf"), tr("PDF (*.pdf)"));
        if (!path.isEmpty() && m_session.study() &&
            m_session.tell(report::writePdf(report::stockDocument(*m_session.study()), path)))
            m_session.say(tr("The list is in %1.").arg(path));
    });
    connect(save, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(this, tr("Save the list"),
                                                       QStringLiteral("shopping.csv"), tr("CSV (*.csv)"));
        if (!path.isEmpty()) writeStock(path);
    });
    return page;
}

QStringList SpecimensStage::dimensions() const {
    QStringList out;
    if (const auto* data = m_session.study())
        for (const auto& s : data->specimens)
            for (const auto& m : s.measured)
                if (!out.contains(qs(m.name))) out << qs(m.name);
    return out;
}

void SpecimensStage::refresh() {
    m_filling = true;
    const auto* data = m_session.study();
    const auto pieces = data ? static_cast<int>(data->specimens.size()) : 0;
    const int missing = data ? static_cast<int>(study::missingPieces(*data).size()) : 0;
    m_tabs->setVisible(data != nullptr);
    setEnabled(!m_session.project() || !m_session.readOnly());
    m_sentence->setText(!data ? tr("Pieces are made from the plan, or come with the logger files you import.")
                        : missing > 0 ? tr("%1 planned pieces wait to be made.").arg(missing)
                        : pieces == 0
                            ? tr("No pieces yet: plan replicates in Question, or import logger files.")
                        : pieces == 1 ? tr("One piece, with a label of its own.")
                                      : tr("%1 pieces, each with a label of its own.").arg(pieces));
    m_makeRow->setVisible(missing > 0);
    m_make->setText(missing == 1 ? tr("Make 1 piece") : tr("Make %1 pieces").arg(missing));
    m_option->clear();
    m_condition->clear();
    if (data) {
        for (const auto& o : data->options)
            m_option->addItem(qs(o.name), o.id);
        for (const auto& c : data->conditions)
            m_condition->addItem(qs(c.name), c.id);
    }
    fillPieces();
    fillPreparation();
    fillShopping();
    m_filling = false;
    follow();
}

void SpecimensStage::fillPieces() {
    const auto* data = m_session.study();
    const auto names = dimensions();
    const auto& length = *m_session.units().length;
    QStringList heads{tr("Label"), tr("Option"), tr("Condition"), tr("State")};
    for (const auto& n : names)
        heads << tr("%1 (%2)").arg(n, qs(std::string(length.symbol)));
    heads << tr("Batch") << tr("Made in") << tr("History");
    const int firstText = firstDimension + static_cast<int>(names.size());
    m_table->setColumnCount(static_cast<int>(heads.size()));
    m_table->setHorizontalHeaderLabels(heads);
    m_table->setRowCount(data ? static_cast<int>(data->specimens.size()) : 0);
    const auto prepared = m_session.preparation();
    for (int row = 0; row < m_table->rowCount(); ++row) {
        const auto& s = data->specimens[static_cast<std::size_t>(row)];
        Id pull = 0;
        QString state = !prepared || *prepared >= 1 ? tr("ready") : tr("in preparation");
        for (const auto& p : data->pulls)
            if (p.specimen == s.id) {
                pull = p.id;
                state = QString::fromUtf8(study::word(p.standing));
            }
        const auto* o = data->option(s.option);
        const auto* c = data->condition(s.condition);
        QStringList cells{qs(s.label), o ? qs(o->name) : QString(), c ? qs(c->name) : QString(), state};
        for (qsizetype k = 0; k < names.size(); ++k)
            cells << QString();
        cells << qs(s.batch) << qs(s.block) << qs(s.history);
        for (int k = 0; k < static_cast<int>(heads.size()); ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            const bool dimension = k >= firstDimension && k < firstText;
            if (dimension)
                for (const auto& m : s.measured)
                    if (qs(m.name) == names[k - firstDimension]) {
                        const auto mean = m.mean();
                        if (mean) {
                            const bool fits = m.fits();
                            const bool large = m.nominal && *mean > *m.nominal;
                            item->setText(qs(quantity::significant(length.fromSi(*mean))) +
                                          (m.readings.size() > 1 ? tr("  (mean of %1)").arg(m.readings.size())
                                                                 : QString()) +
                                          (fits    ? QString()
                                           : large ? tr("  \u25b2 too large")
                                                   : tr("  \u25bc too small")));
                            if (!fits) item->setForeground(theme().warn);
                        }
                        if (m.nominal)
                            item->setToolTip(
                                tr("wanted %1 ± %2")
                                    .arg(qs(quantity::withUnit(*m.nominal, length)),
                                         qs(quantity::withUnit(m.tolerance.value_or(0), length))));
                    }
            const bool editable = k == labelColumn || k >= firstDimension;
            item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                           (editable ? Qt::ItemIsEditable : Qt::NoItemFlags));
            item->setData(Qt::UserRole, k == stateColumn ? pull : s.id);
            m_table->setItem(row, k, item);
        }
    }
    m_table->resizeColumnsToContents();
    m_table->horizontalHeader()->setStretchLastSection(true);
}

void SpecimensStage::pieceEdited(int row, int column) {
    const auto* data = m_session.study();
    if (m_filling || !data || row >= static_cast<int>(data->specimens.size())) return;
    const auto& s = data->specimens[static_cast<std::size_t>(row)];
    const auto text = m_table->item(row, column)->text().simplified();
    const auto id = s.id;
    const auto label = qs(s.label);
    const auto refuse = [&](const QString& why) {
        m_session.say(why, true);
        refresh();
    };
    if (column == labelColumn) {
        if (text.isEmpty()) return refuse(tr("A piece needs a label."));
        for (const auto& other : data->specimens)
            if (other.id != id && qs(other.label) == text)
                return refuse(tr("%1 is taken: labels are never used twice.").arg(text));
        m_session.tell(
            m_session.project()->changeSpecimen(id, {{"label", text}}, tr("Label %1 → %2").arg(label, text)));
    } else if (const int text0 = firstDimension + static_cast<int>(dimensions().size()); column >= text0) {
        static constexpr const char* fields[] = {"batch", "block", "history"};
        const char* field = fields[column - text0];
        m_session.tell(m_session.project()->changeSpecimen(
            id, {{QLatin1String(field), text}},
            tr("%1: %2").arg(label, m_table->horizontalHeaderItem(column)->text())));
    } else {
        const auto name = dimensions().value(column - firstDimension).toStdString();
        std::vector<double> readings;
        for (const auto& part : text.split(';', Qt::SkipEmptyParts)) { // several readings are averaged
            const auto entry = quantity::parseEntry(part.toStdString(), quantity::Dimension::length,
                                                    m_session.units().length);
            if (!entry) return refuse(qs(entry.error().message));
            if (!(entry->si > 0)) return refuse(tr("A length of zero or less cannot be."));
            readings.push_back(entry->si);
        }
        auto measured = s.measured;
        const auto at =
            std::find_if(measured.begin(), measured.end(), [&](const auto& m) { return m.name == name; });
        if (at != measured.end()) at->readings = readings;
        m_session.tell(m_session.project()->changeSpecimen(
            id, {{"measured", store::measuredToJson(measured)}}, tr("%1: %2").arg(label, qs(name))));
    }
}

void SpecimensStage::addDimension() {
    const auto* data = m_session.study();
    const auto name = m_dimension->text().simplified();
    if (!data || data->specimens.empty()) return m_session.say(tr("There is no piece to measure yet."), true);
    if (name.isEmpty()) return m_session.say(tr("Type what is measured, such as: depth."), true);
    study::Measured fresh{name.toStdString(), std::nullopt, std::nullopt, {}};
    for (const auto& [edit, target] :
         {std::pair{m_nominal, &fresh.nominal}, std::pair{m_tolerance, &fresh.tolerance}}) {
        if (edit->text().trimmed().isEmpty()) continue;
        const auto entry = quantity::parseEntry(edit->text().toStdString(), quantity::Dimension::length,
                                                m_session.units().length);
        if (!m_session.tell(entry)) return;
        *target = std::abs(entry->si);
    }
    const auto done = m_session.project()->run(tr("Measure %1").arg(name), [&](store::Writer& w) {
        for (const auto& s : data->specimens) {
            auto measured = s.measured;
            const auto at = std::find_if(measured.begin(), measured.end(),
                                         [&](const auto& m) { return m.name == fresh.name; });
            if (at == measured.end())
                measured.push_back(fresh);
            else
                at->nominal = fresh.nominal, at->tolerance = fresh.tolerance;
            w.update("specimen", s.id, {{"measured", store::measuredToJson(measured)}});
        }
    });
    if (!m_session.tell(done)) return;
    m_dimension->clear();
    m_table->setCurrentCell(0, firstDimension + static_cast<int>(dimensions().indexOf(name)));
    m_table->setFocus();
}

void SpecimensStage::fillPreparation() {
    const auto* data = m_session.study();
    const auto recipe = data ? data->study.plan.recipe : std::vector<study::RecipeStep>{};
    m_recipe->setRowCount(static_cast<int>(recipe.size()) + 1);
    for (int r = 0; r < m_recipe->rowCount(); ++r) {
        const auto step =
            r < static_cast<int>(recipe.size()) ? recipe[static_cast<std::size_t>(r)] : study::RecipeStep{};
        const QStringList cells{qs(step.name),
                                minutesText(step.minutes),
                                minutesText(step.waitMinutes),
                                minutesText(step.latestMinutes),
                                step.repeat > 1 ? QString::number(step.repeat) : QString(),
                                minutesText(step.everyMinutes),
                                qs(step.product),
                                qs(step.expires)};
        for (int k = 0; k < recipeColumns; ++k)
            m_recipe->setItem(r, k, new QTableWidgetItem(cells[k]));
    }
    const auto steps = m_session.timetable();
    m_steps->setRowCount(static_cast<int>(steps.size()));
    int due = 0, overdue = 0;
    for (int r = 0; r < m_steps->rowCount(); ++r) {
        const auto& s = steps[static_cast<std::size_t>(r)];
        due += s.state == study::StepState::due;
        overdue += s.state == study::StepState::overdue;
        const bool attention = s.state == study::StepState::overdue ||
                               s.state == study::StepState::doneEarly ||
                               s.state == study::StepState::doneLate;
        const QStringList cells{qs(s.name), when(s.earliest), when(s.latest),
                                (attention ? QStringLiteral("\u26a0 ")
                                 : s.done  ? QStringLiteral("\u2713 ")
                                           : QString()) +
                                    QString::fromUtf8(study::word(s.state)),
                                when(s.done)};
        for (int k = 0; k < 5; ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            if (attention) item->setForeground(theme().warn);
            if (s.state == study::StepState::due) {
                auto f = font();
                f.setBold(true);
                item->setFont(f);
            }
            m_steps->setItem(r, k, item);
        }
    }
    const bool begun = data && !data->study.plan.recipeStarted.empty();
    m_begin->setText(begun ? tr("The batch was not begun after all") : tr("Begin the batch now"));
    QString text =
        recipe.empty()
            ? tr("Type the steps of the preparation below: clean, prime, apply, clamp, cure, wash …")
        : !begun  ? tr("Begin the batch when the first step begins; the timetable then says what is due.")
        : overdue ? tr("%1 of the steps is overdue.").arg(overdue)
        : due     ? tr("%1 step is due now.").arg(due)
              : tr("Nothing is due; everything could be ready on %1.").arg(when(study::finished(steps, 0)));
    for (const auto& e : study::expired(recipe, m_session.now().toString("yyyy-MM-dd").toStdString()))
        text += "\n\u26a0 " + qs(e);
    m_prepSentence->setText(text);
    m_tabs->setTabText(1, due + overdue ? tr("Preparation (%1 due)").arg(due + overdue) : tr("Preparation"));
}

void SpecimensStage::recipeEdited() {
    const auto* data = m_session.study();
    if (m_filling || !data) return;
    std::vector<study::RecipeStep> recipe;
    for (int r = 0; r < m_recipe->rowCount(); ++r) {
        const auto text = [&](int column) {
            return m_recipe->item(r, column) ? m_recipe->item(r, column)->text().simplified() : QString();
        };
        bool empty = true;
        for (int k = 0; k < recipeColumns; ++k)
            empty = empty && text(k).isEmpty();
        if (empty || text(nameColumn).isEmpty()) continue;
        study::RecipeStep s;
        s.name = text(nameColumn).toStdString();
        s.repeat = text(repeatColumn).isEmpty() ? 1 : text(repeatColumn).toInt();
        for (const auto& [column, target] : {std::pair<int, double*>{minutesColumn, &s.minutes},
                                             {waitColumn, &s.waitMinutes},
                                             {latestColumn, &s.latestMinutes},
                                             {everyColumn, &s.everyMinutes}}) {
            const auto minutes = minutesFrom(text(column));
            if (!minutes) {
                m_session.say(qs(minutes.error().message), true);
                return refresh();
            }
            *target = *minutes;
        }
        s.product = text(productColumn).toStdString();
        s.expires = text(expiresColumn).toStdString();
        if (!s.expires.empty() && !QDate::fromString(qs(s.expires), Qt::ISODate).isValid()) {
            m_session.say(tr("\"%1\" is not a date: write it as 2026-05-31.").arg(qs(s.expires)), true);
            return refresh();
        }
        recipe.push_back(std::move(s));
    }
    if (!m_session.tell(m_session.project()->setRecipe(m_session.studyId(), recipe))) refresh();
}

void SpecimensStage::checkDue() {
    const auto steps = m_session.timetable();
    QString due;
    for (const auto& s : steps)
        if (s.state == study::StepState::due || s.state == study::StepState::overdue)
            due = tr("%1 is %2").arg(qs(s.name), QString::fromUtf8(study::word(s.state)));
    if (due == m_told) return;
    m_told = due;
    refresh();
    if (!due.isEmpty()) m_session.notify(due);
}

void SpecimensStage::fillShopping() {
    const auto* data = m_session.study();
    const auto lines = data ? study::stock(*data) : std::vector<study::StockLine>{};
    m_stockSentence->setText(
        lines.empty() ? tr("The plan eats nothing yet: type the replicates on the board in Question.")
                      : tr("What the plan needs, with what is made already."));
    m_stock->setRowCount(static_cast<int>(lines.size()));
    for (int r = 0; r < m_stock->rowCount(); ++r) {
        const auto& l = lines[static_cast<std::size_t>(r)];
        const auto money = [&](const std::optional<double>& v) {
            return v ? qs(quantity::fixed(*v, 2) + (l.currency.empty() ? "" : " " + l.currency))
                     : QStringLiteral("–");
        };
        const QStringList cells{qs(l.what), QString::number(l.needed), QString::number(l.made),
                                money(l.unitCost), money(l.cost)};
        for (int k = 0; k < 5; ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            if (k > 0) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            m_stock->setItem(r, k, item);
        }
    }
}

void SpecimensStage::follow() {
    m_filling = true;
    for (int i = 0; i < m_table->rowCount(); ++i)
        if (m_session.pull() &&
            m_table->item(i, stateColumn)->data(Qt::UserRole).toLongLong() == m_session.pull() &&
            m_table->currentRow() != i)
            m_table->setCurrentCell(i, labelColumn);
    m_option->setCurrentIndex(m_option->findData(m_session.option()));
    m_condition->setCurrentIndex(m_condition->findData(m_session.condition()));
    m_filling = false;
}

bool SpecimensStage::writeLabels(const QString& path) {
    const auto* data = m_session.study();
    std::vector<report::PieceLabel> labels;
    if (data)
        for (const auto& s : data->specimens)
            if (std::none_of(data->pulls.begin(), data->pulls.end(),
                             [&](const auto& p) { return p.specimen == s.id; }))
                labels.push_back({qs(s.label), qs(data->option(s.option)->name),
                                  qs(data->condition(s.condition)->name) +
                                      (s.batch.empty() ? QString() : ", " + qs(s.batch))});
    if (!m_session.tell(report::writeLabels(labels, path))) return false;
    m_session.say(tr("%1 labels are in %2.").arg(labels.size()).arg(path));
    return true;
}

bool SpecimensStage::writeCalendar(const QString& path) {
    const auto steps = m_session.timetable();
    if (steps.empty()) {
        m_session.say(tr("There is no timetable yet: type the recipe and begin the batch."), true);
        return false;
    }
    const auto text = QByteArray::fromStdString(
        study::toCalendar(steps, m_session.study()->study.title, m_session.now().toSecsSinceEpoch()));
    QSaveFile file(path);
    if (!file.open(QIODevice::WriteOnly) || file.write(text) != text.size() || !file.commit()) {
        m_session.say(tr("%1 cannot be written: %2.").arg(path, file.errorString()), true);
        return false;
    }
    m_session.say(tr("The timetable is in %1.").arg(path));
    return true;
}

bool SpecimensStage::writeStock(const QString& path) {
    const auto* data = m_session.study();
    QString text = "what,needed,made,unit_cost,cost,currency\n";
    if (data)
        for (const auto& l : study::stock(*data)) {
            auto what = qs(l.what);
            if (!what.isEmpty() && QStringLiteral("=+-@").contains(what[0]))
                what.prepend('\''); // harmless in a spreadsheet
            text += "\"" + what.replace('"', "\"\"") + "\"," + QString::number(l.needed) + "," +
                    QString::number(l.made) + "," + (l.unitCost ? QString::number(*l.unitCost) : QString()) +
                    "," + (l.cost ? QString::number(*l.cost) : QString()) + "," + qs(l.currency) + "\n";
        }
    QSaveFile file(path);
    const auto bytes = text.toUtf8();
    if (!file.open(QIODevice::WriteOnly) || file.write(bytes) != bytes.size() || !file.commit()) {
        m_session.say(tr("%1 cannot be written: %2.").arg(path, file.errorString()), true);
        return false;
    }
    m_session.say(tr("The list is in %1.").arg(path));
    return true;
}

} // namespace anvil::app
