#include "stages/question/question_stage.h"

#include "stages/question/chain_panel.h"
#include "stages/question/method_panel.h"
#include "stages/question/plan_board.h"
#include "theme/theme.h"
#include "widgets/paste.h"
#include "widgets/picture_view.h"
#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFileDialog>
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QSpinBox>
#include <QSplitter>
#include <QTabWidget>
#include <QVBoxLayout>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/report/pages.h>
#include <anvil/study/planning.h>
#include <utility>

namespace anvil::app {

using quantity::Dimension;
using quantity::percent;

QuestionStage::QuestionStage(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    m_sentence = new QLabel;
    m_sentence->setObjectName("sentence");
    m_sentence->setWordWrap(true);
    layout->addWidget(m_sentence);
    m_start = new QPushButton(icon("file-plus", true), tr("Start a project…"));
    m_start->setObjectName("primary");
    m_start->setMinimumHeight(36);
    layout->addWidget(m_start, 0, Qt::AlignLeft);
    connect(m_start, &QPushButton::clicked, &session, &Session::projectWanted);
    m_body = new QWidget;
    auto* body = new QVBoxLayout(m_body);
    body->setContentsMargins(0, 0, 0, 0);
    body->addWidget(makeFields());
    auto* split = new QSplitter(Qt::Vertical);
    auto* upper = new QWidget;
    auto* above = new QVBoxLayout(upper);
    above->setContentsMargins(0, 0, 0, 0);
    m_board = new PlanBoard(session);
    above->addWidget(m_board, 1);
    m_totals = new QLabel;
    m_totals->setObjectName("totals");
    m_totals->setWordWrap(true);
    above->addWidget(m_totals);
    split->addWidget(upper);
    m_tabs = new QTabWidget;
    m_tabs->setObjectName("planTabs");
    auto* findings = new QWidget;
    m_findings = new QVBoxLayout(findings);
    m_findings->setContentsMargins(8, 6, 8, 6);
    auto* scroll = new QScrollArea;
    scroll->setWidget(findings);
    scroll->setWidgetResizable(true);
    scroll->viewport()->setAutoFillBackground(false);
    findings->setAutoFillBackground(false);
    m_tabs->addTab(scroll, tr("Is it fair?"));
    m_tabs->addTab(makeHowMany(), tr("How many?"));
    m_tabs->addTab(makeHeadRoom(), tr("Will the rig reach?"));
    m_tabs->addTab(makeFacts(), tr("Facts"));
    m_tabs->addTab(makeRunList(), tr("Run list"));
    m_tabs->addTab(new ChainPanel(session), tr("Weakest link"));
    m_tabs->addTab(new MethodPanel(session), tr("Method and safety"));
    split->addWidget(m_tabs);
    split->setStretchFactor(0, 1);
    split->setStretchFactor(1, 1);
    split->setChildrenCollapsible(false);
    body->addWidget(split, 1);
    layout->addWidget(m_body, 1);
    layout->addStretch();
    const auto mark = [this] {
        m_stale = true;
        if (isVisible()) refresh();
    };
    connect(&session, &Session::changed, this, mark);
    connect(&session, &Session::unitsChanged, this, mark);
    connect(&session, &Session::selectionChanged, this, [this] {
        if (isVisible()) fillHeadRoom();
    });
    refresh();
}

QWidget* QuestionStage::makeFields() {
    auto* holder = new QWidget;
    auto* grid = new QGridLayout(holder);
    grid->setContentsMargins(0, 0, 0, 4);
    grid->setVerticalSpacing(4);
    m_question = new QLineEdit;
    m_question->setObjectName("studyQuestion");
    m_question->setPlaceholderText(tr("such as: which fitting holds best after a season of salt?"));
    m_title = new QLineEdit;
    m_title->setObjectName("studyTitle");
    m_metric = new QComboBox;
    m_metric->setObjectName("studyMetric");
    for (const auto m : study::allMetrics)
        m_metric->addItem(study::info(m).title, study::info(m).key);
    m_intent = new QComboBox;
    m_intent->setObjectName("studyIntent");
    m_intent->addItem(tr("Controlled: all else equal"), "controlled");
    m_intent->addItem(tr("Exploratory: thought of as we go"), "exploratory");
    m_intent->addItem(tr("As used: worn or crooked on purpose"), "as_used");
    m_control = new QComboBox;
    m_control->setObjectName("studyControl");
    m_control->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    m_control->setMinimumContentsLength(12);
    m_margin = new QDoubleSpinBox;
    m_margin->setObjectName("studyMargin");
    m_margin->setRange(0.5, 100);
    m_margin->setDecimals(1);
    m_margin->setSuffix(" %");
    grid->addWidget(new QLabel(tr("Question")), 0, 0);
    grid->addWidget(m_question, 0, 1, 1, 5);
    int column = 0;
    for (const auto& [text, widget] : std::initializer_list<std::pair<QString, QWidget*>>{
             {tr("Study"), m_title}, {tr("What decides"), m_metric}, {tr("Intent"), m_intent}}) {
        grid->addWidget(new QLabel(text), 1, column++);
        grid->addWidget(widget, 1, column++);
    }
    grid->addWidget(new QLabel(tr("Control")), 2, 0);
    grid->addWidget(m_control, 2, 1);
    grid->addWidget(new QLabel(tr("I care about")), 2, 2);
    grid->addWidget(m_margin, 2, 3);
    m_axis = new QLineEdit;
    m_axis->setObjectName("axis");
    m_axis->setPlaceholderText(tr("such as: temperature (°C)"));
    m_axis->setToolTip(tr("What the conditions vary; a unit in brackets makes it a numeric axis"));
    grid->addWidget(new QLabel(tr("Varied")), 2, 4);
    grid->addWidget(m_axis, 2, 5);
    connect(m_axis, &QLineEdit::editingFinished, this, &QuestionStage::saveAxis);
    for (const int c : {1, 3, 5})
        grid->setColumnStretch(c, 1);
    connect(m_title, &QLineEdit::editingFinished, this, [this] {
        if (m_title->text().trimmed().isEmpty()) return refresh();
        saveStudy("title", m_title->text().trimmed(), tr("Title of the study"));
    });
    connect(m_question, &QLineEdit::editingFinished, this,
            [this] { saveStudy("question", m_question->text().trimmed(), tr("The question")); });
    connect(m_metric, &QComboBox::activated, this,
            [this] { saveStudy("metric", m_metric->currentData().toString(), tr("What decides")); });
    connect(m_intent, &QComboBox::activated, this,
            [this] { saveStudy("intent", m_intent->currentData().toString(), tr("Intent")); });
    connect(m_margin, &QDoubleSpinBox::editingFinished, this,
            [this] { saveStudy("margin", m_margin->value() / 100, tr("Difference that matters")); });
    connect(m_control, &QComboBox::activated, this, [this] {
        const auto id = m_control->currentData().toLongLong();
        m_session.tell(m_session.project()->changePlan(m_session.studyId(),
                                                       tr("Control: %1").arg(m_control->currentText()),
                                                       [&](study::Plan& p) { p.control = id; }));
    });
    return holder;
}

QWidget* QuestionStage::makeHowMany() {
    auto* page = new QWidget;
    auto* layout = new QHBoxLayout(page);
    auto* left = new QVBoxLayout;
    m_spread = new QLabel;
    m_spread->setWordWrap(true);
    m_spread->setObjectName("spread");
    left->addWidget(m_spread);
    m_schools = new QTableWidget(0, 3);
    m_schools->setObjectName("schools");
    m_schools->setHorizontalHeaderLabels({tr("Of each"), tr("Sees a difference of"), tr("What it tells")});
    m_schools->verticalHeader()->hide();
    m_schools->verticalHeader()->setDefaultSectionSize(24);
    m_schools->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_schools->horizontalHeader()->setStretchLastSection(true);
    left->addWidget(m_schools, 1);
    layout->addLayout(left, 3);
    m_power = new PictureView;
    m_power->setObjectName("power");
    layout->addWidget(m_power, 2);
    return page;
}

QWidget* QuestionStage::makeHeadRoom() {
    auto* page = new QWidget;
    auto* layout = new QVBoxLayout(page);
    auto* rig = new QHBoxLayout;
    const auto field = [](QHBoxLayout* row, const QString& text, QLineEdit*& edit, const char* name,
                          const QString& hint, int width) {
        row->addWidget(new QLabel(text));
        edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setPlaceholderText(hint);
        edit->setMaximumWidth(width);
        row->addWidget(edit);
    };
    field(rig, tr("The rig pulls at most"), m_limit, "reachLimit", tr("such as 5 kN"), 110);
    field(rig, tr("its cell shows at most"), m_cell, "reachCell", tr("such as 2 kN"), 110);
    field(rig, tr("one at the cell is"), m_ratio, "reachRatio", tr("1"), 60);
    rig->addWidget(new QLabel(tr("at the piece")));
    rig->addStretch();
    layout->addLayout(rig);
    m_bars = new PictureView;
    m_bars->setObjectName("reachBars");
    auto* area = new QScrollArea;
    area->setWidget(m_bars);
    area->setWidgetResizable(true);
    layout->addWidget(area, 1);
    m_reachSentence = new QLabel;
    m_reachSentence->setWordWrap(true);
    m_reachSentence->setObjectName("reachSentence");
    layout->addWidget(m_reachSentence);
    auto* forecast = new QHBoxLayout;
    m_square = new QLabel;
    forecast->addWidget(m_square);
    field(forecast, tr("I expect"), m_expected, "forecastValue", tr("such as 4.2 kN"), 110);
    forecast->addWidget(new QLabel(tr("±")));
    m_forecastSpread = new QDoubleSpinBox;
    m_forecastSpread->setObjectName("forecastSpread");
    m_forecastSpread->setRange(0, 200);
    m_forecastSpread->setValue(10);
    m_forecastSpread->setSuffix(" %");
    forecast->addWidget(m_forecastSpread);
    field(forecast, tr("going first"), m_goesFirst, "forecastPart", tr("which part"), 120);
    field(forecast, tr("says"), m_by, "forecastBy", tr("who"), 90);
    auto* keep = new QPushButton(tr("Keep"));
    keep->setObjectName("keepForecast");
    keep->setToolTip(tr("Keeps the forecast for the square selected on the board; one for each who says so"));
    forecast->addWidget(keep);
    forecast->addStretch();
    layout->addLayout(forecast);
    connect(keep, &QPushButton::clicked, this, &QuestionStage::saveForecast);
    connect(m_expected, &QLineEdit::returnPressed, this, &QuestionStage::saveForecast);
    for (auto* edit : {m_limit, m_cell, m_ratio})
        connect(edit, &QLineEdit::editingFinished, this, &QuestionStage::saveReach);
    return page;
}

QWidget* QuestionStage::makeFacts() {
    auto* page = new QWidget;
    auto* layout = new QVBoxLayout(page);
    m_facts = new QTableWidget(0, 8);
    m_facts->setObjectName("options");
    m_facts->setHorizontalHeaderLabels({tr("Option"), tr("Kind"), tr("Grade"), tr("Rating"),
                                        tr("Rating says"), tr("Cost each"), tr("Currency"), tr("Weight")});
    m_facts->verticalHeader()->hide();
    m_facts->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    layout->addWidget(m_facts, 1);
    auto* row = new QHBoxLayout;
    auto* hint = new QLabel(
        tr("Type in a cell, or copy a block in your spreadsheet and paste it at the selected cell."));
    hint->setObjectName("faint");
    hint->setWordWrap(true);
    auto* paste = new QPushButton(icon("clipboard-paste"), tr("Paste facts"));
    paste->setObjectName("pasteFacts");
    row->addWidget(hint, 1);
    row->addWidget(paste);
    layout->addLayout(row);
    connect(m_facts, &QTableWidget::cellChanged, this, &QuestionStage::factEdited);
    connect(paste, &QPushButton::clicked, this, &QuestionStage::pasteFacts);
    return page;
}

QWidget* QuestionStage::makeRunList() {
    auto* page = new QWidget;
    auto* layout = new QVBoxLayout(page);
    auto* row = new QHBoxLayout;
    m_order = new QLabel;
    m_order->setWordWrap(true);
    m_order->setObjectName("orderSentence");
    row->addWidget(m_order, 1);
    m_group = new QCheckBox(tr("Change the set-up once a block at most"));
    m_group->setObjectName("groupConditions");
    m_seed = new QSpinBox;
    m_seed->setObjectName("seed");
    m_seed->setRange(1, 1000000);
    m_seed->setPrefix(tr("seed "));
    auto* draw = new QPushButton(tr("Draw the order"));
    draw->setObjectName("drawOrder");
    row->addWidget(m_group);
    row->addWidget(m_seed);
    row->addWidget(draw);
    auto* print = new QPushButton(icon("printer"), tr("As PDF…"));
    row->addWidget(print);
    connect(print, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(this, tr("Save the run list"),
                                                       QStringLiteral("run-list.pdf"), tr("PDF (*.pdf)"));
        if (!path.isEmpty()) writeRunList(path);
    });
    layout->addLayout(row);
    m_runs = new QListWidget;
    m_runs->setObjectName("runList");
    m_runs->setDragDropMode(QAbstractItemView::InternalMove);
    m_runs->setFlow(QListView::TopToBottom);
    m_runs->setWrapping(true);
    m_runs->setGridSize(QSize(300, 22));
    m_runs->setResizeMode(QListView::Adjust);
    layout->addWidget(m_runs, 1);
    connect(draw, &QPushButton::clicked, this, [this] {
        if (m_session.study())
            m_session.tell(m_session.project()->drawRunList(
                m_session.studyId(), static_cast<std::uint64_t>(m_seed->value()), m_group->isChecked()));
    });
    connect(m_runs->model(), &QAbstractItemModel::rowsMoved, this,
            [this](const QModelIndex&, int from, int, const QModelIndex&, int to) {
                if (!m_filling)
                    m_session.tell(m_session.project()->moveInRunList(m_session.studyId(), from,
                                                                      to > from ? to - 1 : to));
            });
    return page;
}

