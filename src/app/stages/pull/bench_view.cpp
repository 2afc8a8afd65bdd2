#include "stages/pull/bench_view.h"

#include "shell/rig_desk.h"
#include "stages/pull/live_curve.h"
#include "theme/theme.h"
#include "widgets/panel.h"
#include "widgets/picture_view.h"
#include "widgets/plain_text.h"
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QTimer>
#include <QVBoxLayout>
#include <anvil/chart/charts.h>
#include <anvil/chart/legs.h>
#include <anvil/chart/painter.h>
#include <anvil/domain/joints.h>
#include <anvil/methods/method.h>
#include <anvil/plan/next.h>
#include <anvil/project/practice.h>
#include <anvil/project/pull_commands.h>
#include <anvil/quantity/print.h>
#include <anvil/results/legs.h>

namespace anvil::app {

using station::PullAction;
using station::PullStep;

namespace {

/// A way to fail, drawn small.
QLabel* drawingOf(const QString& mode) {
    const auto picture =
        chart::failurePicture(methods::failureOf(mode.toStdString()).value_or(methods::Failure::snapped));
    constexpr double sharp = 2;
    const double scale = 0.6 * textScale();
    QPixmap pixmap(QSizeF(picture.width * scale * sharp, picture.height * scale * sharp).toSize());
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.scale(scale * sharp, scale * sharp);
    chart::paint(painter, picture, theme().charts());
    painter.end();
    pixmap.setDevicePixelRatio(sharp);
    auto* label = plainLabel();
    label->setPixmap(pixmap);
    label->setAccessibleName(mode);
    return label;
}

} // namespace

BenchView::BenchView(Session& session, QWidget* parent)
    : QWidget(parent), m_session(session), m_run(session.rig().bench()) {
    setObjectName("benchView");
    setFocusPolicy(Qt::StrongFocus);
    m_clock.start();
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    auto* left = new QVBoxLayout;
    m_specimen = plainLabel();
    m_specimen->setObjectName("nextPiece");
    m_specimen->setWordWrap(true);
    left->addWidget(m_specimen);
    m_load = plainLabel();
    m_load->setObjectName("bigLoad");
    m_load->setTextFormat(Qt::RichText);
    m_load->setMinimumHeight(grown(90));
    left->addWidget(m_load);
    m_peak = plainLabel();
    m_peak->setObjectName("peakHold");
    left->addWidget(m_peak);
    m_rate = plainLabel();
    m_rate->setObjectName("liveRate");
    left->addWidget(m_rate);
    m_channels = plainLabel();
    m_channels->setObjectName("liveChannels");
    m_channels->setFont(figures(15));
    m_channels->hide();
    left->addWidget(m_channels);
    left->addSpacing(8);
    m_sentence = plainLabel();
    m_sentence->setObjectName("benchSentence");
    m_sentence->setWordWrap(true);
    left->addWidget(m_sentence);
    m_choices = new QWidget;
    m_grid = new QGridLayout(m_choices);
    m_grid->setContentsMargins(0, 0, 0, 0);
    m_grid->setColumnStretch(0, 1);
    m_grid->setColumnStretch(1, 1);
    left->addWidget(m_choices);
    left->addStretch();
    left->addWidget(m_action = actionLabel());
    columns->addLayout(left, 2);
    m_curve = new LiveCurve(session);
    auto* right = new QVBoxLayout;
    right->addWidget(m_curve, 1);
    m_legs = new PictureView;
    m_legs->setObjectName("liveLegs");
    m_legs->setFixedSize(grown(320), grown(254));
    m_legs->hide();
    right->addWidget(m_legs, 0, Qt::AlignHCenter);
    columns->addLayout(right, 3);
    addActions(m_curve->actions()); // the keys are pressed here
    auto* timer = new QTimer(this);
    connect(timer, &QTimer::timeout, this, &BenchView::tick);
    timer->start(33);
    connect(&session.rig(), &RigDesk::changed, this, &BenchView::rigChanged);
    connect(&session, &Session::changed, this, &BenchView::studyChanged);
    studyChanged();
}

void BenchView::showEvent(QShowEvent*) { setFocus(); }

void BenchView::studyChanged() {
    const auto* data = m_session.study();
    if (!data) return;
    m_run.studyChanged(*data, m_session.rig().station(), now());
    rigChanged();
}

void BenchView::rigChanged() {
    const auto* data = m_session.study();
    if (!data) return;
    follow();
    m_run.rigChanged(*data, m_session.rig().station(), now());
    showStep();
}

void BenchView::follow() {
    const auto before = m_run.flow().step();
    for (const auto& event : m_run.follow(now()))
        heard(event);
    const auto after = m_run.flow().step();
    if (before == after) return;
    m_awake.keep(after == PullStep::armed || after == PullStep::loading || after == PullStep::look ||
                     after == PullStep::saving,
                 tr("A pull is being recorded."));
    showStep();
}

void BenchView::heard(const station::Event& event) {
    using Kind = station::Event::Kind;
    const auto pull = m_run.pull();
    switch (event.kind) {
    case Kind::nearLimit:
        return sound(Tone::nearLimit);
    case Kind::armed:
        return sound(Tone::armed);
    case Kind::look:
        return sound(Tone::look);
    case Kind::broke:
        return sound(Tone::broke);
    case Kind::trouble:
        return m_session.say(tr("During this pull %1. It is noted with it.").arg(event.text), true);
    case Kind::saved:
        sound(Tone::saved);
        if (!event.text.isEmpty()) m_session.say(tr("It was saved in the end: %1").arg(event.text), true);
        return;
    case Kind::notSaved:
    case Kind::onlyInMemory:
        sound(Tone::notSaved);
        return m_session.say(event.text, true);
    case Kind::disk:
        return m_session.say(event.text, true);
    case Kind::ended:
        if (!m_session.project()) return;
        if (m_session.tell(m_session.project()->reload()) && pull) m_session.selectPull(pull);
        return;
    }
}

void BenchView::sound(Tone tone) {
    play(tone);
    emit toned(tone);
}

QString BenchView::channelText(const station::Live& live) const {
    QStringList out;
    for (const auto& c : live.channels) {
        const auto unit = quantity::findUnit(c.unit.toStdString());
        auto text =
            tr("%1  %2%3")
                .arg(c.name, QString(c.fresh && !c.inside ? "~" : ""), // beyond its table: a guess
                     !c.fresh ? tr("silent")
                     : unit   ? qs(quantity::withUnit(c.value, m_session.units().of((*unit)->dimension)))
                              : qs(quantity::significant(c.value)));
        if (c.fresh && c.share) text += QStringLiteral("  %1").arg(qs(quantity::percent(*c.share)));
        if (c.overLimit) text += tr("  \u26a0 at its limit");
        out << text;
    }
    return out.join('\n');
}

void BenchView::flashNearLimit(bool near) {
    // Twice a second; the tone is given by follow(), which also hears of what is over before anybody looks.
    const bool lit = near && m_clock.elapsed() / 250 % 2 == 0;
    if (lit == m_lit) return;
    m_lit = lit;
    m_load->setStyleSheet(lit ? QStringLiteral("background: %1; color: %2; border-radius: 6px;")
                                    .arg(theme().warn.name(), theme().onAccent.name())
                              : QString());
}

QString BenchView::rateText(const station::Live& live) const {
    const auto& unit = m_session.rig().loadUnit();
    QStringList rate;
    if (live.recorder == rig::RecorderState::loading) {
        if (live.speed)
            rate << (rig::travelOf(rig::heardLayout(m_session.rig().setup())) == quantity::Dimension::angle
                         ? tr("%1 a second").arg(qs(quantity::withUnit(*live.speed, quantity::unit("°"), 2)))
                         : qs(quantity::withUnit(*live.speed, quantity::unit("mm/s"), 2)));
        if (live.loadRate) rate << tr("%1 a second").arg(qs(quantity::withUnit(*live.loadRate, unit, 2)));
        if (const auto* data = m_session.study(); data && data->study.plan.speed)
            rate << tr("wanted %1")
                        .arg(qs(quantity::withUnit(*data->study.plan.speed, quantity::unit("mm/s"), 2)));
        if (live.nearLimit) rate << tr("⚠ near the limit of the rig");
    }
    return rate.join(",  ");
}

/// A few times a second: nobody reads arrows faster.
void BenchView::drawLegs(const station::Live& live) {
    if (now() - m_legsDrawn < 200) return;
    m_legsDrawn = now();
    const auto* data = m_session.study();
    const auto* piece = data ? data->specimen(m_run.piece()) : nullptr;
    std::vector<double> loads;
    for (const auto& c : live.channels)
        if (c.fresh && c.share) loads.push_back(c.value);
    const auto legs = piece ? results::legsNow(*data, *piece, loads) : std::nullopt;
    m_legs->setVisible(legs.has_value());
    if (legs)
        m_legs->setBuild([legs = *legs, name = tr("Shares now").toStdString()](double width) {
            return chart::legPlans({legs}, {name}, width);
        });
}

void BenchView::tick() {
    follow();
    if (!isVisible()) return;
    const auto live = m_session.rig().live();
    const auto& unit = m_session.rig().loadUnit();
    const double step = rig::displayStep(m_session.rig().setup());
    m_load->setText(live.link == station::LinkState::connected
                        ? (live.inside ? QString() : QStringLiteral("~")) +
                              qs(quantity::atStep(unit.fromSi(live.load), unit.fromSi(step))) +
                              QStringLiteral("<span style='font-size:%2px'> %1</span>")
                                  .arg(QString::fromUtf8(unit.symbol.data()))
                                  .arg(grown(34))
                        : QStringLiteral("–"));
    flashNearLimit(live.nearLimit && live.recorder == rig::RecorderState::loading);
    m_channels->setVisible(!live.channels.empty());
    if (!live.channels.empty()) m_channels->setText(channelText(live));
    drawLegs(live);
    m_peak->setText(live.recorder == rig::RecorderState::loading || live.recorder == rig::RecorderState::done
                        ? tr("peak %1%2 %3")
                              .arg(QString(live.calibratedTo && live.peak > *live.calibratedTo ? "~" : ""),
                                   qs(quantity::atStep(unit.fromSi(live.peak), unit.fromSi(step))),
                                   QString::fromUtf8(unit.symbol.data()))
                        : QString());
    m_rate->setText(rateText(live));
    for (auto* label : {m_peak, m_rate})
        label->setVisible(!label->text().isEmpty());
    m_curve->update(m_session.rig().bench().trace(), m_run.marks());
}

void BenchView::showStep() {
    const auto* data = m_session.study();
    const auto* piece = data ? data->specimen(m_run.piece()) : nullptr;
    if (piece) m_curve->setSquare(piece->option, piece->condition);
    m_specimen->setText(!piece || m_run.flow().step() == PullStep::finished
                            ? QString()
                            : tr("%1\n%2, %3")
                                  .arg(qs(piece->label), qs(data->optionAt(piece->option).name),
                                       qs(data->conditionAt(piece->condition).name)));
    QStringList said{m_run.flow().sentence()};
    if (data && data->study.plan.practice && m_run.flow().step() == PullStep::finished)
        for (const auto& line :
             project::practiceScore(*data, m_session.readings(), m_session.verdict(data->study.goal.metric)))
            said << qs(line);
    m_sentence->setText(said.join('\n'));
    const auto action = m_run.flow().action();
    showAction(m_action, action.isEmpty() ? QString() : tr("Space: %1").arg(action));
    showChoices();
}

void BenchView::showChoices() {
    while (auto* item = m_grid->takeAt(0)) {
        if (auto* w = item->widget()) w->deleteLater();
        delete item;
    }
    // Many choices need the room; the load stays to be read on the bench line.
    const bool choosing = m_run.flow().step() == PullStep::how || m_run.flow().step() == PullStep::accept;
    m_load->setVisible(!choosing);
    int place = 0;
    for (const auto& c : m_run.flow().choices()) {
        auto* tile = new QFrame;
        tile->setObjectName("choice");
        tile->setFrameShape(QFrame::StyledPanel);
        auto* row = new QHBoxLayout(tile);
        row->setContentsMargins(6, 2, 6, 2);
        auto* text = plainLabel(tr("%1   %2").arg(c.digit).arg(c.text));
        text->setObjectName("choiceText");
        text->setWordWrap(true);
        text->setMinimumHeight(grown(choosing ? 28 : 36));
        if (choosing) text->setStyleSheet(QStringLiteral("font-size: %1px;").arg(grown(13)));
        row->addWidget(text, 1);
        if (m_run.flow().step() == PullStep::how && c.digit > 0) row->addWidget(drawingOf(c.text));
        m_grid->addWidget(tile, place / 2, place % 2);
        ++place;
    }
}

void BenchView::keyPressEvent(QKeyEvent* event) {
    if (event->isAutoRepeat()) return;
    const auto* data = m_session.study();
    const bool digit = event->key() >= Qt::Key_0 && event->key() <= Qt::Key_9;
    if (!data || (!digit && event->key() != Qt::Key_Space)) return QWidget::keyPressEvent(event);
    const auto station = m_session.rig().station();
    carryOut(digit ? m_run.digit(event->key() - Qt::Key_0, *data, station, now())
                   : m_run.space(*data, station, now()));
    if (m_run.flow().safetyDone() && !m_session.rig().safetySeen()) m_session.rig().setSafetySeen();
    if (m_run.flow().step() == PullStep::accept && m_shown != PullStep::accept)
        if (const auto* study = m_session.study())
            m_run.propose(*study, m_session.readings().find(m_run.pull()));
    m_shown = m_run.flow().step();
    showStep();
}

void BenchView::carryOut(PullAction action) {
    if (action == PullAction::arm) arm();
    if (action == PullAction::accept) accept();
}

void BenchView::arm() {
    const auto* data = m_session.study();
    if (m_session.readOnly())
        return m_session.say(tr("The project can only be looked at, so nothing can be recorded."), true);
    m_session.tell(m_run.arm(m_session.project()->file(), *data, m_session.rig().station(),
                             m_session.rig().circumstances()));
}

void BenchView::accept() {
    if (const auto pull = m_run.pull()) {
        if (!m_session.tell(project::judge(*m_session.project(), pull, m_run.judgement()))) return;
        if (const auto* data = m_session.study(); data && data->study.plan.rigCheck)
            m_session.rig().takeStretchFrom(pull);
    }
    if (const auto* data = m_session.study()) m_run.accepted(*data, m_session.rig().station(), now());
    studyChanged();
}

} // namespace anvil::app
