#include "shell/bench_line.h"

#include "shell/rig_desk.h"
#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QTimer>
#include <anvil/domain/outcomes.h>
#include <anvil/plan/next.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

BenchLine::BenchLine(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    setObjectName("benchLine");
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    m_state = plainLabel();
    m_state->setObjectName("benchState");
    m_load = plainLabel();
    m_load->setObjectName("benchLoad");
    m_load->setFont(figures(20, true));
    m_load->setMinimumWidth(grown(118));
    m_load->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    m_bar = new QWidget;
    m_bar->setFixedWidth(grown(120));
    m_zero = new QPushButton(tr("Zero"));
    m_zero->setObjectName("benchZero");
    m_zero->setFocusPolicy(Qt::NoFocus);
    m_unit = new QPushButton;
    m_unit->setObjectName("benchUnit");
    m_unit->setFocusPolicy(Qt::NoFocus);
    setTip(m_unit, tr("The next unit of force"));
    m_next = plainLabel();
    m_next->setObjectName("faint");
    for (QWidget* w :
         {static_cast<QWidget*>(m_state), static_cast<QWidget*>(m_load), m_bar, static_cast<QWidget*>(m_unit),
          static_cast<QWidget*>(m_zero), static_cast<QWidget*>(m_next)})
        row->addWidget(w);
    connect(m_zero, &QPushButton::clicked, this, [this] {
        if (m_session.rig().live().recorder == rig::RecorderState::loading)
            return m_session.say(tr("Zero is for an unloaded rig: a pull is being recorded."), true);
        m_session.rig().bench().zero();
    });
    connect(m_unit, &QPushButton::clicked, this, [this] {
        static const QStringList all{"N", "kN", "kgf", "lbf"};
        const auto now = QString::fromUtf8(m_session.units().force->symbol.data());
        m_session.setUnits(all[(all.indexOf(now) + 1) % all.size()],
                           QString::fromUtf8(m_session.units().length->symbol.data()));
    });
    auto* timer = new QTimer(this);
    connect(timer, &QTimer::timeout, this, [this] {
        if (m_session.rig().inUse()) refresh();
    });
    timer->start(50);
    connect(&session.rig(), &RigDesk::changed, this, &BenchLine::refresh);
    connect(&session, &Session::changed, this, [this] {
        const auto* data = m_session.study();
        const auto* next = data ? plan::nextSpecimen(*data) : nullptr;
        m_next->setText(next ? tr("next %1").arg(qs(next->label)) : QString());
        refresh();
    });
    connect(&session, &Session::unitsChanged, this, &BenchLine::refresh);
    refresh();
}

QString BenchLine::stateText() const { return m_state->text(); }
QString BenchLine::loadText() const { return m_load->text(); }

void BenchLine::refresh() {
    const auto live = m_session.rig().live();
    const bool on = live.link == station::LinkState::connected;
    for (QWidget* w : {static_cast<QWidget*>(m_load), m_bar, static_cast<QWidget*>(m_unit),
                       static_cast<QWidget*>(m_zero), static_cast<QWidget*>(m_next)})
        w->setVisible(on);
    if (live.link == station::LinkState::none) {
        m_state->setText(tr("No rig is connected: results come in as files."));
        setTip(m_state, {});
        return;
    }
    const auto name = qs(m_session.rig().setup().name);
    m_state->setText(!on                         ? tr("%1: looking for it …").arg(name)
                     : !live.fresh && live.hears ? tr("⚠ %1 sends lines without a load: guess anew").arg(name)
                     : !live.fresh               ? tr("⚠ %1 is silent").arg(name)
                     : live.recorder == rig::RecorderState::loading ? tr("● %1 records").arg(name)
                                                                    : name);
    setTip(m_state, live.said);
    if (!on) return;
    const auto& unit = m_session.rig().loadUnit();
    m_load->setText(
        (live.inside ? QString() : QStringLiteral("~ ")) +
        qs(quantity::atStep(unit.fromSi(live.load), unit.fromSi(rig::displayStep(m_session.rig().setup())))) +
        QStringLiteral(" ") + QString::fromUtf8(unit.symbol.data()));
    setTip(m_load, live.inside ? QString() : tr("Beyond the calibrated range: a guess"));
    m_unit->setText(QString::fromUtf8(unit.symbol.data()));
    const auto limit = rig::limitOf(m_session.rig().setup());
    m_share = limit ? std::clamp(live.load / *limit, 0.0, 1.0) : 0;
    m_zero->setText(live.offZero ? tr("Zero ⚠") : tr("Zero"));
    setTip(m_zero, live.zeroedAt < 0 ? tr("Not zeroed yet") : tr("Takes what is shown now as nothing"));
    update();
}

void BenchLine::paintEvent(QPaintEvent*) {
    if (!m_bar->isVisible()) return;
    QPainter painter(this);
    QRectF bar(m_bar->geometry());
    bar = QRectF(bar.left(), bar.center().y() - 4, bar.width(), 8);
    painter.fillRect(bar, theme().line);
    painter.fillRect(QRectF(bar.left(), bar.top(), bar.width() * m_share, bar.height()),
                     m_share > 0.9 ? theme().warn : theme().accent);
}

} // namespace anvil::app