void QuestionStage::showEvent(QShowEvent*) {
    if (m_stale) refresh();
    m_board->focusNext();
    m_board->setFocus();
}

void QuestionStage::saveStudy(const QString& field, const QJsonValue& value, const QString& what) {
    if (!m_filling && m_session.project() && m_session.study())
        m_session.tell(m_session.project()->changeStudy(m_session.studyId(), {{field, value}}, what));
}

double QuestionStage::expectedCv(QString* from) const {
    const auto* data = m_session.study();
    if (!data) return 0.12;
    if (const auto own = study::ownCv(m_session.verdict(data->study.metric))) {
        if (from) *from = tr("from the pulls of this study");
        return *own;
    }
    for (const auto& s : m_session.project()->studies())
        if (s.study.id != data->study.id && !s.options.empty() && !data->options.empty() &&
            s.options.front().kind == data->options.front().kind && !s.options.front().kind.empty())
            if (const auto own = study::ownCv(m_session.project()->verdict(s.study.id, s.study.metric))) {
                if (from) *from = tr("from your study \"%1\"").arg(qs(s.study.title));
                return *own;
            }
    const auto kind = data->options.empty() ? std::string() : data->options.front().kind;
    if (from) *from = kind.empty() ? tr("a usual guess") : tr("usual for a %1").arg(qs(kind));
    return study::defaultCv(kind);
}

