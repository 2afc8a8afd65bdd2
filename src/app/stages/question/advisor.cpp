#include "stages/question/advisor.h"

#include "theme/theme.h"
#include "widgets/kept_together.h"
#include "widgets/plain_text.h"
#include <QAbstractButton>
#include <QPainter>
#include <QVBoxLayout>
#include <anvil/plan/pieces.h>
#include <anvil/plan/replication.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

/// A line of the advisor: its sign, what it is about, and what there is to say, on as many lines as that
/// takes.
class AdviceButton : public QAbstractButton {
public:
    explicit AdviceButton(const QString& title) {
        setText(title);
        setFocusPolicy(Qt::StrongFocus);
        setCursor(Qt::PointingHandCursor);
        auto policy = QSizePolicy(QSizePolicy::Expanding, QSizePolicy::Minimum);
        policy.setHeightForWidth(true);
        setSizePolicy(policy);
    }
    void show(plan::Sign sign, const QString& sentence) {
        m_sign = sign;
        m_sentence = keptTogether(sentence);
        setAccessibleName(text());
        setAccessibleDescription(sentence);
        setTip(this, sentence);
        updateGeometry();
        update();
    }
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override { return grown(24) + sentenceRect(width).height() + 6; }
    QSize sizeHint() const override { return {grown(240), heightForWidth(grown(240))}; }
    QSize minimumSizeHint() const override { return {grown(120), grown(46)}; }

protected:
    void enterEvent(QEnterEvent*) override { update(); }
    void leaveEvent(QEvent*) override { update(); }
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        const auto& t = theme();
        if (underMouse() || hasFocus()) {
            painter.setPen(QPen(t.accent, hasFocus() ? 2 : 1));
            painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 3, 3);
        }
        paintSign(painter);
        auto f = font();
        f.setBold(true);
        painter.setFont(f);
        painter.setPen(t.text);
        painter.drawText(QRect(left, 4, width() - left - 20, grown(20)), Qt::AlignVCenter, text());
        painter.setFont(font());
        painter.setPen(t.faint);
        painter.drawText(QRect(width() - 18, 4, 12, grown(20)), Qt::AlignVCenter, QStringLiteral("\u203a"));
        painter.setPen(m_sign == plan::Sign::look ? t.text : t.faint);
        painter.drawText(sentenceRect(width()).translated(left, grown(24)), Qt::TextWordWrap, m_sentence);
    }

private:
    static constexpr int left = 30;
    QRect sentenceRect(int width) const {
        return fontMetrics().boundingRect(QRect(0, 0, width - left - 8, 1000), Qt::TextWordWrap, m_sentence);
    }
    /// A tick, a triangle with a bar, or a small ring: told apart without colour.
    void paintSign(QPainter& painter) const {
        const auto& t = theme();
        const QPointF c(15, 14);
        painter.setBrush(Qt::NoBrush);
        switch (m_sign) {
        case plan::Sign::fine:
            painter.setPen(QPen(t.text, 2));
            painter.drawPolyline(QPolygonF{c + QPointF(-6, 0), c + QPointF(-2, 5), c + QPointF(6, -5)});
            break;
        case plan::Sign::look:
            painter.setPen(QPen(t.warn, 1.8));
            painter.drawPolygon(QPolygonF{c + QPointF(0, -7), c + QPointF(7, 6), c + QPointF(-7, 6)});
            painter.drawLine(c + QPointF(0, -2), c + QPointF(0, 2));
            break;
        case plan::Sign::open:
            painter.setPen(QPen(t.faint, 1.6));
            painter.drawEllipse(c, 4, 4);
            break;
        }
    }
    plan::Sign m_sign = plan::Sign::open;
    QString m_sentence;
};

Advisor::Advisor(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(2);
    for (int i = 0; i < plan::adviceCount; ++i) {
        const auto about = static_cast<plan::Advice>(i);
        auto* line = new AdviceButton(qs(plan::title(about)));
        connect(line, &QAbstractButton::clicked, this, [this, about] { emit opened(about); });
        layout->addWidget(line);
        m_lines[static_cast<std::size_t>(i)] = line;
    }
    layout->addSpacing(8);
    layout->addWidget(m_totals = wrappedLabel("totals"));
    layout->addStretch();
    follow();
}

void Advisor::fill() {
    const auto* data = m_session.study();
    const domain::StudyData none;
    const auto& study = data ? *data : none;
    const double cv = data ? m_session.project()->expectedSpread(data->study.id).cv : plan::defaultCv({});
    for (const auto& line :
         plan::advise(study, m_session.readings(), m_session.verdict(study.study.goal.metric), cv))
        m_lines[static_cast<std::size_t>(line.about)]->show(line.sign, qs(line.sentence));
    const auto t = plan::totals(study);
    QStringList parts;
    if (t.replicates) parts << tr("%1 pieces in %2 squares").arg(t.replicates).arg(t.squares);
    if (t.pulling > 0) parts << tr("%1 of pulling").arg(qs(plan::stretch(t.pulling)));
    if (t.preparation > 0) parts << tr("%1 of preparation").arg(qs(plan::stretch(t.preparation)));
    if (t.cost) parts << tr("%1 %2").arg(qs(quantity::fixed(*t.cost, 2)), qs(t.currency));
    if (t.pulled) parts << tr("%1 pulled").arg(t.pulled);
    m_totals->setText(parts.join(QStringLiteral(", ")));
}

} // namespace anvil::app
