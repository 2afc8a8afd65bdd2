#include <anvil/chart/painter.h>

#include <QColor>
#include <QFont>
#include <QFontDatabase>
#include <QFontMetricsF>
#include <QPainter>
#include <QPolygonF>

static void initChartResources() { Q_INIT_RESOURCE(fonts); }

namespace anvil::chart {
namespace {

QPointF qt(Point p) { return {p.x, p.y}; }

QPolygonF polygon(const std::vector<Point>& points) {
    QPolygonF out;
    out.reserve(static_cast<qsizetype>(points.size()));
    for (const auto& p : points)
        out << qt(p);
    return out;
}

QPen pen(const QColor& color, double width, Dash dash) {
    QPen p(color, width, Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin);
    switch (dash) {
    case Dash::solid:
        break;
    case Dash::dashed:
        p.setDashPattern({7 / width, 4 / width});
        break;
    case Dash::dotted:
        p.setDashPattern({2 / width, 3 / width});
        break;
    case Dash::dashDot:
        p.setDashPattern({8 / width, 3 / width, 2 / width, 3 / width});
        break;
    }
    return p;
}

void paintMark(QPainter& painter, const Mark& m, const QColor& ink) {
    const double r = m.size / 2, x = m.at.x, y = m.at.y;
    painter.setPen(Qt::NoPen);
    painter.setBrush(ink);
    switch (m.shape) {
    case MarkShape::disc:
        painter.drawEllipse(qt(m.at), r, r);
        return;
    case MarkShape::arrowRight:
        painter.drawPolygon(polygon({{x - r, y - r}, {x + r, y}, {x - r, y + r}}));
        return;
    case MarkShape::arrowLeft:
        painter.drawPolygon(polygon({{x + r, y - r}, {x - r, y}, {x + r, y + r}}));
        return;
    case MarkShape::triangleUp:
        painter.drawPolygon(polygon({{x - r, y + r}, {x, y - r}, {x + r, y + r}}));
        return;
    case MarkShape::diamond:
        painter.drawPolygon(polygon({{x - r, y}, {x, y - r}, {x + r, y}, {x, y + r}}));
        return;
    case MarkShape::square:
        painter.drawRect(QRectF(x - r, y - r, m.size, m.size));
        return;
    case MarkShape::ring:
        painter.setPen(QPen(ink, 1.6));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(qt(m.at), r - 0.8, r - 0.8);
        return;
    case MarkShape::span:
        painter.setPen(QPen(ink, 3));
        painter.drawLine(QPointF(x - r, y), QPointF(x + r, y));
        return;
    case MarkShape::tick:
        painter.setPen(QPen(ink, 2));
        painter.drawLine(QPointF(x, y - r), QPointF(x, y + r));
        return;
    case MarkShape::cross:
        painter.setPen(QPen(ink, 1.6));
        painter.drawLine(QPointF(x - r, y - r), QPointF(x + r, y + r));
        painter.drawLine(QPointF(x - r, y + r), QPointF(x + r, y - r));
        return;
    }
}

} // namespace

void loadFonts() {
    initChartResources();
    for (const char* file : {"AnvilSans-Regular", "AnvilSans-Bold"})
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/%1.otf").arg(QLatin1String(file)));
}

QColor color(const Palette& palette, Ink ink) { return QColor::fromRgb(palette[ink]); }

void paint(QPainter& painter, const Picture& picture, const Palette& palette, bool background) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    if (background) painter.fillRect(QRectF(0, 0, picture.width, picture.height), color(palette, Ink::paper));
    for (const auto& shape : picture.shapes) {
        if (const auto* l = std::get_if<Line>(&shape)) {
            painter.setPen(pen(color(palette, l->ink), l->width, l->dash));
            painter.drawLine(qt(l->a), qt(l->b));
        } else if (const auto* p = std::get_if<Polyline>(&shape)) {
            auto ink = color(palette, p->ink);
            ink.setAlphaF(static_cast<float>(p->opacity));
            auto stroke = pen(ink, p->width, p->dash);
            if (p->points.size() > 1000) // round joins of thousands of short pieces cost more than they show
                stroke.setJoinStyle(Qt::BevelJoin);
            painter.setPen(stroke);
            painter.setRenderHint(QPainter::Antialiasing, p->points.size() < (p->width > 1 ? 1300 : 500));
            painter.setBrush(Qt::NoBrush);
            painter.drawPolyline(polygon(p->points));
            painter.setRenderHint(QPainter::Antialiasing);
        } else if (const auto* a = std::get_if<Area>(&shape)) {
            auto ink = color(palette, a->ink);
            ink.setAlphaF(static_cast<float>(a->opacity));
            painter.setPen(Qt::NoPen);
            painter.setBrush(ink);
            painter.drawPolygon(polygon(a->points));
        } else if (const auto* m = std::get_if<Mark>(&shape)) {
            paintMark(painter, *m, color(palette, m->ink));
        } else if (const auto* t = std::get_if<Label>(&shape)) {
            QFont font(QStringLiteral("Anvil Sans"));
            font.setPixelSize(qRound(t->size));
            font.setBold(t->bold);
            painter.setFont(font);
            painter.setPen(color(palette, t->ink));
            const auto text = QString::fromStdString(t->text);
            const double width = QFontMetricsF(font, painter.device()).horizontalAdvance(text);
            const double x = t->align == Align::left     ? t->at.x
                             : t->align == Align::center ? t->at.x - width / 2
                                                         : t->at.x - width;
            painter.drawText(QPointF(x, t->at.y), text);
        }
    }
    painter.restore();
}

} // namespace anvil::chart