void QuestionStage::refresh() {
    m_stale = false;
    m_filling = true;
    const auto* data = m_session.study();
    m_start->setVisible(!m_session.project());
    m_body->setVisible(m_session.project());
    m_body->setEnabled(!m_session.readOnly());
    m_sentence->setText(
        !m_session.project()
            ? tr("Say what you want to find out, what you compare, and under which conditions.")
        : !data || data->options.empty() ? tr("Type the options down the margin, or paste a column of names.")
        : data->conditions.empty()       ? tr("Now type the conditions along the top; one will do.")
        : study::totals(*data).replicates == 0
            ? tr("Type in a square how many of each you will pull.")
            : tr("The plan stands. Below: is it fair, is it enough, will the rig reach?"));
    m_title->setText(data ? qs(data->study.title) : QString());
    m_question->setText(data ? qs(data->study.question) : QString());
    m_metric->setCurrentIndex(data ? static_cast<int>(data->study.metric) : 0);
    m_intent->setCurrentIndex(data ? static_cast<int>(data->study.intent) : 0);
    m_margin->setValue(data ? data->study.margin * 100 : 10);
    m_axis->setText(!data || data->study.plan.axis.empty() ? QString()
                    : data->study.plan.axisUnit.empty()
                        ? qs(data->study.plan.axis)
                        : tr("%1 (%2)").arg(qs(data->study.plan.axis), qs(data->study.plan.axisUnit)));
    m_control->clear();
    m_control->addItem(tr("none yet"), Id{0});
    if (data)
        for (const auto& o : data->options)
            m_control->addItem(qs(o.name), o.id);
    m_control->setCurrentIndex(std::max(0, m_control->findData(data ? data->study.plan.control : Id{0})));
    QString totals;
    if (data) {
        const auto t = study::totals(*data);
        if (t.replicates > 0) {
            totals = tr("%1 pieces in %2 squares").arg(t.replicates).arg(t.squares);
            if (t.cost) totals += tr(", %1 %2").arg(qs(quantity::fixed(*t.cost, 2)), qs(t.currency));
            if (t.pulled) totals += tr("; %1 pulled").arg(t.pulled);
        }
    }
    m_totals->setText(
        totals.isEmpty()
            ? tr("X strikes a square out, Alt with the arrow keys or dragging in the margin reorders.")
            : totals + tr(".  X strikes a square out."));
    fillFairness();
    fillHowMany();
    fillHeadRoom();
    fillFacts();
    fillRunList();
    m_filling = false;
}

