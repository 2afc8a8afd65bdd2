#include "stages/pull/live_curve.h"

#include "shell/rig_desk.h"
#include "theme/theme.h"
#include <QPainter>
#include <algorithm>
#include <anvil/chart/painter.h>
#include <anvil/study/planning.h>

namespace anvil::app {

LiveCurve::LiveCurve(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
    setMinimumSize(220, 200);
}

void LiveCurve::setSquare(Id option, Id condition) {
    m_earlier.clear();
    m_expected.reset();
    const auto* data = m_session.study();
    if (!data) return;
    for (const auto& p : data->pulls) {
        const auto* s = data->specimen(p.specimen);
        if (!p.curve || !s || s->option != option || s->condition != condition ||
            p.recording == study::Recording::running)
            continue;
        const auto read = m_session.project()->readCurve(p.id);
        if (!read || (*read)->cleaned.time.empty()) continue;
        chart::Trace t;
        t.ink = chart::Ink::faint;
        t.width = 1;
        t.opacity = 0.5;
        const auto& cleaned = (*read)->cleaned;
        const std::vector<double> x(cleaned.time.begin(), cleaned.time.end()),
            y(cleaned.force.begin(), cleaned.force.end());
        t.points = curve::Pyramid(y).draw(x, y, x.front(), x.back() + 1e-9, 300);
        for (auto& point : t.points)
            point.x -= x.front();
        m_earlier.push_back(std::move(t));
    }
    const auto room = study::headRoom(*data, m_session.verdict(data->study.metric), option, condition);
    if (room.upper > 0) m_expected = {room.expected, room.upper};
}

void LiveCurve::update(const std::vector<rig::LiveTrace::Stretch>& trace,
                       const std::vector<study::Mark>& marks) {
    const auto& unit = *m_session.units().force;
    chart::CurveChart c;
    c.xTitle = "Time (s)";
    c.yTitle = "Force (" + std::string(unit.symbol) + ")";
    const double begin = trace.empty() ? 0 : trace.front().time;
    double top = 0, last = trace.empty() ? 0 : trace.back().time - begin;
    for (auto t : m_earlier) {
        for (auto& p : t.points) {
            top = std::max(top, p.y);
            last = std::max(last, p.x);
            p.y = unit.fromSi(p.y);
        }
        c.traces.push_back(std::move(t));
    }
    if (m_expected)
        for (const auto& [value, dash] : {std::pair{m_expected->first, chart::Dash::dashed},
                                          std::pair{m_expected->second, chart::Dash::dotted}}) {
            chart::Trace t;
            t.ink = chart::Ink::faint;
            t.dash = dash;
            t.points = {{0, unit.fromSi(value)}, {std::max(10.0, last), unit.fromSi(value)}};
            top = std::max(top, value);
            c.traces.push_back(std::move(t));
        }
    chart::Trace live;
    live.ink = chart::Ink::accent;
    live.width = 1.8;
    for (const auto& s : rig::thinned(trace, static_cast<std::size_t>(std::max(100, width() / 2)))) {
        top = std::max(top, s.high);
        live.points.push_back({s.time - begin, unit.fromSi(s.low)});
        if (s.high != s.low) live.points.push_back({s.time - begin, unit.fromSi(s.high)});
    }
    if (live.points.size() > 400) live.width = 1; // a thick zigzag of noise costs many times a thin one
    c.traces.push_back(std::move(live));
    for (const auto& m : marks)
        c.pins.push_back({m.text, m.at - begin, unit.fromSi(top * 0.05), false, 0, true, false});
    if (const auto limit = rig::limitOf(m_session.rig().setup())) {
        c.limit = unit.fromSi(*limit);
        if (top > 0.5 * *limit) top = std::max(top, *limit);
    }
    c.x1 = std::max(10.0, last);
    c.y0 = -0.03 * unit.fromSi(top);
    c.y1 = 1.08 * std::max(unit.fromSi(top), unit.fromSi(100));
    m_picture = chart::curves(c, width(), height());
    QWidget::update();
}

void LiveCurve::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), chart::color(theme().charts(), chart::Ink::paper));
    chart::paint(painter, m_picture, theme().charts());
}

} // namespace anvil::app
