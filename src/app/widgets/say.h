// A widget has something to say that belongs into the window's own line, whatever window that is.
#pragma once

#include <QEvent>
#include <QString>

class QWidget;

namespace anvil::app {

class SayEvent : public QEvent {
public:
    static QEvent::Type kind();
    SayEvent(QString text, bool problem) : QEvent(kind()), m_text(std::move(text)), m_problem(problem) {}
    const QString& text() const { return m_text; }
    bool problem() const { return m_problem; }

private:
    QString m_text;
    bool m_problem;
};

/// Says it in the window that the widget stands in.
void say(QWidget* from, const QString& text, bool problem = false);

} // namespace anvil::app