void QuestionStage::fillFairness() {
    while (auto* item = m_findings->takeAt(0)) {
        if (auto* w = item->widget()) w->deleteLater();
        delete item;
    }
    const auto* data = m_session.study();
    const auto findings = data ? study::fairness(*data, m_session.readings()) : std::vector<study::Finding>{};
    int open = 0;
    for (const auto& f : findings) {
        open += !f.accepted;
        auto* row = new QWidget;
        auto* line = new QHBoxLayout(row);
        line->setContentsMargins(0, 2, 0, 2);
        auto* text =
            new QLabel((f.accepted ? QStringLiteral("\u2713 ") : QStringLiteral("\u26a0 ")) + qs(f.sentence) +
                       (f.accepted ? tr(" Accepted, because %1.").arg(qs(f.why)) : QString()));
        text->setWordWrap(true);
        text->setObjectName(f.accepted ? "faint" : "finding");
        line->addWidget(text, 1);
        const auto rule = f.rule;
        if (f.accepted) {
            auto* again = new QPushButton(tr("Ask again"));
            connect(again, &QPushButton::clicked, this, [this, rule] {
                m_session.tell(m_session.project()->acceptFinding(m_session.studyId(), rule, QString()));
            });
            line->addWidget(again);
        } else {
            if (!f.remedy.empty()) {
                auto* remedy = new QPushButton(qs(f.remedy));
                remedy->setObjectName("remedy-" + qs(rule));
                connect(remedy, &QPushButton::clicked, this, [this, rule] {
                    m_session.tell(m_session.project()->applyRemedy(m_session.studyId(), rule));
                });
                line->addWidget(remedy);
            }
            auto* why = new QLineEdit;
            why->setObjectName("accept-" + qs(rule));
            why->setPlaceholderText(tr("accept, because …"));
            why->setFixedWidth(160);
            why->setToolTip(tr("Type a reason and press Enter; it goes into the report"));
            connect(why, &QLineEdit::returnPressed, this, [this, rule, why] {
                if (why->text().trimmed().isEmpty())
                    return m_session.say(tr("Say why it is acceptable; the reason goes into the report."),
                                         true);
                m_session.tell(m_session.project()->acceptFinding(m_session.studyId(), rule, why->text()));
            });
            line->addWidget(why);
        }
        m_findings->addWidget(row);
    }
    if (findings.empty())
        m_findings->addWidget(
            new QLabel(data && !data->options.empty()
                           ? tr("Nothing stands in the way of a fair comparison.")
                           : tr("What would make the comparison unfair shows here as you plan.")));
    m_findings->addStretch();
    m_tabs->setTabText(0, open ? tr("Is it fair? (%1)").arg(open) : tr("Is it fair?"));
}

