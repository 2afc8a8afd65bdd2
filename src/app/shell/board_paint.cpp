// How the board is painted.
#include "shell/board.h"

#include "shell/board_sizes.h"
#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QPainter>
#include <QPainterPath>
#include <set>

namespace anvil::app {

using namespace board_sizes;

QString Board::word(State state) {
    switch (state) {
    case State::toMake:
        return tr("to make");
    case State::preparing:
        return tr("in preparation");
    case State::ready:
        return tr("ready to pull");
    case State::counts:
        return tr("counts");
    case State::atLeast:
        return tr("at least");
    case State::atMost:
        return tr("at most");
    case State::between:
        return tr("between");
    case State::aside:
        return tr("set aside");
    case State::voided:
        return tr("void");
    case State::notRead:
        return tr("not read");
    }
    return {};
}

/// The sign of a state.
void Board::paintState(QPainter& painter, const QRectF& b, State state) const {
    const auto& t = theme();
    painter.setPen(QPen(t.text, 1.6));
    painter.setBrush(Qt::NoBrush);
    const auto triangle = [&](bool right) {
        QPainterPath path;
        path.moveTo(right ? b.left() : b.right(), b.top());
        path.lineTo(right ? b.right() : b.left(), b.center().y());
        path.lineTo(right ? b.left() : b.right(), b.bottom());
        path.closeSubpath();
        painter.fillPath(path, t.text);
    };
    switch (state) {
    case State::toMake:
        painter.setPen(QPen(t.faint, 1.4, Qt::DotLine));
        painter.drawEllipse(b);
        break;
    case State::preparing: { // a disc that fills as the preparation goes on
        painter.drawEllipse(b);
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.text);
        painter.drawPie(b.adjusted(2, 2, -2, -2), 90 * 16, -static_cast<int>(360 * 16 * m_prepared));
        break;
    }
    case State::ready:
        painter.drawEllipse(b);
        painter.drawLine(QPointF(b.left() + 3, b.center().y()), QPointF(b.center().x(), b.bottom() - 3));
        painter.drawLine(QPointF(b.center().x(), b.bottom() - 3), QPointF(b.right() - 2, b.top() + 3));
        break;
    case State::counts:
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.text);
        painter.drawEllipse(b);
        break;
    case State::atLeast:
        triangle(true);
        break;
    case State::atMost:
        triangle(false);
        break;
    case State::between:
        painter.fillRect(QRectF(b.left(), b.center().y() - 2, b.width(), 4), t.text);
        break;
    case State::aside:
        painter.drawLine(b.topLeft(), b.bottomRight());
        painter.drawLine(b.bottomLeft(), b.topRight());
        break;
    case State::voided:
        painter.drawRect(b);
        painter.drawLine(b.topLeft(), b.bottomRight());
        break;
    case State::notRead:
        painter.drawEllipse(b);
        break;
    }
}

void Board::paintMark(QPainter& painter, const QRect& r, State state, bool selected, bool look) const {
    const auto& t = theme();
    paintState(painter, QRectF(r).adjusted(1, 1, -1, -1), state);
    if (look) { // a small flag: somebody should look at this curve
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.warn);
        painter.drawRect(QRectF(r.right() - 2, r.top() - 2, 5, 5));
    }
    if (selected) {
        painter.setPen(QPen(t.accent, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRectF(r).adjusted(-3, -3, 3, 3));
    }
}

void Board::paintOtherEnd(QPainter& painter, const QRect& mark) const {
    painter.fillRect(QRect(mark.left(), mark.bottom() + 3, mark.width(), 2), theme().text);
}

