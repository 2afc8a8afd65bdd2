#include "stages/question/study_fields.h"

#include "widgets/metric_box.h"
#include "widgets/plain_text.h"
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QHBoxLayout>
#include <QLineEdit>
#include <anvil/quantity/entry.h>
#include <anvil/work/board_commands.h>
#include <anvil/work/plan_commands.h>

namespace anvil::app {

StudyFields::StudyFields(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 0, 4);
    grid->setVerticalSpacing(4);
    m_question = field("studyQuestion", tr("such as: which fitting holds best after a season of salt?"));
    m_title = field("studyTitle", QString());
    m_metric = new MetricBox;
    m_metric->setObjectName("studyMetric");
    m_metric->offer(nullptr);
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
    auto* varied = new QWidget;
    auto* axis = new QHBoxLayout(varied);
    axis->setContentsMargins(0, 0, 0, 0);
    m_axis = field("axis", tr("such as: temperature"));
    setTip(m_axis, tr("What the conditions vary"));
    m_axisUnit = field("axisUnit", tr("unit"), 64);
    setTip(m_axisUnit, tr("With one the conditions' names are read as values of it, such as °C"));
    axis->addWidget(m_axis, 1);
    axis->addWidget(m_axisUnit);
    grid->addWidget(plainLabel(tr("Question")), 0, 0);
    grid->addWidget(m_question, 0, 1, 1, 5);
    int place = 0;
    for (const auto& [text, widget] :
         std::initializer_list<std::pair<QString, QWidget*>>{{tr("Study"), m_title},
                                                             {tr("What decides"), m_metric},
                                                             {tr("Intent"), m_intent},
                                                             {tr("Control"), m_control},
                                                             {tr("I care about"), m_margin},
                                                             {tr("Varied"), varied}}) {
        grid->addWidget(plainLabel(text), 1 + place / 3, 2 * (place % 3));
        grid->addWidget(widget, 1 + place / 3, 2 * (place % 3) + 1);
        ++place;
    }
    for (const int c : {1, 3, 5})
        grid->setColumnStretch(c, 1);
    for (auto* edit : {m_axis, m_axisUnit})
        connect(edit, &QLineEdit::editingFinished, this, &StudyFields::saveAxis);
    connect(m_title, &QLineEdit::editingFinished, this, [this] {
        if (m_title->text().trimmed().isEmpty()) return refill();
        save(tr("Title of the study"),
             [&](domain::Study& s) { s.title = m_title->text().trimmed().toStdString(); });
    });
    connect(m_question, &QLineEdit::editingFinished, this, [this] {
        save(tr("The question"),
             [&](domain::Study& s) { s.question = m_question->text().trimmed().toStdString(); });
    });
    connect(m_metric, &QComboBox::activated, this, [this] {
        const auto metric = m_metric->metric();
        if (!filling() && m_session.project() && m_session.study())
            m_session.tell(work::changeGoal(*m_session.project(), m_session.studyId(), tr("What decides"),
                                            [&](domain::Goal& g) { domain::decideBy(g, metric); }));
    });
    connect(m_intent, &QComboBox::activated, this, [this] {
        save(tr("Intent"),
             [&](domain::Study& s) { s.intent = static_cast<domain::Intent>(m_intent->currentIndex()); });
    });
    connect(m_margin, &QDoubleSpinBox::editingFinished, this, [this] {
        save(tr("Difference that matters"),
             [&](domain::Study& s) { s.goal.margin = m_margin->value() / 100; });
    });
    connect(m_control, &QComboBox::activated, this, [this] {
        const auto id = m_control->currentData().toLongLong();
        if (m_session.study())
            m_session.tell(work::changeGoal(*m_session.project(), m_session.studyId(),
                                            tr("Control: %1").arg(m_control->currentText()),
                                            [&](domain::Goal& g) { g.control = id; }));
    });
    follow();
}

void StudyFields::save(const QString& what, const std::function<void(domain::Study&)>& change) {
    if (!filling() && m_session.project() && m_session.study())
        m_session.tell(m_session.project()->changeStudy(m_session.studyId(), what, change));
}

void StudyFields::saveAxis() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    const auto name = m_axis->text().simplified().toStdString(),
               unit = m_axisUnit->text().simplified().toStdString();
    if (name == data->study.plan.axis && unit == data->study.plan.axisUnit) return;
    m_session.tell(work::setAxis(*m_session.project(), data->study.id, name, unit));
}

void StudyFields::fill() {
    const auto* data = m_session.study();
    m_title->setText(data ? qs(data->study.title) : QString());
    m_question->setText(data ? qs(data->study.question) : QString());
    m_metric->offer(data);
    m_metric->choose(data ? data->study.goal.metric : domain::metric("peak"));
    m_intent->setCurrentIndex(data ? static_cast<int>(data->study.intent) : 0);
    m_margin->setValue(data ? data->study.goal.margin * 100 : 10);
    m_axis->setText(data ? qs(data->study.plan.axis) : QString());
    m_axisUnit->setText(data ? qs(data->study.plan.axisUnit) : QString());
    m_control->clear();
    m_control->addItem(tr("none yet"), Id{0});
    if (data)
        for (const auto& o : data->options)
            m_control->addItem(qs(o.name), o.id);
    m_control->setCurrentIndex(std::max(0, m_control->findData(data ? data->study.goal.control : Id{0})));
}

} // namespace anvil::app
