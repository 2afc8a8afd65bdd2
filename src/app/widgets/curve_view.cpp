#include "widgets/curve_view.h"

#include "theme/theme.h"
#include "widgets/keep_picture.h"
#include "widgets/plain_text.h"
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <anvil/chart/painter.h>
#include <anvil/project/pull_commands.h>
#include <cmath>
#include <utility>

namespace anvil::app {
namespace {

constexpr double tall = 1.2; ///< height of a curve for a phone, of its width

/// Where the pointer is on the picture, which is drawn at the text scale.
QPointF onPicture(const QSinglePointEvent* event) { return event->position() / textScale(); }

} // namespace

CurveView::CurveView(QWidget* parent) : QWidget(parent) {
    setMinimumSize(320, 220);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setAccessibleName(tr("Force curve"));
    givePictureMenu(this, [this](double width) {
        const bool anew = width > 0 && m_sentence.isEmpty();
        return anew ? chart::curves(m_chart, width, tall * width) : m_picture;
    });
}

void CurveView::showCurve(std::shared_ptr<const curve::ReadCurve> curve, const quantity::Units& units,
                          const curve::ReadingSettings& settings, std::vector<curve::Channel> legs) {
    const bool same = m_curve && curve && m_curve->cleaned.time == curve->cleaned.time &&
                      m_x.size() == curve->cleaned.load.size();
    const bool time = curve->cleaned.travel.empty() || m_byTime;
    const Seen old{m_chart.x0, m_chart.x1, m_chart.y0, m_chart.y1};
    const bool stays = same && zoomed() && time == m_time;
    if (!stays) m_before.clear();
    m_time = time;
    m_curve = std::move(curve);
    m_sentence.clear();
    m_chart = {};
    m_grabbed = -1;
    const auto& r = m_curve->reading;
    const auto& force = units.of(r.loadKind);
    const auto& travel = units.of(r.travelKind);
    m_x = time ? chart::sinceLoad(*m_curve) : chart::abscissa(*m_curve);
    m_y = m_curve->cleaned.load;
    if (!time)
        for (auto& v : m_x)
            v = travel.fromSi(v);
    for (auto& v : m_y)
        v = force.fromSi(v);
    m_pyramid = curve::Pyramid(m_y);
    m_loggedY = m_logged.size() == m_y.size() ? m_logged : std::vector<double>{};
    for (auto& v : m_loggedY)
        v = force.fromSi(v);
    m_loggedPyramid = curve::Pyramid(m_loggedY);
    m_legs.clear();
    for (auto& leg : legs) {
        for (auto& v : leg.values)
            v = force.fromSi(v);
        auto pyramid = curve::Pyramid(leg.values);
        m_legs.push_back({std::move(leg.name), std::move(leg.values), std::move(pyramid)});
    }
    const auto [low, high] = std::minmax_element(m_x.begin(), m_x.end());
    m_fullX0 = *low;
    m_fullX1 = *high > *low ? *high : *low + 1;
    const double top = *std::max_element(m_y.begin(), m_y.end());
    m_chart.y0 = std::min(-0.04 * top, *std::min_element(m_y.begin(), m_y.end()));
    m_chart.y1 = 1.12 * top;
    m_fullY0 = m_chart.y0;
    m_fullY1 = m_chart.y1;
    look(stays ? old : Seen{m_fullX0, m_fullX1, m_fullY0, m_fullY1});
    m_chart.xTitle = time ? "Time since the load began (s)" : chart::travelTitle(travel);
    m_chart.yTitle = chart::loadTitle(force);
    m_chart.lines = m_lines;
    if (settings.rigLimit) m_chart.limit = force.fromSi(*settings.rigLimit - r.baseline);
    m_calibratedTo.reset();
    if (settings.calibratedTo) m_calibratedTo = force.fromSi(*settings.calibratedTo - r.baseline);
    m_pins.clear();
    if (r.stiffness && !time) {
        m_chart.stiffnessLine =
            std::pair(curve::Pyramid::Point{m_x[r.stiffness->fromIndex], force.fromSi(r.stiffness->from)},
                      curve::Pyramid::Point{m_x[r.stiffness->toIndex], force.fromSi(r.stiffness->to)});
        m_pins.push_back({project::Handle::fitFrom, {}, r.stiffness->fromIndex, r.stiffness->byHand});
        m_pins.push_back(
            {project::Handle::fitTo, tr("Stiffness"), r.stiffness->toIndex, r.stiffness->byHand});
    }
    if (r.hold) {
        const auto at = [&](double t) {
            const auto& times = m_curve->cleaned.time;
            const auto found = std::lower_bound(times.begin(), times.end(), t) - times.begin();
            return static_cast<std::size_t>(
                std::min<std::ptrdiff_t>(found, static_cast<std::ptrdiff_t>(times.size()) - 1));
        };
        m_pins.push_back({project::Handle::holdFrom, {}, at(r.hold->from), true});
        m_pins.push_back({project::Handle::holdTo, tr("Held"), at(r.hold->to), true});
    }
    const bool blow = r.burst.has_value(); // it neither slips nor breaks
    if (r.firstSlip && !blow)
        m_pins.push_back(
            {project::Handle::firstSlip, tr("First slip"), r.firstSlip->index, r.firstSlip->byHand});
    if (r.breakPoint && !blow)
        m_pins.push_back(
            {project::Handle::breakPoint, tr("Break"), r.breakPoint->index, r.breakPoint->byHand});
    m_pins.push_back(
        {project::Handle::peak, r.offScale ? tr("Peak, at least") : tr("Peak"), r.peak.index, r.peak.byHand});
    rebuild();
}

void CurveView::showOverlay(chart::CurveChart chart) {
    m_curve.reset();
    m_pins.clear();
    m_sentence.clear();
    m_chart = std::move(chart);
    m_chart.legend = true;
    m_fullX0 = m_chart.x0;
    m_fullX1 = m_chart.x1;
    m_fullY0 = m_chart.y0;
    m_fullY1 = m_chart.y1;
    m_before.clear();
    rebuild();
}

void CurveView::showNothing(const QString& sentence) {
    m_curve.reset();
    m_pins.clear();
    m_chart = {};
    m_sentence = sentence;
    m_picture = {};
    update();
}

bool CurveView::zoomed() const {
    return m_chart.x0 != m_fullX0 || m_chart.x1 != m_fullX1 || m_chart.y0 != m_fullY0 ||
           m_chart.y1 != m_fullY1;
}

void CurveView::look(const Seen& at) {
    m_chart.x0 = at.x0;
    m_chart.x1 = at.x1;
    m_chart.y0 = at.y0;
    m_chart.y1 = at.y1;
}

/// Shows another part, within what there is, and keeps the one before for going back.
void CurveView::lookAt(Seen at) {
    at.x0 = std::max(m_fullX0, at.x0);
    at.x1 = std::min(m_fullX1, at.x1);
    at.y0 = std::max(m_fullY0, at.y0);
    at.y1 = std::min(m_fullY1, at.y1);
    const double least = (m_fullX1 - m_fullX0) / std::max<double>(4, static_cast<double>(m_x.size()) / 4);
    if (at.x1 - at.x0 < least || !(at.y1 > at.y0)) return;
    m_before.push_back({m_chart.x0, m_chart.x1, m_chart.y0, m_chart.y1});
    if (m_before.size() > 100) m_before.erase(m_before.begin());
    look(at);
    rebuild();
}

void CurveView::zoomBy(double factor, double at) {
    lookAt({at + (m_chart.x0 - at) * factor, at + (m_chart.x1 - at) * factor, m_chart.y0, m_chart.y1});
}

void CurveView::resetZoom() {
    m_before.clear();
    look({m_fullX0, m_fullX1, m_fullY0, m_fullY1});
    rebuild();
}

std::pair<double, double> CurveView::timesInView() const {
    if (!m_curve || m_x.empty()) return {0, 0};
    const auto& t = m_curve->cleaned.time;
    std::optional<std::size_t> first, last;
    for (std::size_t i = 0; i < m_x.size(); ++i)
        if (m_x[i] >= m_chart.x0 && m_x[i] <= m_chart.x1) {
            if (!first) first = i;
            last = i;
        }
    return first ? std::pair{t[*first], t[*last]} : std::pair{0.0, 0.0};
}

void CurveView::rebuild() {
    if (!m_sentence.isEmpty()) return;
    if (m_curve) {
        chart::Trace trace;
        trace.ink = chart::Ink::series0;
        // Two points a pixel at most: more are only slower to paint.
        trace.points = m_pyramid.draw(m_x, m_y, m_chart.x0, m_chart.x1,
                                      static_cast<std::size_t>(std::max(100, (width() - 80) / 2)));
        trace.calibratedTo = m_calibratedTo;
        m_chart.traces = {trace};
        if (!m_loggedY.empty()) {
            chart::Trace logged;
            logged.name = m_behind.toStdString();
            logged.ink = chart::Ink::faint;
            logged.width = 1;
            logged.points = m_loggedPyramid.draw(m_x, m_loggedY, m_chart.x0, m_chart.x1,
                                                 static_cast<std::size_t>(std::max(100, (width() - 80) / 2)));
            m_chart.traces.insert(m_chart.traces.begin(), std::move(logged));
        }
        m_chart.legend = !m_legs.empty() || !m_loggedY.empty();
        if (m_chart.legend) m_chart.traces.back().name = tr("load").toStdString();
        for (std::size_t i = 0; i < m_legs.size(); ++i) {
            chart::Trace beside;
            beside.name = m_legs[i].name;
            beside.ink = chart::seriesInk(i + 1);
            beside.dash = chart::seriesDash(i + 1);
            beside.width = 1.2;
            beside.points =
                m_legs[i].pyramid.draw(m_x, m_legs[i].y, m_chart.x0, m_chart.x1,
                                       static_cast<std::size_t>(std::max(100, (width() - 80) / 2)));
            m_chart.traces.push_back(std::move(beside));
        }
        m_chart.pins.clear();
        for (const auto& p : m_pins)
            m_chart.pins.push_back(
                {p.name.toStdString(), m_x[p.index], m_y[p.index], p.byHand, static_cast<int>(p.handle),
                 p.handle != project::Handle::fitTo && p.handle != project::Handle::breakPoint,
                 p.handle == project::Handle::firstSlip});
    }
    m_picture = chart::curves(m_chart, width() / textScale(), height() / textScale(), &m_plane);
    update();
    emit viewChanged();
}

QPoint CurveView::placeOf(project::Handle handle) const {
    for (const auto& p : m_pins)
        if (p.handle == handle)
            return (QPointF(m_plane.px(m_x[p.index]), m_plane.py(m_y[p.index])) * textScale()).toPoint();
    return {};
}

CurveView::Pin* CurveView::pinAt(const QPointF& at) {
    Pin* best = nullptr;
    double nearest = 14;
    for (auto& p : m_pins) {
        const double d = std::hypot(m_plane.px(m_x[p.index]) - at.x(), m_plane.py(m_y[p.index]) - at.y());
        if (d < nearest) {
            nearest = d;
            best = &p;
        }
    }
    return best;
}

std::size_t CurveView::sampleNear(const QPointF& at) const {
    // Mostly along x; a little along y picks the right branch where the displacement runs back.
    const std::size_t stride = std::max<std::size_t>(1, m_x.size() / 200000);
    std::size_t best = 0;
    double nearest = 1e300;
    const auto look = [&](std::size_t i) {
        const double dx = m_plane.px(m_x[i]) - at.x(), dy = m_plane.py(m_y[i]) - at.y();
        const double d = dx * dx + 0.02 * dy * dy;
        if (d < nearest) {
            nearest = d;
            best = i;
        }
    };
    for (std::size_t i = 0; i < m_x.size(); i += stride)
        look(i);
    if (stride > 1)
        for (std::size_t i = best > stride ? best - stride : 0, end = std::min(m_x.size(), best + stride);
             i < end; ++i)
            look(i);
    return best;
}

void CurveView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const auto& palette = theme().charts();
    painter.fillRect(rect(), chart::color(palette, chart::Ink::paper));
    if (!m_sentence.isEmpty()) {
        painter.setPen(theme().faint);
        painter.drawText(rect().adjusted(20, 20, -20, -20), Qt::AlignCenter | Qt::TextWordWrap, m_sentence);
    } else {
        painter.save();
        painter.scale(textScale(), textScale());
        chart::paint(painter, m_picture, palette);
        painter.restore();
    }
    if (m_box) {
        painter.setPen(QPen(theme().accent, 1, Qt::DashLine));
        painter.drawRect(QRectF(*m_box * textScale(), m_last * textScale()).normalized());
    }
    if (m_chosen >= 0 && m_chosen < static_cast<int>(m_pins.size())) {
        painter.setPen(QPen(theme().accent, 2));
        painter.drawEllipse(placeOf(m_pins[static_cast<std::size_t>(m_chosen)].handle), 11, 11);
    }
    if (hasFocus()) {
        painter.setPen(QPen(theme().accent, 2));
        painter.drawRect(rect().adjusted(1, 1, -1, -1));
    }
}

