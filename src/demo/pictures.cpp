#include "pictures.h"

#include <QBuffer>
#include <QImage>
#include <QPainter>
#include <QPainterPath>
#include <cmath>
#include <numbers>

namespace anvil::demo {
namespace {

using methods::MarkKind;
using methods::PicturePoint;

const QColor ground(226, 222, 211), wood(164, 131, 92), steel(92, 104, 116), dark(52, 56, 62),
    pale(240, 238, 232), green(122, 148, 104);

QImage canvas(int wide, int high) {
    QImage image(wide, high, QImage::Format_RGB32);
    image.fill(ground);
    return image;
}

QByteArray png(const QImage& image) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return bytes;
}

QPointF at(const PicturePoint& p) { return {p.x, p.y}; }

QPolygonF outline(const std::vector<PicturePoint>& points) {
    QPolygonF out;
    for (const auto& p : points)
        out << at(p);
    return out;
}

} // namespace

Painted swing(double rise) {
    auto image = canvas(960, 720);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    const PicturePoint pivot{430, 190}, foot{790, 640}, top{790, 140}; // 500 px are 1 m
    constexpr double arm = 300;                                        // 600 mm
    const auto head = [&](double angle) {
        return PicturePoint{pivot.x + arm * std::sin(angle), pivot.y + arm * std::cos(angle)};
    };
    p.fillRect(QRectF(0, 640, 960, 80), green);
    p.fillRect(QRectF(414, 170, 32, 470), wood);
    for (int dm = 0; dm < 10; ++dm) // a staff in tenths of a metre
        p.fillRect(QRectF(778, foot.y - 50.0 * (dm + 1), 24, 50), dm % 2 == 0 ? pale : dark);
    const auto hammer = [&](double angle, double opacity) {
        p.setOpacity(opacity);
        p.setPen(QPen(steel, 10, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(at(pivot), at(head(angle)));
        p.setPen(Qt::NoPen);
        p.setBrush(dark);
        p.drawEllipse(at(head(angle)), 26, 26);
        p.setOpacity(1);
    };
    hammer(0, 0.45);
    hammer(rise, 1);
    p.setBrush(pale);
    p.drawEllipse(at(pivot), 8, 8);
    p.end();
    methods::PictureMarks marks{{{foot, top}, 1, 0, 0.001}, 2, {}};
    marks.marks.push_back({MarkKind::angle, "rise", {head(0), pivot, head(rise)}});
    marks.marks.push_back(
        {MarkKind::distance, "height of the head", {{head(rise).x, head(0).y}, head(rise)}});
    return {png(image), marks};
}

Painted brokenFace(double share) {
    auto image = canvas(960, 720);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    // The card of 20 by 14 mm as a slanting lens shows it: a place in mm to px.
    const auto seen = [](double x, double y) {
        const double depth = 1 + 0.018 * y + 0.006 * x;
        return PicturePoint{130 + 44 * x / depth + 6 * y, 650 - 48 * y / depth - 2 * x};
    };
    const std::vector<PicturePoint> card{seen(0, 0), seen(20, 0), seen(20, 14), seen(0, 14)};
    const std::vector<PicturePoint> face{seen(5, 3), seen(15.2, 3), seen(15.2, 11.2), seen(5, 11.2)};
    const double split = 3 + 8.2 * share;
    const std::vector<PicturePoint> smooth{seen(5, 3), seen(15.2, 3), seen(15.2, split), seen(5, split)};
    p.setPen(QPen(dark, 3));
    p.setBrush(pale);
    p.drawPolygon(outline(card));
    p.setPen(Qt::NoPen);
    p.setBrush(steel);
    p.drawPolygon(outline(face));
    p.setBrush(wood);
    p.drawPolygon(outline(smooth));
    p.setPen(QPen(dark, 1.4)); // the coarse part is grained
    for (int i = 0; i < 60; ++i) {
        const double x = 5.3 + 9.6 * std::fmod(0.618034 * i, 1.0), y = split + (11 - split) * (i + 0.5) / 60;
        p.drawLine(at(seen(x, y)), at(seen(x + 0.35, y + 0.12)));
    }
    p.end();
    methods::PictureMarks marks{{card, 0.020, 0.014, 0.00005}, 2, {}};
    marks.marks.push_back({MarkKind::whole, "the face", face});
    marks.marks.push_back({MarkKind::area, "torn smoothly", smooth});
    return {png(image), marks};
}

Painted legsFromAbove(double first, double second, double third) {
    auto image = canvas(720, 720);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(image.rect(), green);
    const PicturePoint hub{360, 360};
    const auto end = [&](double angle) {
        return PicturePoint{hub.x + 280 * std::cos(angle), hub.y - 280 * std::sin(angle)};
    };
    for (const double leg : {first, second, third}) {
        p.setPen(QPen(steel, 26, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(at(hub), at(end(leg)));
        p.setPen(Qt::NoPen);
        p.setBrush(dark);
        p.drawEllipse(at(end(leg)), 34, 34);
    }
    p.setBrush(wood);
    p.drawEllipse(at(hub), 52, 52);
    p.end();
    methods::PictureMarks marks;
    marks.marks.push_back({MarkKind::angle, "leg 1 to leg 2", {end(first), hub, end(second)}});
    marks.marks.push_back({MarkKind::angle, "leg 2 to leg 3", {end(second), hub, end(third)}});
    return {png(image), marks};
}

} // namespace anvil::demo