void QuestionStage::fillHowMany() {
    const auto* data = m_session.study();
    QString from;
    const double cv = expectedCv(&from), margin = data ? data->study.margin : 0.1;
    const int planned = data ? data->study.plan.replicates : 0;
    const auto settle = stats::replicatesFor(cv, margin);
    m_spread->setText(
        tr("At a spread of %1 (%2), a difference of %3 needs %4 of each to be seen in four cases of five.")
            .arg(qs(percent(cv)), from, qs(percent(margin)),
                 settle ? QString::number(*settle) : tr("more than you can pull")));
    const auto rows = study::schools(cv, planned);
    m_schools->setRowCount(static_cast<int>(rows.size()));
    for (int i = 0; i < m_schools->rowCount(); ++i) {
        const auto& r = rows[static_cast<std::size_t>(i)];
        const QStringList cells{QString::number(r.n), r.detectable ? qs(percent(*r.detectable)) : tr("none"),
                                qs(r.school)};
        for (int k = 0; k < 3; ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            if (k < 2) item->setFont(figures(13, r.n == planned));
            if (k < 2) item->setTextAlignment(Qt::AlignCenter);
            item->setToolTip(cells[2]);
            m_schools->setItem(i, k, item);
        }
    }
    m_schools->resizeColumnToContents(1);
    m_power->setBuild(
        [cv, planned, margin](double width) { return chart::powerCurve(cv, planned, margin, width, 210); });
}