void CurveView::resizeEvent(QResizeEvent*) { rebuild(); }

void CurveView::wheelEvent(QWheelEvent* event) {
    if (!m_curve) return;
    zoomBy(std::pow(0.8, event->angleDelta().y() / 120.0), m_plane.x(onPicture(event).x()));
    event->accept();
}

void CurveView::mousePressEvent(QMouseEvent* event) {
    m_last = onPicture(event);
    if (event->modifiers() & Qt::ShiftModifier && m_curve)
        m_box = m_last;
    else if (auto* pin = pinAt(m_last); pin && m_movable)
        m_grabbed = static_cast<int>(pin - m_pins.data());
    else
        m_panning = true;
}

void CurveView::mouseMoveEvent(QMouseEvent* event) {
    const auto at = onPicture(event);
    if (m_box) {
        m_last = at;
        update();
    } else if (m_grabbed >= 0) {
        auto& pin = m_pins[static_cast<std::size_t>(m_grabbed)];
        pin.index = sampleNear(at);
        pin.byHand = true;
        rebuild();
    } else if (m_panning && m_curve) {
        const double dx = m_plane.x(m_last.x()) - m_plane.x(at.x());
        const double move = std::clamp(dx, m_fullX0 - m_chart.x0, m_fullX1 - m_chart.x1);
        m_chart.x0 += move;
        m_chart.x1 += move;
        m_last = at;
        rebuild();
    } else {
        const auto* pin = pinAt(at);
        setCursor(pin && m_movable ? Qt::SizeHorCursor : Qt::ArrowCursor);
        setTip(this, pin && m_movable ? tr("Drag to move this landmark; undo brings it back") : QString());
    }
}

