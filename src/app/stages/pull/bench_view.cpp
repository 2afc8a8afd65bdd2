#include "stages/pull/bench_view.h"

#include "shell/rig_desk.h"
#include "stages/pull/live_curve.h"
#include "theme/theme.h"
#include "widgets/panel.h"
#include "widgets/plain_text.h"
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QTimer>
#include <QVBoxLayout>
#include <anvil/chart/charts.h>
#include <anvil/chart/painter.h>
#include <anvil/domain/joints.h>
#include <anvil/methods/method.h>
#include <anvil/plan/next.h>
#include <anvil/quantity/print.h>
#include <anvil/work/practice.h>
#include <anvil/work/pull_commands.h>

namespace anvil::app {

using work::PullAction;
using work::PullStep;

namespace {

QStringList cautionLines(const domain::StudyData& data) {
    QStringList out;
    for (const auto& c : domain::cautionsOf(data))
        out << qs(c);
    for (const auto& c : data.study.plan.cautions)
        out << qs(c);
    return out;
}

/// The kind of the piece that is due; of the first option where none is.
std::string kindOf(const domain::StudyData& data, const domain::Specimen* piece) {
    const auto* option = piece ? data.option(piece->option) : nullptr;
    return option ? option->kind : data.options.empty() ? std::string() : data.options.front().kind;
}

/// A way to fail, drawn small.
QLabel* drawingOf(const QString& mode) {
    const auto picture = chart::failurePicture(methods::failureOf(mode.toStdString()));
    constexpr double scale = 0.6, sharp = 2;
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

BenchView::BenchView(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    setObjectName("benchView");
    setFocusPolicy(Qt::StrongFocus);
    m_clock.start();
    m_nearTimes = session.rig().live().nearLimitTimes;
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
    m_load->setMinimumHeight(90);
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
    columns->addWidget(m_curve, 3);
    auto* timer = new QTimer(this);
    connect(timer, &QTimer::timeout, this, &BenchView::tick);
    timer->start(33);
    connect(&session.rig(), &RigDesk::changed, this, &BenchView::rigChanged);
    connect(&session, &Session::changed, this, &BenchView::studyChanged);
    studyChanged();
}

void BenchView::showEvent(QShowEvent*) { setFocus(); }

const domain::Specimen* BenchView::next() const {
    const auto* data = m_session.study();
    return data ? plan::nextSpecimen(*data, m_skipped) : nullptr;
}

void BenchView::studyChanged() {
    const auto* data = m_session.study();
    if (!data) return;
    if (m_study != data->study.id) {
        m_study = data->study.id;
        m_skipped.clear();
        m_setup = 0; // another study has its own cautions
    }
    const auto* piece = next();
    m_flow.setRules(domain::endNames(*data, data->specimen(m_piece)), m_session.rig().setup().lookEvery);
    m_flow.setPieces(domain::breakableParts(*data),
                     domain::failureModes(kindOf(*data, m_pull ? data->specimen(m_piece) : piece)),
                     piece != nullptr, now());
    const auto step = m_flow.step();
    if (piece && (step == PullStep::ready || step == PullStep::zero || step == PullStep::noRig ||
                  step == PullStep::safety || m_piece == 0)) {
        m_piece = piece->id;
        m_curve->setSquare(piece->option, piece->condition);
    }
    rigChanged();
}

void BenchView::rigChanged() {
    const auto* data = m_session.study();
    if (!data) return;
    follow();
    if (m_setup != m_session.rig().setupId()) {
        m_setup = m_session.rig().setupId();
        m_flow.restart(cautionLines(*data), m_session.rig().safetySeen(), now());
        m_flow.setRules(domain::endNames(*data, data->specimen(m_piece)), m_session.rig().setup().lookEvery);
    }
    showStep();
}

void BenchView::follow() {
    const auto live = m_session.rig().live();
    const auto before = m_flow.step();
    if (live.nearLimitTimes > m_nearTimes) sound(Tone::nearLimit);
    m_nearTimes = std::max(m_nearTimes, live.nearLimitTimes);
    m_flow.follow(live, now());
    if (before == m_flow.step()) return;
    if (before == PullStep::ready || before == PullStep::armed) m_atStart = live;
    if (before == PullStep::saving && m_flow.step() == PullStep::part) {
        for (const auto& trouble : work::troublesBetween(m_atStart, live)) {
            m_marks.push_back({live.time, trouble.toStdString()});
            m_session.say(tr("During this pull %1. It is noted with it.").arg(trouble), true);
        }
        m_session.rig().bench().reset();
        ended(m_session.rig().live()); // only now is it known what became of it
    }
    const auto after = m_flow.step();
    if (after == PullStep::look) m_session.rig().bench().pause(true);
    // Also where the window saw nothing of the waiting for load.
    if (before == PullStep::ready &&
        (after == PullStep::armed || after == PullStep::loading || after == PullStep::saving))
        sound(Tone::armed);
    if (after == PullStep::look) sound(Tone::look);
    if (after == PullStep::saving) sound(Tone::broke);
    m_awake.keep(after == PullStep::armed || after == PullStep::loading || after == PullStep::look ||
                     after == PullStep::saving,
                 tr("A pull is being recorded."));
    showStep();
}

/// Takes over what became of a recording: the pull it made, and whether it is safe.
void BenchView::ended(const work::Live& live) {
    m_pull = live.pull;
    sound(live.saved ? Tone::saved : Tone::notSaved);
    if (!m_session.tell(m_session.project()->reload())) return;
    if (!live.saved)
        m_session.say(
            m_pull ? tr("Not all of this pull is in the project. %1 What is missing lies beside it and "
                        "is brought in when the project is opened again.")
                         .arg(live.trouble)
                   : tr("This pull is not in the project. %1 What was recorded lies beside it and is "
                        "brought in when the project is opened again.")
                         .arg(live.trouble),
            true);
    else if (!live.trouble.isEmpty())
        m_session.say(tr("It was saved in the end: %1").arg(live.trouble), true);
    if (m_pull) m_session.selectPull(m_pull);
}

void BenchView::sound(Tone tone) {
    play(tone);
    emit toned(tone);
}

QString BenchView::channelText(const work::Live& live) const {
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

void BenchView::tick() {
    follow();
    if (!isVisible()) return;
    const auto live = m_session.rig().live();
    const auto& unit = m_session.rig().loadUnit();
    const double step = rig::displayStep(m_session.rig().setup());
    m_load->setText(live.link == work::LinkState::connected
                        ? (live.inside ? QString() : QStringLiteral("~")) +
                              qs(quantity::atStep(unit.fromSi(live.force), unit.fromSi(step))) +
                              QStringLiteral("<span style='font-size:30px'> %1</span>")
                                  .arg(QString::fromUtf8(unit.symbol.data()))
                        : QStringLiteral("–"));
    flashNearLimit(live.nearLimit && live.recorder == rig::RecorderState::loading);
    m_channels->setVisible(!live.channels.empty());
    if (!live.channels.empty()) m_channels->setText(channelText(live));
    m_peak->setText(live.recorder == rig::RecorderState::loading || live.recorder == rig::RecorderState::done
                        ? tr("peak %1%2 %3")
                              .arg(QString(live.calibratedTo && live.peak > *live.calibratedTo ? "~" : ""),
                                   qs(quantity::atStep(unit.fromSi(live.peak), unit.fromSi(step))),
                                   QString::fromUtf8(unit.symbol.data()))
                        : QString());
    QStringList rate;
    if (live.recorder == rig::RecorderState::loading) {
        if (live.speed)
            rate << (rig::travelOf(rig::heardLayout(m_session.rig().setup())) == quantity::Dimension::angle
                         ? tr("%1 a second").arg(qs(quantity::withUnit(*live.speed, quantity::unit("°"), 2)))
                         : qs(quantity::withUnit(*live.speed, quantity::unit("mm/s"), 2)));
        if (live.forceRate) rate << tr("%1 a second").arg(qs(quantity::withUnit(*live.forceRate, unit, 2)));
        if (const auto* data = m_session.study(); data && data->study.plan.speed)
            rate << tr("wanted %1")
                        .arg(qs(quantity::withUnit(*data->study.plan.speed, quantity::unit("mm/s"), 2)));
        if (live.nearLimit) rate << tr("⚠ near the limit of the rig");
    }
    m_rate->setText(rate.join(",  "));
    for (auto* label : {m_peak, m_rate})
        label->setVisible(!label->text().isEmpty());
    m_curve->update(m_session.rig().bench().trace(), m_marks);
}

void BenchView::showStep() {
    const auto* data = m_session.study();
    const auto* piece = data ? data->specimen(m_piece) : nullptr;
    m_specimen->setText(!piece || m_flow.step() == PullStep::finished
                            ? QString()
                            : tr("%1\n%2, %3")
                                  .arg(qs(piece->label), qs(data->optionAt(piece->option).name),
                                       qs(data->conditionAt(piece->condition).name)));
    QStringList said{m_flow.sentence()};
    if (data && data->study.plan.practice && m_flow.step() == PullStep::finished)
        for (const auto& line :
             work::practiceScore(*data, m_session.readings(), m_session.verdict(data->study.goal.metric)))
            said << qs(line);
    m_sentence->setText(said.join('\n'));
    const auto action = m_flow.action();
    showAction(m_action, action.isEmpty() ? QString() : tr("Space: %1").arg(action));
    while (auto* item = m_grid->takeAt(0)) {
        if (auto* w = item->widget()) w->deleteLater();
        delete item;
    }
    // Many choices need the room; the load stays to be read on the bench line.
    const bool choosing = m_flow.step() == PullStep::how || m_flow.step() == PullStep::accept;
    m_load->setVisible(!choosing);
    int place = 0;
    for (const auto& c : m_flow.choices()) {
        auto* tile = new QFrame;
        tile->setObjectName("choice");
        tile->setFrameShape(QFrame::StyledPanel);
        auto* row = new QHBoxLayout(tile);
        row->setContentsMargins(6, 2, 6, 2);
        auto* text = plainLabel(tr("%1   %2").arg(c.digit).arg(c.text));
        text->setObjectName("choiceText");
        text->setWordWrap(true);
        text->setMinimumHeight(choosing ? 28 : 36);
        if (choosing) text->setStyleSheet(QStringLiteral("font-size: 14px;"));
        row->addWidget(text, 1);
        if (m_flow.step() == PullStep::how && c.digit > 0) row->addWidget(drawingOf(c.text));
        m_grid->addWidget(tile, place / 2, place % 2);
        ++place;
    }
}

void BenchView::keyPressEvent(QKeyEvent* event) {
    if (event->isAutoRepeat()) return;
    if (event->key() == Qt::Key_Space)
        carryOut(m_flow.space(now()));
    else if (event->key() >= Qt::Key_0 && event->key() <= Qt::Key_9)
        carryOut(m_flow.digit(event->key() - Qt::Key_0, now()));
    else
        return QWidget::keyPressEvent(event);
    if (m_flow.safetyDone() && !m_session.rig().safetySeen()) m_session.rig().setSafetySeen();
    if (m_flow.step() == PullStep::accept && m_shown != PullStep::accept) propose();
    m_shown = m_flow.step();
    showStep();
}

void BenchView::propose() {
    const auto* data = m_session.study();
    const auto r = m_session.readings().byPull.find(m_pull);
    if (data)
        m_flow.propose(domain::proposeStanding(*data,
                                               r == m_session.readings().byPull.end() ? nullptr : &r->second,
                                               m_flow.part(), m_flow.limit()));
}

void BenchView::carryOut(PullAction action) {
    auto& bench = m_session.rig().bench();
    switch (action) {
    case PullAction::zero:
        bench.zero();
        return;
    case PullAction::arm:
        m_marks.clear();
        m_pull = 0;
        if (const auto* piece = next()) {
            m_piece = piece->id;
            m_curve->setSquare(piece->option, piece->condition);
            m_flow.setRules(domain::endNames(*m_session.study(), piece), m_session.rig().setup().lookEvery);
            m_session.rig().arm(*piece);
        }
        return;
    case PullAction::stop:
        bench.stop();
        return;
    case PullAction::resume:
        bench.pause(false);
        return;
    case PullAction::accept:
        return accept();
    case PullAction::anotherPiece:
        if (const auto* piece = next()) m_skipped.insert(piece->id);
        if (!next()) m_skipped.clear(); // round again
        return studyChanged();
    case PullAction::mark:
        m_marks.push_back({m_session.rig().live().time, {}});
        return;
    case PullAction::nothing:
        return;
    }
}

void BenchView::accept() {
    if (m_pull) {
        work::Judgement j;
        j.part = m_flow.part();
        j.mode = m_flow.how();
        j.limit = m_flow.limit();
        j.standing = m_flow.proposal();
        j.marks = m_marks;
        j.end = m_flow.end();
        j.afterwards = m_flow.afterwards();
        j.whileUnloading = m_flow.whileUnloading();
        if (!m_session.tell(work::judge(*m_session.project(), m_pull, j))) return;
        if (const auto* data = m_session.study(); data && data->study.plan.rigCheck)
            m_session.rig().takeStretchFrom(m_pull);
    }
    m_skipped.clear();
    m_pull = 0;
    m_marks.clear();
    m_flow.accepted(now());
    studyChanged();
}

} // namespace anvil::app
