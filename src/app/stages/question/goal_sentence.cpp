#include "stages/question/goal_sentence.h"

#include "widgets/edited.h"
#include "widgets/fitted_edit.h"
#include "widgets/flow_layout.h"
#include "widgets/metric_box.h"
#include "widgets/number_box.h"
#include "widgets/plain_text.h"
#include "widgets/unit_tail.h"
#include <QComboBox>
#include <QVBoxLayout>
#include <anvil/methods/method.h>
#include <anvil/project/board_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <cmath>

namespace anvil::app {
namespace {

QComboBox* choice(const char* name) {
    auto* box = new QComboBox;
    box->setObjectName(QLatin1String(name));
    box->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    return box;
}

} // namespace

GoalSentence::GoalSentence(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(6);
    auto* goal = new QWidget;
    goal->setObjectName("goalSentence");
    makeGoal(new FlowLayout(goal));
    layout->addWidget(goal);
    auto* study = new QWidget;
    makeStudy(new FlowLayout(study));
    layout->addWidget(study);
    follow();
}

void GoalSentence::makeGoal(FlowLayout* line) {
    const auto say = [&](const QString& text) {
        auto* label = plainLabel(text);
        line->addWidget(label);
        return label;
    };
    say(tr("Wanted is"));
    line->addWidget(m_sense = choice("direction"));
    m_sense->addItems({tr("more"), tr("less"), tr("a window of")});
    m_sense->setAccessibleName(tr("Whether more or less is wanted"));
    line->addWidget(m_metric = new MetricBox);
    m_metric->setObjectName("studyMetric");
    m_metric->setAccessibleName(tr("What decides"));
    m_metric->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    m_metric->offer(nullptr);
    m_from = say(tr("from"));
    line->addWidget(m_low = new FittedEdit("windowLow", {}));
    m_to = say(tr("to"));
    line->addWidget(m_high = new FittedEdit("windowHigh", {}));
    say(tr("of"));
    line->addWidget(m_part = new FittedEdit("askedPart", tr("which part, such as: the bond")));
    m_needed = say({});
    line->addWidget(m_need = new FittedEdit("need", {}));
    m_isNeeded = say({});
    line->addWidget(m_ceiling = new FittedEdit("ceiling", {}));
    m_need->setAccessibleName(tr("What is needed"));
    m_ceiling->setAccessibleName(tr("What is enough"));
    setTip(m_ceiling, tr("More than anybody needs: options beyond it count as equally good"));
    say(tr("is enough."));
    m_margin = new NumberBox;
    m_margin->setObjectName("studyMargin");
    m_margin->setAccessibleName(tr("The difference that matters"));
    m_margin->setRange(0.5, 100);
    m_margin->setDecimals(1);
    m_margin->setSuffix(" %");
    line->addWidget(m_margin);
    say(tr("matters, compared with"));
    line->addWidget(m_control = choice("studyControl"));
    m_control->setAccessibleName(tr("The option that the others are compared with"));
    followGoal();
}

void GoalSentence::followGoal() {
    connect(m_sense, &QComboBox::activated, this, [this](int index) {
        change(m_sense->currentText(), [&](domain::Goal& g) { g.sense = static_cast<domain::Sense>(index); });
    });
    connect(m_metric, &QComboBox::activated, this, [this] {
        const auto metric = m_metric->chosen();
        change(tr("What decides"), [&](domain::Goal& g) { domain::decideBy(g, metric); });
    });
    connect(m_margin, &QDoubleSpinBox::editingFinished, this, [this] {
        if (m_margin->changed())
            save(tr("Difference that matters"),
                 [&](domain::Study& s) { s.goal.margin = m_margin->exact() / 100; });
    });
    connect(m_control, &QComboBox::activated, this, [this] {
        const auto id = m_control->currentData().toLongLong();
        change(tr("Control: %1").arg(m_control->currentText()), [&](domain::Goal& g) { g.control = id; });
    });
    for (auto* edit : {m_need, m_ceiling, m_low, m_high})
        new UnitTail(edit, m_session, [this] {
            const auto* data = m_session.study();
            return data ? std::optional(data->study.goal.metric->dimension) : std::nullopt;
        });
    for (auto* edit : {m_part, m_need, m_ceiling, m_low, m_high})
        whenEdited(edit, this, [this] { saveGoal(); });
}

void GoalSentence::makeStudy(FlowLayout* line) {
    const auto say = [&](const QString& text) {
        auto* label = plainLabel(text);
        label->setObjectName("faint");
        line->addWidget(label);
    };
    say(tr("The study is called"));
    line->addWidget(m_title = new FittedEdit("studyTitle", tr("a short name")));
    say(tr("and is"));
    line->addWidget(m_intent = choice("studyIntent"));
    m_intent->setAccessibleName(tr("How strictly the study compares"));
    m_intent->addItem(tr("controlled: all else equal"), "controlled");
    m_intent->addItem(tr("exploratory: thought of as we go"), "exploratory");
    m_intent->addItem(tr("as used: worn or crooked on purpose"), "as_used");
    say(tr("Its conditions vary"));
    line->addWidget(m_axis = new FittedEdit("axis", tr("such as: temperature")));
    setTip(m_axis, tr("What the conditions vary"));
    say(tr("in"));
    line->addWidget(m_axisUnit = new FittedEdit("axisUnit", tr("unit")));
    setTip(m_axisUnit, tr("With one the conditions' names are read as values of it, such as °C"));
    for (auto* edit : {m_axis, m_axisUnit})
        whenEdited(edit, this, [this] { saveAxis(); });
    whenEdited(m_title, this, [this] {
        if (m_title->text().trimmed().isEmpty()) return refill();
        save(tr("Title of the study"),
             [&](domain::Study& s) { s.title = m_title->text().trimmed().toStdString(); });
    });
    connect(m_intent, &QComboBox::activated, this, [this] {
        save(tr("Intent"),
             [&](domain::Study& s) { s.intent = static_cast<domain::Intent>(m_intent->currentIndex()); });
    });
}

void GoalSentence::save(const QString& what, const std::function<void(domain::Study&)>& change) {
    if (!filling() && m_session.project() && m_session.study())
        m_session.tell(m_session.project()->changeStudy(m_session.studyId(), what, change));
}

void GoalSentence::change(const QString& what, const std::function<void(domain::Goal&)>& change) {
    if (!filling() && m_session.project() && m_session.study())
        m_session.tell(project::changeGoal(*m_session.project(), m_session.studyId(), what, change));
}

void GoalSentence::saveAxis() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    const auto name = m_axis->text().simplified().toStdString(),
               unit = m_axisUnit->text().simplified().toStdString();
    if (name == data->study.plan.axis && unit == data->study.plan.axisUnit) return;
    m_session.tell(project::setAxis(*m_session.project(), data->study.id, name, unit));
}

