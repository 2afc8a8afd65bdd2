#include "widgets/small_curve.h"

#include "theme/theme.h"
#include <QPainter>
#include <algorithm>
#include <anvil/chart/painter.h>
#include <anvil/curve/pyramid.h>

namespace anvil::app {

QPixmap smallCurve(const curve::Curve& c) {
    constexpr int w = 84, h = 30;
    QPixmap pixmap(w * 2, h * 2);
    pixmap.setDevicePixelRatio(2);
    pixmap.fill(Qt::transparent);
    std::vector<double> index(c.load.size());
    for (std::size_t i = 0; i < index.size(); ++i)
        index[i] = static_cast<double>(i);
    const auto points = curve::Pyramid(c.load).draw(index, c.load, 0, static_cast<double>(index.size()), w);
    const auto [low, high] = std::minmax_element(c.load.begin(), c.load.end());
    const double range = *high > *low ? *high - *low : 1;
    QPolygonF line;
    for (const auto& p : points)
        line << QPointF(2 + p.x / static_cast<double>(index.size()) * (w - 4),
                        h - 3 - (p.y - *low) / range * (h - 6));
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(chart::color(theme().charts(), chart::Ink::series0), 1.4));
    painter.drawPolyline(line);
    return pixmap;
}

} // namespace anvil::app