void QuestionStage::fillHeadRoom() {
    const bool filling = std::exchange(m_filling, true);
    const auto* data = m_session.study();
    const auto& force = *m_session.units().force;
    const auto shown = [&](const std::optional<double>& v) {
        return v ? qs(quantity::withUnit(*v, force)) : QString();
    };
    if (data) {
        const auto& rig = data->study.plan.rig;
        m_limit->setText(shown(rig.limit));
        m_cell->setText(shown(rig.cell));
        m_ratio->setText(qs(quantity::shortest(rig.ratio)));
    }
    m_bars->setBuild([this](double width) {
        const auto* now = m_session.study();
        return now ? chart::reachBars(*now, m_session.verdict(now->study.metric), *m_session.units().force,
                                      width)
                   : chart::Picture{};
    });
    const auto* option = data ? data->option(m_session.option()) : nullptr;
    const auto* condition = data ? data->condition(m_session.condition()) : nullptr;
    QString said;
    if (option && condition) {
        m_square->setText(tr("%1, %2:").arg(qs(option->name), qs(condition->name)));
        said = qs(study::headRoom(*data, m_session.verdict(data->study.metric), option->id, condition->id)
                      .sentence);
        if (const auto* square = data->study.plan.square(option->id, condition->id))
            for (const auto& f : square->forecasts)
                said += tr(" %1: %2 ± %3%4.")
                            .arg(f.by.empty() ? tr("Forecast") : qs(f.by), shown(f.value), qs(percent(f.cv)),
                                 f.goesFirst.empty() ? QString() : tr(", %1 first").arg(qs(f.goesFirst)));
    } else {
        m_square->setText(tr("Select a square:"));
    }
    if (data && !data->study.plan.chain.empty())
        said += " " + qs(study::weakestSentence(study::weakestLink(data->study.plan.chain)));
    m_reachSentence->setText(said);
    m_filling = filling;
}

