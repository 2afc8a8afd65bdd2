#include "stages/question/question_stage.h"

#include "theme/theme.h"
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {
namespace {

QTableWidget* makeTable(const QStringList& heads, const char* name) {
    auto* t = new QTableWidget(0, static_cast<int>(heads.size()));
    t->setObjectName(name);
    t->setHorizontalHeaderLabels(heads);
    t->verticalHeader()->hide();
    t->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    t->setTabKeyNavigation(false);
    return t;
}

QStringList names(const QString& text) {
    QStringList out;
    for (auto part : QString(text).replace('\t', '\n').split('\n'))
        if (!part.trimmed().isEmpty()) out << part.simplified();
    return out;
}

} // namespace

QuestionStage::QuestionStage(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(16, 14, 16, 14);
    m_sentence =
        new QLabel(tr("Say what you want to find out, what you compare, and under which conditions."));
    m_sentence->setObjectName("sentence");
    m_sentence->setWordWrap(true);
    layout->addWidget(m_sentence);
    m_start = new QPushButton(icon("file-plus", true), tr("Start a project…"));
    m_start->setObjectName("primary");
    m_start->setMinimumHeight(36);
    layout->addWidget(m_start, 0, Qt::AlignLeft);
    connect(m_start, &QPushButton::clicked, &session, &Session::projectWanted);
    m_body = new QWidget;
    auto* inner = new QVBoxLayout(m_body);
    inner->setContentsMargins(0, 0, 0, 0);
    auto* form = new QFormLayout;
    m_title = new QLineEdit;
    m_title->setObjectName("studyTitle");
    m_question = new QLineEdit;
    m_question->setObjectName("studyQuestion");
    m_question->setPlaceholderText(tr("such as: which fitting holds best after a season of salt?"));
    m_metric = new QComboBox;
    m_metric->setObjectName("studyMetric");
    for (const auto m : study::allMetrics)
        m_metric->addItem(study::info(m).title, study::info(m).key);
    m_intent = new QComboBox;
    m_intent->addItem(tr("Controlled: all else equal"), "controlled");
    m_intent->addItem(tr("Exploratory: the next one is thought of as we go"), "exploratory");
    m_intent->addItem(tr("As used: worn, dirty or crooked on purpose"), "as_used");
    m_margin = new QDoubleSpinBox;
    m_margin->setObjectName("studyMargin");
    m_margin->setRange(0.5, 100);
    m_margin->setDecimals(1);
    m_margin->setSuffix(" %");
    form->addRow(tr("Study"), m_title);
    form->addRow(tr("Question"), m_question);
    form->addRow(tr("What decides"), m_metric);
    form->addRow(tr("Difference that matters"), m_margin);
    form->addRow(tr("Intent"), m_intent);
    inner->addLayout(form);

    auto* columns = new QHBoxLayout;
    auto* left = new QVBoxLayout;
    m_options = makeTable({tr("Option"), tr("Cost each"), tr("Currency")}, "options");
    m_options->setColumnWidth(1, 90);
    m_options->setColumnWidth(2, 80);
    left->addWidget(m_options);
    auto* addOption = new QHBoxLayout;
    m_newOption = new QLineEdit;
    m_newOption->setObjectName("newOption");
    m_newOption->setPlaceholderText(tr("Type an option and press Enter, or paste a column"));
    auto* removeOption = new QPushButton(tr("Take away"));
    removeOption->setToolTip(tr("Takes the selected option away, if nothing of it was pulled"));
    addOption->addWidget(m_newOption);
    addOption->addWidget(removeOption);
    left->addLayout(addOption);
    columns->addLayout(left, 3);
    auto* right = new QVBoxLayout;
    m_conditions = makeTable({tr("Condition")}, "conditions");
    right->addWidget(m_conditions);
    auto* addCondition = new QHBoxLayout;
    m_newCondition = new QLineEdit;
    m_newCondition->setObjectName("newCondition");
    m_newCondition->setPlaceholderText(tr("Type a condition"));
    auto* removeCondition = new QPushButton(tr("Take away"));
    addCondition->addWidget(m_newCondition);
    addCondition->addWidget(removeCondition);
    right->addLayout(addCondition);
    columns->addLayout(right, 2);
    inner->addLayout(columns, 1);
    layout->addWidget(m_body, 1);
    layout->addStretch();

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
    connect(m_newOption, &QLineEdit::returnPressed, this, &QuestionStage::addOptions);
    connect(m_newCondition, &QLineEdit::returnPressed, this, &QuestionStage::addConditions);
    connect(m_options, &QTableWidget::cellChanged, this, &QuestionStage::optionEdited);
    connect(m_conditions, &QTableWidget::cellChanged, this, &QuestionStage::conditionEdited);
    connect(removeOption, &QPushButton::clicked, this, [this] {
        const auto* data = m_session.study();
        const int row = m_options->currentRow();
        if (!data || row < 0 || row >= static_cast<int>(data->options.size()))
            return m_session.say(tr("Select the option to take away first."));
        m_session.tell(m_session.project()->removeOption(data->options[static_cast<std::size_t>(row)].id));
    });
    connect(removeCondition, &QPushButton::clicked, this, [this] {
        const auto* data = m_session.study();
        const int row = m_conditions->currentRow();
        if (!data || row < 0 || row >= static_cast<int>(data->conditions.size()))
            return m_session.say(tr("Select the condition to take away first."));
        m_session.tell(
            m_session.project()->removeCondition(data->conditions[static_cast<std::size_t>(row)].id));
    });
    connect(&session, &Session::changed, this, &QuestionStage::refresh);
    refresh();
}

bool QuestionStage::ensureStudy() {
    if (!m_session.project()) {
        m_session.say(tr("Open or start a project first (File menu)."), true);
        return false;
    }
    if (m_session.study()) return true;
    study::Study s;
    s.title = "New study";
    const auto id = m_session.project()->addStudy(s);
    if (!m_session.tell(id)) return false;
    m_session.showStudy(*id);
    return true;
}

void QuestionStage::addOptions() {
    const auto all = names(m_newOption->text());
    if (all.isEmpty() || !ensureStudy()) return;
    for (const auto& name : all)
        if (!m_session.tell(m_session.project()->addOption(m_session.studyId(), name))) return;
    m_newOption->clear();
}

void QuestionStage::addConditions() {
    const auto all = names(m_newCondition->text());
    if (all.isEmpty() || !ensureStudy()) return;
    for (const auto& name : all)
        if (!m_session.tell(m_session.project()->addCondition(m_session.studyId(), name))) return;
    m_newCondition->clear();
}

void QuestionStage::saveStudy(const QString& field, const QJsonValue& value, const QString& what) {
    if (!m_filling && m_session.project() && m_session.study())
        m_session.tell(m_session.project()->changeStudy(m_session.studyId(), {{field, value}}, what));
}

void QuestionStage::optionEdited(int row, int column) {
    const auto* data = m_session.study();
    if (m_filling || !data || row >= static_cast<int>(data->options.size())) return;
    const auto& option = data->options[static_cast<std::size_t>(row)];
    const auto text = m_options->item(row, column)->text().trimmed();
    QJsonObject fields;
    if (column == 0) {
        fields["name"] = text;
    } else if (column == 2) {
        fields["currency"] = text;
    } else if (text.isEmpty()) {
        fields["unit_cost"] = QJsonValue::Null;
    } else {
        const auto cost = quantity::parseNumber(text.toStdString());
        if (!cost || *cost < 0) {
            m_session.say(cost ? tr("A cost below zero cannot be.") : qs(cost.error().message), true);
            return refresh();
        }
        fields["unit_cost"] = *cost;
    }
    if (!m_session.tell(
            m_session.project()->changeOption(option.id, fields, tr("Option \"%1\"").arg(qs(option.name)))))
        refresh();
}

void QuestionStage::conditionEdited(int row, int column) {
    const auto* data = m_session.study();
    if (m_filling || !data || row >= static_cast<int>(data->conditions.size())) return;
    const auto& condition = data->conditions[static_cast<std::size_t>(row)];
    if (!m_session.tell(m_session.project()->changeCondition(
            condition.id, {{"name", m_conditions->item(row, column)->text().simplified()}},
            tr("Condition \"%1\"").arg(qs(condition.name)))))
        refresh();
}

void QuestionStage::refresh() {
    m_filling = true;
    const auto* data = m_session.study();
    m_start->setVisible(!m_session.project());
    m_body->setVisible(m_session.project());
    m_body->setEnabled(!m_session.readOnly());
    m_title->setText(data ? qs(data->study.title) : QString());
    m_question->setText(data ? qs(data->study.question) : QString());
    m_metric->setCurrentIndex(data ? static_cast<int>(data->study.metric) : 0);
    m_intent->setCurrentIndex(data ? static_cast<int>(data->study.intent) : 0);
    m_margin->setValue(data ? data->study.margin * 100 : 10);
    m_options->setRowCount(data ? static_cast<int>(data->options.size()) : 0);
    m_conditions->setRowCount(data ? static_cast<int>(data->conditions.size()) : 0);
    for (int i = 0; i < m_options->rowCount(); ++i) {
        const auto& o = data->options[static_cast<std::size_t>(i)];
        m_options->setItem(i, 0, new QTableWidgetItem(qs(o.name)));
        auto* cost = new QTableWidgetItem(o.unitCost ? qs(quantity::fixed(*o.unitCost, 2)) : QString());
        cost->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        m_options->setItem(i, 1, cost);
        m_options->setItem(i, 2, new QTableWidgetItem(qs(o.currency)));
    }
    for (int i = 0; i < m_conditions->rowCount(); ++i)
        m_conditions->setItem(i, 0,
                              new QTableWidgetItem(qs(data->conditions[static_cast<std::size_t>(i)].name)));
    m_filling = false;
}

} // namespace anvil::app
