#include "widgets/picture_view.h"

#include "theme/theme.h"
#include "widgets/keep_picture.h"
#include "widgets/plain_text.h"
#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <anvil/chart/painter.h>
#include <cmath>

namespace anvil::app {

namespace {

constexpr double leastHeight = 1; ///< as low as it may be

} // namespace

PictureView::PictureView(QWidget* parent) : QWidget(parent) {
    setMinimumWidth(320);
    setFocusPolicy(Qt::ClickFocus);
    givePictureMenu(this, [this](double width) { return drawn(width); });
}

chart::Picture PictureView::drawn(double width) const {
    if (width <= 0 || (!m_build && !m_fill)) return m_picture;
    return m_fill ? m_fill(width, 0) : m_build(width);
}

void PictureView::setBuild(Build build) {
    m_fill = nullptr;
    m_build = std::move(build);
    rebuild();
}

void PictureView::setBuild(BuildToFill build) {
    m_build = nullptr;
    m_fill = std::move(build);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    rebuild();
}

void PictureView::rebuild() {
    if (!m_build && !m_fill) return;
    const double wide = width() / textScale(), high = height() / textScale();
    m_picture = m_fill ? m_fill(wide, leastHeight) : m_build(wide);
    setMinimumHeight(static_cast<int>(std::ceil(m_picture.height * textScale())));
    if (m_fill && high > m_picture.height) m_picture = m_fill(wide, high);
    QStringList spoken;
    for (const auto& label : m_picture.labels())
        spoken << QString::fromStdString(label);
    setAccessibleDescription(spoken.join(", "));
    updateGeometry();
    update();
}

QSize PictureView::sizeHint() const { return {600, minimumHeight()}; }

QPoint PictureView::placeOf(const chart::HitOf& of) const {
    for (const auto& h : m_picture.hits)
        if (h.of == of && of.index() != 0)
            return (QPointF(h.x + h.width / 2, h.y + h.height / 2) * textScale()).toPoint();
    return {};
}

const chart::Hit* PictureView::hitAt(const QPointF& at) const {
    const chart::Hit* last = nullptr; // the one painted last lies on top
    for (const auto& h : m_picture.hits)
        if (QRectF(h.x, h.y, h.width, h.height).contains(at / textScale())) last = &h;
    return last;
}

void PictureView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), chart::color(theme().charts(), chart::Ink::paper));
    painter.save();
    painter.scale(textScale(), textScale());
    chart::paint(painter, m_picture, theme().charts());
    painter.restore();
    if (!hasFocus()) return;
    painter.setPen(QPen(theme().accent, 2));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(rect().adjusted(1, 1, -1, -1));
}

void PictureView::resizeEvent(QResizeEvent*) { rebuild(); }

void PictureView::mousePressEvent(QMouseEvent* event) {
    if (const auto* hit = hitAt(event->position()); hit && hit->of.index() != 0)
        emit clicked(chart::HitOf(hit->of)); // a copy: the picture may be drawn anew
}

void PictureView::mouseDoubleClickEvent(QMouseEvent* event) {
    if (const auto* hit = hitAt(event->position()); hit && hit->of.index() != 0)
        emit activated(chart::HitOf(hit->of));
}

bool PictureView::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const auto* hit = hitAt(help->pos());
        showTip(help->globalPos(), hit ? QString::fromStdString(hit->tip) : QString(), this);
        return true;
    }
    return QWidget::event(event);
}

} // namespace anvil::app
