#include "widgets/seen_line.h"

#include "theme/theme.h"
#include <QPainter>
#include <anvil/chart/painter.h>

namespace anvil::app {
namespace {

constexpr int gap = 10, textSize = 13, meaningSize = 11;

int lineHeight() { return grown(20); }

QString meaningOf(const rig::LineColumn& column) {
    switch (column.role) {
    case rig::Role::time:
        return SeenLine::tr("time");
    case rig::Role::load:
        return SeenLine::tr("force");
    case rig::Role::travel:
        return SeenLine::tr("travel");
    case rig::Role::other:
        return SeenLine::tr("reading");
    case rig::Role::none:
        break;
    }
    return SeenLine::tr("not wanted");
}

chart::Ink inkOf(columns::LinePart::Kind kind) {
    using Kind = columns::LinePart::Kind;
    return kind == Kind::number  ? chart::Ink::series0
           : kind == Kind::unit  ? chart::Ink::series1
           : kind == Kind::label ? chart::Ink::series2
                                 : chart::Ink::faint;
}

} // namespace

SeenLine::SeenLine(QWidget* parent) : QWidget(parent) {
    setObjectName("seenLine");
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void SeenLine::show(const QString& line, const rig::Layout& layout) {
    using Kind = columns::LinePart::Kind;
    const auto bytes = line.toStdString();
    std::vector<Piece> pieces;
    for (const auto& p : columns::partsOf(bytes, layout.decimal)) {
        Piece piece{QString::fromStdString(bytes.substr(p.from, p.to - p.from)).trimmed(), {}, p.kind};
        const auto column = static_cast<std::size_t>(p.column);
        switch (p.kind) {
        case Kind::label:
            piece.meaning = tr("label");
            break;
        case Kind::number:
            piece.meaning =
                column < layout.columns.size() ? meaningOf(layout.columns[column]) : tr("not wanted");
            break;
        case Kind::unit:
            piece.meaning = tr("unit");
            break;
        case Kind::status:
            piece.meaning = columns::saysOverload(piece.text.toStdString()) ? tr("overload") : tr("status");
            break;
        case Kind::clock:
            piece.meaning = tr("when");
            break;
        case Kind::other:
            break;
        }
        if (!piece.text.isEmpty()) pieces.push_back(std::move(piece));
    }
    m_pieces = std::move(pieces);
    setVisible(!m_pieces.empty());
    setAccessibleName(text());
    update();
}

QString SeenLine::text() const {
    QStringList out;
    for (const auto& p : m_pieces)
        out << p.text + " = " + p.meaning;
    return out.join(" | ");
}

QSize SeenLine::sizeHint() const { return {200, 2 * lineHeight() + 6}; }

void SeenLine::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto palette = theme().charts();
    int x = 2;
    for (const auto& p : m_pieces) {
        painter.setFont(figures(textSize));
        const int wide = painter.fontMetrics().horizontalAdvance(p.text);
        auto small = font();
        small.setPixelSize(grown(meaningSize));
        const int meaningWide = QFontMetrics(small).horizontalAdvance(p.meaning);
        const int width = std::max(wide, meaningWide);
        if (x + width > this->width()) {
            painter.setPen(chart::color(palette, chart::Ink::text));
            painter.drawText(x, 0, this->width() - x, lineHeight(), Qt::AlignVCenter,
                             QStringLiteral("\u2026"));
            return;
        }
        const auto ink = chart::color(palette, inkOf(p.kind));
        painter.setPen(chart::color(palette, chart::Ink::text));
        painter.drawText(x, 0, width, lineHeight(), Qt::AlignCenter, p.text);
        painter.fillRect(x, lineHeight(), width, 3, ink);
        painter.setFont(small);
        painter.drawText(x, lineHeight() + 3, width, lineHeight(), Qt::AlignCenter, p.meaning);
        x += width + gap;
    }
}

} // namespace anvil::app