void QuestionStage::saveReach() {
    const auto* data = m_session.study();
    if (m_filling || !data) return;
    auto rig = data->study.plan.rig;
    for (const auto& [edit, target] : {std::pair{m_limit, &rig.limit}, std::pair{m_cell, &rig.cell}}) {
        if (edit->text().trimmed().isEmpty()) {
            target->reset();
            continue;
        }
        const auto entry =
            quantity::parseEntry(edit->text().toStdString(), Dimension::force, m_session.units().force);
        if (!m_session.tell(entry)) return;
        if (!(entry->si > 0)) return m_session.say(tr("A limit of zero or less cannot be."), true);
        if (!*target || std::abs(**target - entry->si) > 5e-5 * entry->si)
            *target = entry->si; // what only looks rounded is left as it was
    }
    const auto ratio = quantity::parseNumber(m_ratio->text().toStdString());
    if (!m_session.tell(ratio)) return;
    if (!(*ratio > 0))
        return m_session.say(
            tr("A ratio of zero or less cannot be: give what one at the cell is at the piece."), true);
    rig.ratio = *ratio;
    if (rig == data->study.plan.rig) return;
    m_session.tell(m_session.project()->changePlan(m_session.studyId(), tr("What the rig can do"),
                                                   [&](study::Plan& p) { p.rig = rig; }));
}

void QuestionStage::saveForecast() {
    const auto* data = m_session.study();
    if (!data || !m_session.option() || !m_session.condition())
        return m_session.say(tr("Select the square on the board that you have an expectation of."), true);
    const auto entry =
        quantity::parseEntry(m_expected->text().toStdString(), study::info(data->study.metric).dimension,
                             &m_session.units().of(study::info(data->study.metric).dimension));
    if (!m_session.tell(entry)) return;
    if (!(entry->si > 0)) return m_session.say(tr("An expectation of zero or less cannot be."), true);
    const study::Forecast f{m_by->text().simplified().toStdString(),
                            entry->si,
                            m_forecastSpread->value() / 100,
                            m_goesFirst->text().simplified().toStdString(),
                            {}};
    const auto done = m_session.project()->changePlan(
        m_session.studyId(), tr("Forecast for %1").arg(m_square->text()), [&](study::Plan& p) {
            auto& all = p.squareFor(m_session.option(), m_session.condition()).forecasts;
            std::erase_if(all, [&](const auto& old) { return old.by == f.by; });
            all.push_back(f);
        });
    if (m_session.tell(done)) m_expected->clear();
}

void QuestionStage::fillFacts() {
    const auto* data = m_session.study();
    m_facts->setRowCount(data ? static_cast<int>(data->options.size()) : 0);
    if (!data) return;
    for (int i = 0; i < m_facts->rowCount(); ++i) {
        const auto& o = data->options[static_cast<std::size_t>(i)];
        const QStringList cells{
            qs(o.name),        qs(o.kind),
            qs(o.grade),       o.rating ? m_session.force(*o.rating) : QString(),
            qs(o.ratingBasis), o.unitCost ? qs(quantity::fixed(*o.unitCost, 2)) : QString(),
            qs(o.currency),    o.weight ? qs(quantity::shortest(*o.weight * 1000) + " g") : QString()};
        for (int k = 0; k < cells.size(); ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            if (k == 3 || k == 5 || k == 7) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            m_facts->setItem(i, k, item);
        }
    }
}

void QuestionStage::factEdited(int row, int column) {
    const auto* data = m_session.study();
    if (m_filling || !data || row >= static_cast<int>(data->options.size())) return;
    const auto& option = data->options[static_cast<std::size_t>(row)];
    const auto text = m_facts->item(row, column)->text().simplified();
    static constexpr const char* fields[] = {"name",         "kind",      "grade",    "rating_n",
                                             "rating_basis", "unit_cost", "currency", "weight_kg"};
    QJsonValue value = text;
    const auto refuse = [&](const QString& why) {
        m_session.say(why, true);
        fillFacts();
    };
    const bool filling = std::exchange(m_filling, true);
    if (column == 3 || column == 5 || column == 7) {
        value = QJsonValue::Null;
        if (!text.isEmpty()) {
            const auto number = column == 5
                                    ? quantity::parseNumber(text.toStdString())
                                    : quantity::parseEntry(text.toStdString(),
                                                           column == 3 ? Dimension::force : Dimension::mass,
                                                           column == 3 ? m_session.units().force : nullptr)
                                          .map([](const auto& e) { return e.si; });
            if (!number || *number < 0) {
                refuse(!number       ? qs(number.error().message)
                       : column == 5 ? tr("A cost below zero cannot be.")
                                     : tr("Less than nothing cannot be."));
                m_filling = filling;
                return;
            }
            value = *number;
        }
    }
    m_filling = filling;
    if (!m_session.tell(m_session.project()->changeOption(option.id, {{QLatin1String(fields[column]), value}},
                                                          tr("Option \"%1\"").arg(qs(option.name)))))
        refresh();
}

