#include "widgets/marked_picture.h"

#include "theme/theme.h"
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace anvil::app {
namespace {

constexpr double reach = 9; ///< px on screen within which a place is grabbed

QColor colour(chart::Ink ink) { return QColor::fromRgb(theme().charts()[ink]); }

bool isOutline(MarkedPicture::Tool tool) {
    return tool == MarkedPicture::Tool::area || tool == MarkedPicture::Tool::whole;
}

std::size_t placesOf(MarkedPicture::Tool tool) {
    switch (tool) {
    case MarkedPicture::Tool::length:
    case MarkedPicture::Tool::distance:
        return 2;
    case MarkedPicture::Tool::angle:
        return 3;
    case MarkedPicture::Tool::rectangle:
        return 4;
    case MarkedPicture::Tool::area:
    case MarkedPicture::Tool::whole:
        break;
    }
    return 0; // as many as it takes
}

methods::MarkKind kindOf(MarkedPicture::Tool tool) {
    return static_cast<methods::MarkKind>(static_cast<int>(tool) -
                                          static_cast<int>(MarkedPicture::Tool::distance));
}

/// Lines with a light edge, so that they can be seen on any photograph.
void stroke(QPainter& p, const QPainterPath& path, const QColor& ink, double width, Qt::PenStyle style) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(QColor(255, 255, 255, 190), width + 2.5));
    p.drawPath(path);
    p.setPen(QPen(ink, width, style));
    p.drawPath(path);
}

void place(QPainter& p, const QPointF& at, const QColor& ink, bool chosen) {
    QPainterPath cross;
    const double r = chosen ? 10 : 7;
    for (const auto& way : {QPointF(1, 0), QPointF(-1, 0), QPointF(0, 1), QPointF(0, -1)}) {
        cross.moveTo(at + 2.5 * way); // what lies under it stays to be seen
        cross.lineTo(at + r * way);
    }
    stroke(p, cross, ink, chosen ? 2.4 : 1.6, Qt::SolidLine);
}

} // namespace