void CurveView::mouseReleaseEvent(QMouseEvent* event) {
    m_panning = false;
    if (const auto from = std::exchange(m_box, std::nullopt)) {
        const auto to = onPicture(event);
        const auto y = [&](double py) {
            return m_plane.y0 +
                   (m_plane.bottom - py) / (m_plane.bottom - m_plane.top) * (m_plane.y1 - m_plane.y0);
        };
        if (std::abs(to.x() - from->x()) > 6 && std::abs(to.y() - from->y()) > 6)
            lookAt({m_plane.x(std::min(from->x(), to.x())), m_plane.x(std::max(from->x(), to.x())),
                    y(std::max(from->y(), to.y())), y(std::min(from->y(), to.y()))});
        update();
        return;
    }
    if (m_grabbed < 0) return;
    const auto pin = m_pins[static_cast<std::size_t>(m_grabbed)];
    m_grabbed = -1;
    if (pin.byHand) emit landmarkMoved(pin.handle, m_curve->cleaned.time[pin.index]);
}

void CurveView::mouseDoubleClickEvent(QMouseEvent*) { resetZoom(); }

void CurveView::keyPressEvent(QKeyEvent* event) {
    // L walks through the landmarks, the arrows move the chosen one by a sample (Shift: ten).
    if (event->key() == Qt::Key_L && !m_pins.empty()) {
        m_chosen = (m_chosen + 1) % static_cast<int>(m_pins.size());
        update();
    } else if ((event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) && m_movable &&
               m_chosen >= 0 && m_chosen < static_cast<int>(m_pins.size())) {
        const auto& pin = m_pins[static_cast<std::size_t>(m_chosen)];
        const std::ptrdiff_t step =
            (event->modifiers() & Qt::ShiftModifier ? 10 : 1) * (event->key() == Qt::Key_Left ? -1 : 1);
        const auto to = std::clamp<std::ptrdiff_t>(static_cast<std::ptrdiff_t>(pin.index) + step, 0,
                                                   static_cast<std::ptrdiff_t>(m_x.size()) - 1);
        emit landmarkMoved(pin.handle, m_curve->cleaned.time[static_cast<std::size_t>(to)]);
    } else if (event->key() == Qt::Key_Home) {
        resetZoom();
    } else if (event->key() == Qt::Key_Plus || event->key() == Qt::Key_Minus) {
        zoomBy(event->key() == Qt::Key_Plus ? 0.7 : 1 / 0.7, (m_chart.x0 + m_chart.x1) / 2);
    } else if (event->key() == Qt::Key_PageUp ||
               event->key() == Qt::Key_PageDown) { // on by half of what is seen
        const double step = (event->key() == Qt::Key_PageUp ? -0.5 : 0.5) * (m_chart.x1 - m_chart.x0);
        const double move = std::clamp(step, m_fullX0 - m_chart.x0, m_fullX1 - m_chart.x1);
        lookAt({m_chart.x0 + move, m_chart.x1 + move, m_chart.y0, m_chart.y1});
    } else if (event->key() == Qt::Key_Backspace && !m_before.empty()) {
        look(m_before.back());
        m_before.pop_back();
        rebuild();
    } else {
        QWidget::keyPressEvent(event);
    }
}

} // namespace anvil::app