void QuestionStage::pasteFacts() {
    const int taken = pasteInto(*m_facts);
    m_session.say(taken == 0 ? tr("There is nothing new to paste.") : tr("%1 facts taken.").arg(taken),
                  taken == 0);
}

bool QuestionStage::writeRunList(const QString& path) {
    if (!m_session.study()) return false;
    if (!m_session.tell(report::writePdf(report::runListDocument(*m_session.study()), path))) return false;
    m_session.say(tr("The run list is in %1.").arg(path));
    return true;
}

void QuestionStage::saveAxis() {
    const auto* data = m_session.study();
    if (m_filling || !data) return;
    // "sheet temperature (°C)": the unit in brackets makes the axis numeric, and the conditions' names its
    // values.
    const auto typed = m_axis->text().simplified();
    const auto open = typed.lastIndexOf('('), close = typed.lastIndexOf(')');
    const auto unitText =
        open > 0 && close > open ? typed.mid(open + 1, close - open - 1).trimmed() : QString();
    const quantity::Unit* unit = nullptr;
    if (!unitText.isEmpty()) {
        const auto found = quantity::findUnit(unitText.toStdString());
        if (!m_session.tell(found)) return;
        unit = *found;
    }
    const auto name = (open > 0 ? typed.left(open) : typed).trimmed().toStdString();
    if (name == data->study.plan.axis && unitText.toStdString() == data->study.plan.axisUnit) return;
    auto plan = data->study.plan;
    plan.axis = name;
    plan.axisUnit = unitText.toStdString();
    const auto done = m_session.project()->run(tr("What the conditions vary"), [&](store::Writer& w) {
        w.update("study", data->study.id, {{"plan", store::planToJson(plan)}});
        for (const auto& c : data->conditions) {
            const auto value =
                unit ? quantity::parseEntry(c.name, unit->dimension, unit) : tl::unexpected(Error{});
            w.update("condition", c.id,
                     {{"value", value ? QJsonValue(value->si) : QJsonValue(QJsonValue::Null)}});
        }
    });
    m_session.tell(done);
}

void QuestionStage::fillRunList() {
    const auto* data = m_session.study();
    m_runs->clear();
    if (!data) return;
    const auto& p = data->study.plan;
    int waiting = 0;
    for (const auto& s : data->specimens)
        waiting += std::none_of(data->pulls.begin(), data->pulls.end(),
                                [&](const auto& x) { return x.specimen == s.id; });
    if (p.runOrder.empty())
        m_order->setText(
            waiting
                ? tr("%1 pieces wait to be pulled. Draw an order, so that drift and days fall on all alike.")
                      .arg(waiting)
                : tr("No piece waits to be pulled: make the pieces in Specimens first."));
    else
        m_order->setText(tr("%1 pulls in random blocks, drawn from seed %2%3. Drag to change the order.")
                             .arg(p.runOrder.size())
                             .arg(p.seed)
                             .arg(p.reordered ? tr(", changed by hand") : QString()));
    if (!p.runOrder.empty()) m_seed->setValue(static_cast<int>(std::min<std::uint64_t>(p.seed, 1000000)));
    int n = 0;
    for (const auto& label : p.runOrder) {
        QString text = tr("%1.  %2").arg(++n).arg(qs(label));
        for (const auto& s : data->specimens)
            if (s.label == label) {
                text += tr("   %1, %2")
                            .arg(qs(data->option(s.option)->name), qs(data->condition(s.condition)->name));
                if (std::any_of(data->pulls.begin(), data->pulls.end(),
                                [&](const auto& x) { return x.specimen == s.id; }))
                    text += QStringLiteral("  \u2713");
            }
        m_runs->addItem(text);
    }
}

} // namespace anvil::app
