#include "stages/pull/ladder_panel.h"

#include "shell/preferences.h"
#include "theme/theme.h"
#include "widgets/edited.h"
#include "widgets/path_question.h"
#include "widgets/plain_text.h"
#include "widgets/unit_tail.h"
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <anvil/chart/charts.h>
#include <anvil/domain/outcomes.h>
#include <anvil/methods/method.h>
#include <anvil/plan/next.h>
#include <anvil/project/entry_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <anvil/words/values.h>

namespace anvil::app {

using quantity::Dimension;

LadderPanel::LadderPanel(Session& session, QWidget* parent) : Panel(session, parent) {
    setObjectName("ladderPanel");
    setFocusPolicy(Qt::StrongFocus);
    m_clock.start();
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* plan = new QGridLayout;
    int place = 0;
    const auto add = [&](const QString& text, QLineEdit*& edit, const char* name, const QString& hint) {
        plan->addWidget(plainLabel(text), place / 2, 2 * (place % 2));
        plan->addWidget(edit = field(name, hint, 190), place / 2, 2 * (place % 2) + 1);
        ++place;
        whenEdited(edit, this, [this] { savePlan(); });
    };
    add(tr("Begin with"), m_first, "ladderFirst", tr("such as 10 kg"));
    add(tr("each step adds"), m_more, "ladderMore", tr("such as 1 kg"));
    add(tr("on a lever, at"), m_distance, "ladderDistance", tr("such as 300 mm"));
    add(tr("each step moves out by"), m_further, "ladderFurther", tr("such as 50 mm"));
    for (auto* edit : {m_first, m_more})
        new UnitTail(edit, m_session, Dimension::force);
    for (auto* edit : {m_distance, m_further})
        new UnitTail(edit, m_session, Dimension::length);
    plan->setColumnStretch(4, 1);
    layout->addLayout(plan);
    auto* path = new PathQuestion(m_session);
    layout->addWidget(path);
    connect(path, &PathQuestion::answered, this, [this] { setFocus(); });
    auto* columns = new QHBoxLayout;
    auto* left = new QVBoxLayout;
    m_piece = wrappedLabel("nextPiece");
    left->addWidget(m_piece);
    m_step = plainLabel();
    m_step->setObjectName("ladderLoad");
    m_step->setMinimumHeight(grown(90));
    left->addWidget(m_step);
    m_sentence = wrappedLabel("benchSentence");
    left->addWidget(m_sentence);
    m_choices = wrappedLabel("choiceText");
    left->addWidget(m_choices);
    left->addStretch();
    left->addWidget(m_action = actionLabel());
    columns->addLayout(left, 3);
    m_steps = new QListWidget;
    m_steps->setObjectName("ladderSteps");
    m_steps->setFocusPolicy(Qt::NoFocus);
    columns->addWidget(m_steps, 2);
    layout->addLayout(columns, 1);
    follow();
}

void LadderPanel::showEvent(QShowEvent* event) {
    Panel::showEvent(event);
    setFocus();
}

const domain::Pull* LadderPanel::pull() const {
    const auto* data = m_session.study();
    if (data)
        for (const auto& p : data->pulls)
            if (p.specimen == m_next && !p.outcome.entered.steps.empty()) return &p;
    return nullptr;
}

void LadderPanel::fill() {
    const auto* data = m_session.study();
    if (!data) return;
    fillRule(data->study.plan.ladder);
    chooseNext(*data);
    const auto* known = pull();
    const auto steps = known ? known->outcome.entered.steps : std::vector<domain::LadderStep>{};
    m_steps->clear();
    for (std::size_t i = 0; i < steps.size(); ++i)
        m_steps->addItem(
            tr("%1   %2   %3").arg(i + 1).arg(textOf(steps[i]), steps[i].held ? tr("held") : tr("let go")));
    ask(*data, steps);
}

void LadderPanel::fillRule(const domain::LadderPlan& ladder) {
    const auto& units = m_session.units();
    const auto shown = [](double si, const quantity::Unit& unit) {
        return si > 0 ? qs(quantity::asEntered(si, unit)) : QString();
    };
    m_first->setText(shown(ladder.first, *units.force));
    m_more->setText(shown(ladder.more, *units.force));
    m_distance->setText(shown(ladder.distance.value_or(0), *units.length));
    m_further->setText(shown(ladder.further, *units.length));
}

void LadderPanel::chooseNext(const domain::StudyData& data) {
    if (m_judged && !data.pull(m_judged)) m_judged = 0; // taken back
    if (const auto* judged = m_judged ? data.pull(m_judged) : nullptr) {
        m_next = judged->specimen; // the question is about this one
    } else {
        const auto* next = m_turn.of(data);
        m_next = next ? next->id : 0;
    }
    const auto* piece = data.specimen(m_next);
    m_piece->setText(piece ? tr("%1\n%2, %3")
                                 .arg(qs(piece->label), qs(data.optionAt(piece->option).name),
                                      qs(data.conditionAt(piece->condition).name))
                           : QString());
}

QString LadderPanel::textOf(const domain::LadderStep& s) const {
    const auto& units = m_session.units();
    auto text = qs(quantity::briefly(s.load, *units.force));
    if (s.distance) text += tr(" at %1").arg(qs(quantity::briefly(*s.distance, *units.length)));
    return text;
}

/// The question that is open now, and the keys that answer it.
void LadderPanel::ask(const domain::StudyData& data, const std::vector<domain::LadderStep>& steps) {
    const auto& ladder = data.study.plan.ladder;
    const auto* known = pull();
    const auto next = plan::nextStep(steps, ladder.first, ladder.more, ladder.distance, ladder.further);
    QString sentence, action, choices, big;
    if (!data.specimen(m_next)) {
        sentence = tr("Every piece has let go. See the verdict.");
    } else if (!ladder.complete()) {
        sentence = tr("Say what it begins with and what each step adds.");
    } else if (m_judged) {
        const auto told = known ? results::told(data, *known) : tl::unexpected(Error{});
        const auto stands =
            told ? qs(words::valueText(*told->number.value,
                                       methods::unitFor(*told->number.metric, m_session.units())))
                 : QString();
        sentence =
            tr("It %1. What broke?").arg(stands.isEmpty() ? tr("let go") : tr("stands at %1").arg(stands));
        int n = 0;
        for (const auto& part : domain::breakableParts(data))
            choices += tr("%1   %2\n").arg(++n).arg(qs(part));
        action = tr("Space: %1").arg(qs(domain::breakableParts(data).front()));
    } else {
        big = textOf(*next);
        sentence = tr("Step %1: add it gently, step back, wait. Still there?").arg(steps.size() + 1);
        choices =
            tr("1   it let go\n%1")
                .arg(steps.empty() ? tr("9   another piece")
                                   : tr("2   stop here: it holds this much\n0   take the last step back"));
        action = tr("Space: it held");
    }
    m_step->setText(big);
    m_sentence->setText(sentence);
    m_choices->setText(choices.trimmed());
    showAction(m_action, action);
}

void LadderPanel::savePlan() {
    const auto* data = m_session.study();
    if (filling() || !data) return;
    auto ladder = data->study.plan.ladder;
    std::optional<double> first = ladder.first, more = ladder.more, further = ladder.further;
    const auto refusal = tr("A step of nothing or less cannot be.");
    if (!readOptional(m_first, Dimension::force, first, refusal) ||
        !readOptional(m_more, Dimension::force, more, refusal) ||
        !readOptional(m_distance, Dimension::length, ladder.distance, refusal) ||
        !readOptional(m_further, Dimension::length, further, refusal))
        return refill();
    ladder.first = first.value_or(0);
    ladder.more = more.value_or(0);
    ladder.further = further.value_or(0);
    if (ladder == data->study.plan.ladder) return;
    m_session.tell(project::changePlan(*m_session.project(), m_session.studyId(),
                                       tr("How the ladder goes up"),
                                       [&](domain::Plan& p) { p.ladder = ladder; }));
}

void LadderPanel::step(bool held) {
    const auto* data = m_session.study();
    if (!data || !m_next) return;
    const auto& ladder = data->study.plan.ladder;
    if (!ladder.complete())
        return m_session.say(tr("Say what it begins with and what each step adds."), true);
    const auto* known = pull();
    auto next = plan::nextStep(known ? known->outcome.entered.steps : std::vector<domain::LadderStep>{},
                               ladder.first, ladder.more, ladder.distance, ladder.further);
    if (!next) return;
    next->held = held;
    const auto made = project::addLadderStep(*m_session.project(), m_next, *next,
                                             m_session.now().toString(Qt::ISODate).toStdString(),
                                             preferences::operatorName().toStdString());
    if (!m_session.tell(made)) return;
    if (!held) m_judged = *made;
    m_session.selectPull(*made);
    refill();
}

void LadderPanel::settle(const std::string& part) {
    m_session.tell(project::ladderBroke(*m_session.project(), m_judged, part));
    m_judged = 0;
    m_turn.round();
    refill();
}

void LadderPanel::digit(int n) {
    const auto* data = m_session.study();
    if (!data || !m_next) return;
    if (m_judged) {
        const auto parts = domain::breakableParts(*data);
        if (n >= 1 && n <= static_cast<int>(parts.size())) settle(parts[static_cast<std::size_t>(n - 1)]);
        return;
    }
    const auto* known = pull();
    if (n == 1) return step(false);
    if (n == 0 && known) {
        m_session.tell(project::takeBackLadderStep(*m_session.project(), known->id));
        refill();
    }
    if (n == 2 && known) {
        m_session.tell(m_session.project()->changePull(
            known->id, tr("%1: stopped").arg(m_piece->text().section('\n', 0, 0)),
            [](domain::Pull& p) { p.outcome.limit = domain::Limit::stopped; }));
        refill();
    }
    if (n == 9 && !known) {
        m_turn.passOver(m_next);
        refill();
    }
}

void LadderPanel::keyPressEvent(QKeyEvent* event) {
    const bool space = event->key() == Qt::Key_Space,
               number = event->key() >= Qt::Key_0 && event->key() <= Qt::Key_9;
    if (!space && !number) return QWidget::keyPressEvent(event);
    if (event->isAutoRepeat() || m_clock.elapsed() < guardMs) return; // a glove that bounces
    m_clock.restart();
    if (number) return digit(event->key() - Qt::Key_0);
    if (m_judged) {
        if (const auto* data = m_session.study()) settle(domain::breakableParts(*data).front());
        return;
    }
    step(true);
}

} // namespace anvil::app