void Board::paintLegend(QPainter& painter) const {
    int x = 6, y = m_bottom + grown(14);
    std::set<State> used;
    bool look = false, otherEnd = false;
    std::optional<State> overdue;
    for (const auto& m : m_marks) {
        used.insert(m.state);
        look = look || (m.look && m.pull);
        otherEnd = otherEnd || m.otherEnd;
        if (m.look && !m.pull) overdue = m.state;
    }
    const auto item = [&](State state, bool flag, const QString& text, bool underlined = false) {
        const int need = markSize() + 8 + painter.fontMetrics().horizontalAdvance(text) + 14;
        if (x + need > width() && x > 6) {
            x = 6;
            y += grown(20);
        }
        paintMark(painter, QRect(x, y, markSize(), markSize()), state, false, flag);
        if (underlined) paintOtherEnd(painter, QRect(x, y, markSize(), markSize()));
        painter.setPen(theme().faint);
        painter.drawText(QRect(x + markSize() + 6, y - 4, need, markSize() + 8), Qt::AlignVCenter, text);
        x += need;
    };
    for (const auto state : used)
        item(state, false, word(state));
    if (otherEnd) item(State::counts, false, tr("other end of another's piece"), true);
    if (look) item(State::counts, true, tr("needs a look"));
    if (overdue) item(*overdue, true, m_rail ? tr("step overdue") : tr("a step is overdue"));
}

void Board::paintHead(QPainter& painter, const Head& h) const {
    painter.setPen(h.condition ? theme().faint : theme().text);
    auto f = font();
    f.setBold(h.condition);
    painter.setFont(f);
    const auto& r = h.rect;
    const auto elided = painter.fontMetrics().elidedText(h.shown, Qt::ElideRight, r.width());
    if (h.condition) return painter.drawText(r, Qt::AlignLeft | Qt::AlignVCenter, elided);
    // Two lines before it is cut.
    const auto fits =
        painter.fontMetrics().boundingRect(QRect(0, 0, r.width(), 1000), Qt::TextWordWrap, h.shown);
    const bool whole = fits.height() <= r.height() && fits.width() <= r.width();
    painter.drawText(r, Qt::AlignLeft | Qt::AlignVCenter | (whole ? Qt::TextWordWrap : 0),
                     whole ? h.shown : elided);
}

void Board::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto& t = theme();
    const auto* data = m_session.study();
    if (!data || data->options.empty()) {
        painter.setPen(t.faint);
        painter.drawText(
            rect().adjusted(16, 16, -16, -16), Qt::TextWordWrap,
            data ? tr("Nothing to compare yet. Type the options in Question, or drop logger files here.")
                 : tr("No study yet. Drop logger files here to start one."));
        return;
    }
    for (const auto& s : m_squares) {
        const bool here =
            s.option == m_session.option() && (s.condition == 0 || s.condition == m_session.condition());
        painter.setPen(QPen(here ? t.accent : t.line, here ? 1.6 : 1));
        painter.setBrush(here ? QColor::fromRgb(t.charts().rgb[0]) : t.panel);
        painter.drawRect(QRectF(s.rect).adjusted(0.5, 0.5, -0.5, -0.5));
        if (s.struck)
            painter.drawLine(QPointF(s.rect.left(), s.rect.bottom()), QPointF(s.rect.right(), s.rect.top()));
        if (!s.count.isEmpty()) {
            painter.setPen(t.text);
            painter.setFont(figures(13));
            painter.drawText(s.rect.adjusted(6, s.stacked ? 3 : 0, 0, 0),
                             s.stacked ? Qt::AlignTop : Qt::AlignVCenter, s.count);
            painter.setFont(font());
        }
    }
    for (const auto& h : m_heads)
        paintHead(painter, h);
    painter.setFont(font());
    for (const auto& m : m_marks) {
        paintMark(painter, m.rect, m.state, m.pull && m.pull == m_session.pull(), m.look);
        if (m.otherEnd) paintOtherEnd(painter, m.rect);
    }
    paintLegend(painter);
    if (hasFocus()) {
        painter.setPen(QPen(t.accent, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(rect().adjusted(1, 1, -1, -1));
    }
}

} // namespace anvil::app
