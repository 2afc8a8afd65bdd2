#include "widgets/plain_text.h"

#include <QTextDocument>
#include <QToolTip>

namespace anvil::app {

QLabel* plainLabel(const QString& text, QWidget* parent) {
    auto* label = new QLabel(parent);
    label->setTextFormat(Qt::PlainText); // before the text: what is set first is looked at first
    label->setText(text);
    return label;
}

QString plainTip(const QString& text) {
    if (!Qt::mightBeRichText(text)) return text;
    return "<qt>" + text.toHtmlEscaped().replace('\n', "<br>") + "</qt>";
}

void showTip(const QPoint& at, const QString& text, QWidget* of) {
    if (text.isEmpty())
        QToolTip::hideText();
    else
        QToolTip::showText(at, plainTip(text), of);
}

} // namespace anvil::app
