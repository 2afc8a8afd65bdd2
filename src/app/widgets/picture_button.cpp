#include "widgets/picture_button.h"

#include "theme/theme.h"
#include <QPainter>
#include <anvil/chart/painter.h>

namespace anvil::app {

namespace {

constexpr int inside = 12, gap = 8;

} // namespace

PictureButton::PictureButton(chart::Picture picture, const QString& title, const QString& text,
                             QWidget* parent)
    : QAbstractButton(parent), m_picture(std::move(picture)), m_text(text) {
    setText(title);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(title);
    setAccessibleDescription(text);
    setCursor(Qt::PointingHandCursor);
    auto policy = QSizePolicy(QSizePolicy::Expanding, QSizePolicy::Minimum);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

void PictureButton::show(chart::Picture picture, const QString& title) {
    m_picture = std::move(picture);
    setText(title);
    setAccessibleName(title);
    updateGeometry();
    update();
}

void PictureButton::setScale(double scale) {
    m_scale = scale;
    updateGeometry();
}

QSize PictureButton::drawn(int width) const {
    const QSizeF whole = QSizeF(m_picture.width, m_picture.height) * m_scale * textScale();
    const double share = std::min(1.0, std::max(1.0, width - 2.0 * inside) / std::max(1.0, whole.width()));
    return (whole * share).toSize();
}

QFont PictureButton::titleFont() const {
    auto f = font();
    f.setBold(!m_text.isEmpty() || isChecked());
    if (!m_text.isEmpty()) f.setPixelSize(grown(15));
    return f;
}

QRect PictureButton::textRect(int width, const QFont& font, const QString& text) const {
    return QFontMetrics(font).boundingRect(QRect(0, 0, width - 2 * inside, 1000), Qt::TextWordWrap, text);
}

int PictureButton::heightForWidth(int width) const {
    int height = 2 * inside + drawn(width).height() + gap + textRect(width, titleFont(), text()).height();
    if (!m_text.isEmpty()) height += gap / 2 + textRect(width, font(), m_text).height();
    return height;
}

QSize PictureButton::sizeHint() const {
    const int width = qRound(m_picture.width * m_scale * textScale()) + 2 * inside;
    return {width, heightForWidth(width)};
}

QSize PictureButton::minimumSizeHint() const {
    const int width = qRound(m_picture.width * m_scale) + 2 * inside;
    return {width, heightForWidth(width)};
}

void PictureButton::enterEvent(QEnterEvent*) { update(); }
void PictureButton::leaveEvent(QEvent*) { update(); }

void PictureButton::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto& t = theme();
    const bool strong = hasFocus() || isChecked() || underMouse();
    painter.setPen(QPen(strong ? t.accent : t.line, hasFocus() || isChecked() ? 2 : 1));
    painter.setBrush(isDown() ? t.ground : t.panel);
    painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 3, 3);
    painter.save();
    const auto drawing = drawn(width());
    painter.translate(0.5 * (width() - drawing.width()), inside);
    const double scale = drawing.width() / std::max(1.0, m_picture.width);
    painter.scale(scale, scale);
    chart::paint(painter, m_picture, t.charts(), false);
    painter.restore();
    int y = inside + drawing.height() + gap;
    painter.setFont(titleFont());
    painter.setPen(t.text);
    const int titled = textRect(width(), titleFont(), text()).height();
    const auto side = m_text.isEmpty() ? Qt::AlignHCenter : Qt::AlignLeft;
    painter.drawText(QRect(inside, y, width() - 2 * inside, titled), Qt::TextWordWrap | side, text());
    if (m_text.isEmpty()) return;
    y += titled + gap / 2;
    painter.setFont(font());
    painter.setPen(t.faint);
    painter.drawText(QRect(inside, y, width() - 2 * inside, height() - y), Qt::TextWordWrap, m_text);
}

} // namespace anvil::app