void GoalSentence::saveGoal() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    auto goal = data->study.goal;
    goal.part = m_part->text().simplified().toStdString();
    const auto& metric = *data->study.goal.metric;
    std::optional<double> low, high;
    if (goal.window) low = goal.window->first, high = goal.window->second;
    for (const auto& [edit, target] : {std::pair{m_need, &goal.need}, std::pair{m_ceiling, &goal.ceiling},
                                       std::pair{m_low, &low}, std::pair{m_high, &high}}) {
        if (!edited(edit)) continue; // what only looks rounded stays as it was
        if (edit->text().trimmed().isEmpty()) {
            target->reset();
            continue;
        }
        const auto entry = m_session.read(edit->text(), metric.dimension);
        if (!m_session.tell(entry)) return;
        m_session.heard(*entry);
        *target = entry->si;
    }
    if (goal.ceiling && domain::meetsNeed(goal, *goal.ceiling) == std::optional(false))
        return m_session.say(tr("What is enough must meet the need."), true);
    if (low && high && !(*low < *high))
        return m_session.say(tr("The window must end above where it begins."), true);
    goal.window = low && high ? std::optional(std::pair(*low, *high)) : std::nullopt;
    if (goal == data->study.goal) return;
    change(tr("What is needed"), [&](domain::Goal& g) { g = goal; });
}

void GoalSentence::fillGoal(const domain::Goal& goal) {
    const auto& unit = methods::unitFor(*goal.metric, m_session.units());
    const auto shown = [&](const std::optional<double>& v) {
        return v ? qs(quantity::withUnit(*v, unit)) : QString();
    };
    const auto hint = tr("how much");
    for (auto* edit : {m_need, m_ceiling, m_low, m_high})
        edit->setHint(hint);
    m_sense->setCurrentIndex(static_cast<int>(goal.sense));
    m_part->setText(qs(goal.part));
    m_need->setText(shown(goal.need));
    m_ceiling->setText(shown(goal.ceiling));
    const bool window = goal.sense == domain::Sense::inside;
    for (QWidget* w : {static_cast<QWidget*>(m_from), static_cast<QWidget*>(m_low),
                       static_cast<QWidget*>(m_to), static_cast<QWidget*>(m_high)})
        w->setVisible(window);
    if (goal.window || !window) { // half a window that is being typed stays
        m_low->setText(goal.window ? shown(goal.window->first) : QString());
        m_high->setText(goal.window ? shown(goal.window->second) : QString());
    }
    m_needed->setText(goal.sense == domain::Sense::less ? tr("where at most") : tr("where at least"));
    m_isNeeded->setText(tr("is needed and"));
    m_margin->showNumber(goal.margin * 100);
}

void GoalSentence::fill() {
    const auto* data = m_session.study();
    m_metric->offer(data);
    m_metric->choose(data ? data->study.goal.metric : domain::metric("peak"));
    fillGoal(data ? data->study.goal : domain::Goal{});
    m_title->setText(data ? qs(data->study.title) : QString());
    m_intent->setCurrentIndex(data ? static_cast<int>(data->study.intent) : 0);
    m_axis->setText(data ? qs(data->study.plan.axis) : QString());
    m_axisUnit->setText(data ? qs(data->study.plan.axisUnit) : QString());
    m_control->clear();
    m_control->addItem(tr("nothing yet"), Id{0});
    if (data)
        for (const auto& o : data->options)
            m_control->addItem(qs(o.name), o.id);
    m_control->setCurrentIndex(std::max(0, m_control->findData(data ? data->study.goal.control : Id{0})));
}

} // namespace anvil::app
