#include "shell/stage_strip.h"

#include "theme/theme.h"
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

namespace anvil::app {

StageStrip::StageStrip(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::TabFocus);
    setFixedHeight(grown(50));
    setAccessibleName(tr("Stages"));
}

QString StageStrip::name(Stage stage) {
    static const char* const names[] = {
        QT_TR_NOOP("Question"), QT_TR_NOOP("Specimens"), QT_TR_NOOP("Rig"),   QT_TR_NOOP("Pull"),
        QT_TR_NOOP("Curves"),   QT_TR_NOOP("Verdict"),   QT_TR_NOOP("Report")};
    static_assert(std::size(names) == static_cast<std::size_t>(Stage::report) + 1);
    return tr(names[static_cast<int>(stage)]);
}

void StageStrip::setCurrent(Stage stage) {
    m_current = stage;
    setAccessibleDescription(name(stage));
    update();
}

void StageStrip::setNotes(const std::array<QString, stageCount>& progress,
                          const std::array<int, stageCount>& alerts) {
    m_progress = progress;
    m_alerts = alerts;
    update();
}

QRect StageStrip::placeOf(Stage stage) const {
    const int i = static_cast<int>(stage);
    return {width() * i / stageCount, 0, width() * (i + 1) / stageCount - width() * i / stageCount, height()};
}

void StageStrip::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto& t = theme();
    painter.setPen(QPen(t.line, 1));
    painter.drawLine(0, height() - 1, width(), height() - 1);
    for (int i = 0; i < stageCount; ++i) {
        const auto stage = static_cast<Stage>(i);
        const auto place = placeOf(stage);
        const bool here = stage == m_current;
        if (here) {
            painter.fillRect(place.adjusted(1, 2, -1, 0), t.panel);
            painter.fillRect(QRect(place.left() + 1, height() - 4, place.width() - 2, 4), t.accent);
        }
        auto f = font();
        f.setPixelSize(grown(13));
        f.setBold(here);
        painter.setFont(f);
        painter.setPen(t.text);
        painter.drawText(place.adjusted(12, grown(6), -4, -grown(20)), Qt::AlignLeft | Qt::AlignVCenter,
                         name(stage));
        f.setPixelSize(grown(11));
        f.setBold(false);
        painter.setFont(f);
        painter.setPen(t.faint);
        painter.drawText(place.adjusted(12, grown(26), -4, -grown(5)), Qt::AlignLeft | Qt::AlignVCenter,
                         painter.fontMetrics().elidedText(m_progress[static_cast<std::size_t>(i)],
                                                          Qt::ElideRight, place.width() - 18));
        if (const int n = m_alerts[static_cast<std::size_t>(i)]) {
            const QString text = QString::number(n);
            f.setBold(true);
            painter.setFont(f);
            const QRect badge(place.right() - 16 - painter.fontMetrics().horizontalAdvance(text), grown(8),
                              painter.fontMetrics().horizontalAdvance(text) + 12, grown(17));
            painter.setPen(QPen(t.warn, 1.4));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(badge);
            painter.drawText(badge, Qt::AlignCenter, text);
        }
    }
    if (hasFocus()) {
        painter.setPen(QPen(t.accent, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(placeOf(m_current).adjusted(2, 2, -2, -5));
    }
}

void StageStrip::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < stageCount; ++i)
        if (placeOf(static_cast<Stage>(i)).contains(event->position().toPoint()))
            emit chosen(static_cast<Stage>(i));
}

void StageStrip::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    const int to = static_cast<int>(m_current) + step;
    if (step && to >= 0 && to < stageCount)
        emit chosen(static_cast<Stage>(to));
    else
        QWidget::keyPressEvent(event);
}

} // namespace anvil::app