MarkedPicture::MarkedPicture(const Photo& photo, methods::PictureMarks marks, QWidget* parent)
    : QWidget(parent), m_picture(photo.picture), m_turn(photo.turn), m_marks(std::move(marks)) {
    setObjectName("markedPicture");
    setAccessibleName(tr("The picture"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setCursor(Qt::CrossCursor);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void MarkedPicture::setMarks(methods::PictureMarks marks) {
    m_marks = std::move(marks);
    if (m_selected && *m_selected >= m_marks.marks.size()) m_selected.reset();
    update();
}

void MarkedPicture::setTool(Tool tool) {
    m_tool = tool;
    m_begun.clear();
    m_grip.reset();
    update();
}

void MarkedPicture::removeMark(std::size_t mark) {
    if (mark >= m_marks.marks.size()) return;
    m_marks.marks.erase(m_marks.marks.begin() + static_cast<std::ptrdiff_t>(mark));
    m_selected.reset();
    m_grip.reset();
    update();
    emit changed();
}

void MarkedPicture::select(std::optional<std::size_t> mark) {
    m_selected = mark;
    update();
}

double MarkedPicture::fit() const {
    return std::min(width() / std::max(1.0, m_picture.width() * 1.0),
                    height() / std::max(1.0, m_picture.height() * 1.0));
}

QPointF MarkedPicture::shownAt(const methods::PicturePoint& q) const {
    const double scale = fit() * m_zoom;
    const auto on = onPicture(q);
    return {width() / 2.0 + m_shift.x() + (on.x() - m_picture.width() / 2.0) * scale,
            height() / 2.0 + m_shift.y() + (on.y() - m_picture.height() / 2.0) * scale};
}

methods::PicturePoint MarkedPicture::placeAt(const QPointF& at) const {
    const double scale = fit() * m_zoom;
    return kept({m_picture.width() / 2.0 + (at.x() - width() / 2.0 - m_shift.x()) / scale,
                 m_picture.height() / 2.0 + (at.y() - height() / 2.0 - m_shift.y()) / scale});
}

QPointF MarkedPicture::onPicture(const methods::PicturePoint& q) const {
    return m_turn.map(QPointF(q.x, q.y));
}

methods::PicturePoint MarkedPicture::kept(const QPointF& on) const {
    const auto q = m_turn.inverted().map(on);
    return {q.x(), q.y()};
}

methods::PicturePoint MarkedPicture::keptWithin(const QPointF& on) const {
    return kept({std::clamp(on.x(), 0.0, m_picture.width() * 1.0),
                 std::clamp(on.y(), 0.0, m_picture.height() * 1.0)});
}

std::vector<methods::PicturePoint>& MarkedPicture::pointsOf(int mark) {
    if (mark == ofScale) return m_marks.scale.points;
    if (mark == ofBegun) return m_begun;
    return m_marks.marks[static_cast<std::size_t>(mark)].points;
}

std::optional<MarkedPicture::Grip> MarkedPicture::gripAt(const QPointF& at) {
    std::optional<Grip> best;
    double least = reach;
    for (int mark = ofBegun; mark < static_cast<int>(m_marks.marks.size()); ++mark) {
        const auto& points = pointsOf(mark);
        for (std::size_t i = 0; i < points.size(); ++i)
            if (const auto d = shownAt(points[i]) - at; std::hypot(d.x(), d.y()) < least) {
                least = std::hypot(d.x(), d.y());
                best = Grip{mark, i};
            }
    }
    return best;
}

void MarkedPicture::add(const methods::PicturePoint& q) {
    if (!QRectF(QPointF(), QSizeF(m_picture.size())).contains(onPicture(q))) return;
    m_begun.push_back(q);
    m_grip = Grip{ofBegun, m_begun.size() - 1};
    if (m_begun.size() == placesOf(m_tool))
        finish();
    else
        emit changed();
    update();
}

void MarkedPicture::finish() {
    if (m_begun.size() < (isOutline(m_tool) ? 3 : placesOf(m_tool))) return;
    if (m_tool == Tool::length || m_tool == Tool::rectangle) {
        m_marks.scale.points = m_begun;
        m_grip = Grip{ofScale, m_begun.size() - 1};
    } else {
        m_marks.marks.push_back({kindOf(m_tool), {}, m_begun});
        m_selected = m_marks.marks.size() - 1;
        m_grip = Grip{static_cast<int>(*m_selected), m_begun.size() - 1};
    }
    m_begun.clear();
    update();
    emit changed();
    emit toolFinished();
}

void MarkedPicture::mousePressEvent(QMouseEvent* event) {
    m_last = event->position();
    if (event->button() != Qt::LeftButton) {
        m_panning = true;
        return;
    }
    const auto grip = gripAt(event->position());
    // The first place of an outline ends it.
    if (grip && grip->mark == ofBegun && grip->point == 0 && isOutline(m_tool) && m_begun.size() >= 3)
        return finish();
    if (!grip) return add(placeAt(event->position()));
    m_grip = grip;
    m_dragging = true;
    if (grip->mark >= 0) {
        m_selected = static_cast<std::size_t>(grip->mark);
        emit markPicked(grip->mark);
    }
    update();
}

void MarkedPicture::mouseMoveEvent(QMouseEvent* event) {
    if (m_panning) {
        m_shift += event->position() - m_last;
    } else if (m_dragging && m_grip) {
        pointsOf(m_grip->mark)[m_grip->point] = keptWithin(onPicture(placeAt(event->position())));
        emit changed();
    }
    m_last = event->position();
    update();
}

void MarkedPicture::mouseReleaseEvent(QMouseEvent*) { m_dragging = m_panning = false; }

void MarkedPicture::mouseDoubleClickEvent(QMouseEvent* event) {
    if (isOutline(m_tool) && m_begun.size() >= 3) return finish();
    mousePressEvent(event);
}

void MarkedPicture::zoomBy(double factor, const QPointF& about) {
    const auto before = placeAt(about);
    m_zoom = std::clamp(m_zoom * factor, 1.0, 40.0);
    m_shift += about - shownAt(before);
    if (m_zoom <= 1.0) m_shift = {};
    update();
}

void MarkedPicture::wheelEvent(QWheelEvent* event) {
    zoomBy(std::pow(1.0015, event->angleDelta().y()), event->position());
    event->accept();
}

void MarkedPicture::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier ? 10 : 1;
    const auto nudge = [&](double dx, double dy) {
        if (!m_grip || m_grip->point >= pointsOf(m_grip->mark).size()) return;
        auto& q = pointsOf(m_grip->mark)[m_grip->point];
        q = keptWithin(onPicture(q) + step * QPointF(dx, dy));
        update();
        emit changed();
    };
    switch (event->key()) {
    case Qt::Key_Left:
        return nudge(-1, 0);
    case Qt::Key_Right:
        return nudge(1, 0);
    case Qt::Key_Up:
        return nudge(0, -1);
    case Qt::Key_Down:
        return nudge(0, 1);
    case Qt::Key_Plus:
    case Qt::Key_Equal:
        return zoomBy(1.25, rect().center());
    case Qt::Key_Minus:
        return zoomBy(0.8, rect().center());
    case Qt::Key_0:
        return zoomBy(1e-6, rect().center());
    case Qt::Key_Space: // a place in the middle, to be nudged to where it belongs
        return add(placeAt(rect().center()));
    case Qt::Key_Return:
    case Qt::Key_Enter:
        if (!m_begun.empty()) return finish();
        break;
    case Qt::Key_Backspace:
        if (!m_begun.empty()) {
            m_begun.pop_back();
            m_grip.reset();
            update();
            return emit changed();
        }
        break;
    case Qt::Key_Escape:
        if (!m_begun.empty()) {
            m_begun.clear();
            m_grip.reset();
            update();
            return emit changed();
        }
        break;
    case Qt::Key_Delete:
        if (m_selected) return removeMark(*m_selected);
        break;
    default:
        break;
    }
    QWidget::keyPressEvent(event);
}

void MarkedPicture::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    p.fillRect(rect(), theme().ground);
    const auto corner = shownAt(kept({0, 0})),
               end = shownAt(kept({m_picture.width() * 1.0, m_picture.height() * 1.0}));
    p.drawPixmap(QRectF(corner, end), m_picture, m_picture.rect());
    const auto draw = [&](int mark, const std::vector<methods::PicturePoint>& points, bool closed,
                          const QColor& ink, const QString& name, Qt::PenStyle style) {
        if (points.empty()) return;
        QPainterPath path(shownAt(points.front()));
        for (const auto& q : points)
            path.lineTo(shownAt(q));
        if (closed) path.closeSubpath();
        const bool strong = mark >= 0 && m_selected == static_cast<std::size_t>(mark);
        if (closed && mark >= 0 &&
            m_marks.marks[static_cast<std::size_t>(mark)].kind == methods::MarkKind::area) {
            auto fill = ink;
            fill.setAlphaF(0.28F);
            p.fillPath(path, fill);
        }
        stroke(p, path, ink, strong ? 3 : 1.8, style);
        for (std::size_t i = 0; i < points.size(); ++i)
            place(p, shownAt(points[i]), ink, m_grip && m_grip->mark == mark && m_grip->point == i);
        if (name.isEmpty()) return;
        auto font = p.font();
        font.setBold(true);
        p.setFont(font);
        const QRectF box(shownAt(points.back()) + QPointF(10, -26),
                         QSizeF(p.fontMetrics().horizontalAdvance(name) + 12, p.fontMetrics().height() + 4));
        p.setPen(Qt::NoPen);
        p.setBrush(QColor(255, 255, 255, 215));
        p.drawRoundedRect(box, 4, 4);
        p.setPen(Qt::black);
        p.drawText(box, Qt::AlignCenter, name);
    };
    draw(ofScale, m_marks.scale.points, m_marks.scale.points.size() == 4, colour(chart::Ink::accent),
         tr("known"), Qt::DashLine);
    for (std::size_t i = 0; i < m_marks.marks.size(); ++i) {
        const auto& mark = m_marks.marks[i];
        const bool outline = mark.kind == methods::MarkKind::area || mark.kind == methods::MarkKind::whole;
        const auto name =
            mark.name.empty() ? QString::number(i + 1) : QString::fromStdString(mark.name).left(24);
        draw(static_cast<int>(i), mark.points, outline, colour(chart::seriesInk(i)), name,
             mark.kind == methods::MarkKind::whole ? Qt::DashLine : Qt::SolidLine);
    }
    draw(ofBegun, m_begun, false, colour(chart::Ink::warn), {}, Qt::SolidLine);
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(theme().accent, 2));
        p.drawRect(rect().adjusted(1, 1, -1, -1));
    }
}

} // namespace anvil::app
