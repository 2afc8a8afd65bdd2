#include "stages/pull/live_curve.h"

#include "shell/rig_desk.h"
#include "theme/theme.h"
#include "widgets/keep_picture.h"
#include <QPainter>
#include <anvil/chart/painter.h>
#include <anvil/plan/reach.h>

namespace anvil::app {
namespace {

constexpr double tall = 1.2; ///< height of the picture for a phone, of its width

} // namespace

LiveCurve::LiveCurve(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    setMinimumSize(220, 200);
    setAccessibleName(tr("The pull as it goes"));
    givePictureMenu(this, [this](double width) {
        return width > 0 ? chart::livePull(m_pull, m_session.rig().loadUnit(), width, tall * width)
                         : m_picture;
    });
    connect(&session, &Session::unitsChanged, this, &LiveCurve::build);
    connect(&session.rig(), &RigDesk::changed, this, [this] {
        const auto limit = rig::limitOf(m_session.rig().setup());
        const auto calibratedTo = m_session.rig().live().calibratedTo;
        if (limit == m_pull.limit && calibratedTo == m_pull.calibratedTo) return;
        m_pull.limit = limit;
        m_pull.calibratedTo = calibratedTo;
        build();
    });
    m_pull.limit = rig::limitOf(session.rig().setup());
}

void LiveCurve::setSquare(Id option, Id condition) {
    m_pull.earlier.clear();
    m_pull.expected.reset();
    const auto* data = m_session.study();
    if (!data) return;
    for (const auto& p : data->pulls) {
        const auto* s = data->specimen(p.specimen);
        if (!p.curve || !s || s->option != option || s->condition != condition ||
            p.recording == domain::Recording::running)
            continue;
        const auto read = m_session.project()->readCurve(p.id);
        if (!read || (*read)->cleaned.time.empty()) continue;
        chart::Trace t;
        t.ink = chart::Ink::faint;
        t.width = 1;
        t.opacity = 0.5;
        auto time = (*read)->cleaned.time;
        const double begin = time.front();
        for (auto& x : time)
            x -= begin;
        t.points = curve::Pyramid((*read)->cleaned.load)
                       .draw(time, (*read)->cleaned.load, 0, time.back() + 1e-9, 300);
        m_pull.earlier.push_back(std::move(t));
    }
    const auto room = plan::headRoom(*data, m_session.verdict(data->study.goal.metric), option, condition);
    if (room.upper > 0) m_pull.expected = {room.expected, room.upper};
    build();
}

void LiveCurve::update(std::vector<rig::LiveTrace::Stretch> trace, const std::vector<domain::Mark>& marks) {
    if (trace == m_pull.trace && marks == m_pull.marks) return;
    m_pull.trace = std::move(trace);
    m_pull.marks = marks;
    build();
}

void LiveCurve::build() {
    m_picture =
        chart::livePull(m_pull, m_session.rig().loadUnit(), width() / textScale(), height() / textScale());
    QWidget::update();
}

void LiveCurve::resizeEvent(QResizeEvent*) { build(); }

void LiveCurve::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), chart::color(theme().charts(), chart::Ink::paper));
    painter.scale(textScale(), textScale());
    chart::paint(painter, m_picture, theme().charts());
}

} // namespace anvil::app
