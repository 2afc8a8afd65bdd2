#include <anvil/report/pages.h>

#include <QFontMetricsF>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QSaveFile>
#include <anvil/chart/painter.h>

namespace anvil::report {
namespace {

constexpr double margin = 52, contentWidth = pageWidth - 2 * margin, contentBottom = pageHeight - 60;

QFont font(double size, bool bold) {
    QFont f(QStringLiteral("Anvil Sans"));
    f.setPixelSize(qRound(size));
    f.setBold(bold);
    f.setHintingPreference(QFont::PreferNoHinting); // the same breaks on screen and on paper
    return f;
}

double heightOf(const QString& text, double size, bool bold, double width) {
    return QFontMetricsF(font(size, bold))
        .boundingRect(QRectF(0, 0, width, 1e6), Qt::TextWordWrap, text)
        .height();
}

double widthOf(const QString& text, double size, bool bold) {
    return QFontMetricsF(font(size, bold)).horizontalAdvance(text);
}

class Layouter {
public:
    std::vector<Page> pages{1};

    void operator()(const Heading& h) {
        const double size = h.level == 1 ? 26 : h.level == 2 ? 18 : 14;
        const double height = heightOf(h.text, size, true, contentWidth);
        m_y += m_y > margin ? (h.level == 2 ? 18 : 8) : 0;
        room(height + 150); // a heading does not stand alone at the foot
        put(h.text, margin, contentWidth, height, size, true);
        m_y += height + 6;
    }
    void operator()(const Paragraph& p) {
        const double size = p.style == Paragraph::Style::lead    ? 15
                            : p.style == Paragraph::Style::small ? 11
                                                                 : 12;
        const double indent = p.style == Paragraph::Style::caution ? 14 : 0;
        const double height = heightOf(p.text, size, false, contentWidth - indent);
        room(height);
        auto& item = put(p.text, margin + indent, contentWidth - indent, height, size, false);
        item.faint = p.style == Paragraph::Style::small;
        item.caution = indent > 0;
        m_y += height + 8;
    }
    void operator()(const Bullets& b) {
        for (const auto& text : b.items) {
            const double height = heightOf(text, 12, false, contentWidth - 16);
            room(height);
            put(QStringLiteral("•"), margin + 2, 12, height, 12, false);
            put(text, margin + 16, contentWidth - 16, height, 12, false);
            m_y += height + 4;
        }
        m_y += 4;
    }
    void operator()(const Table& t) {
        constexpr double size = 10, pad = 5;
        const auto columns = static_cast<std::size_t>(t.header.size());
        std::vector<double> widths(columns, 0);
        double total = 0;
        for (std::size_t i = 0; i < columns; ++i) {
            const auto c = static_cast<qsizetype>(i);
            widths[i] = widthOf(t.header[c], size, true);
            for (const auto& row : t.rows)
                widths[i] = std::max(widths[i], widthOf(row[c], size, false));
            widths[i] += 2 * pad + 1;
            total += widths[i];
        }
        while (total > contentWidth + 0.5) { // the widest gives way; its text wraps
            auto widest = std::max_element(widths.begin(), widths.end());
            const double cut = std::min(total - contentWidth, std::max(4.0, *widest * 0.05));
            *widest -= cut;
            total -= cut;
        }
        if (columns > 0 && total < contentWidth) widths.back() += contentWidth - total;
        const auto rowHeight = [&](const QStringList& row, bool bold) {
            double h = 0;
            for (std::size_t i = 0; i < columns; ++i)
                h = std::max(h, heightOf(row[static_cast<qsizetype>(i)], size, bold, widths[i] - 2 * pad));
            return h + 6;
        };
        const auto putRow = [&](const QStringList& row, bool bold) {
            const double height = rowHeight(row, bold);
            double x = margin;
            for (std::size_t i = 0; i < columns; ++i) {
                Placed cell;
                cell.rect = QRectF(x + pad, m_y + 3, widths[i] - 2 * pad, height - 3);
                cell.text = row[static_cast<qsizetype>(i)];
                cell.size = size;
                cell.bold = bold;
                cell.right = t.right[i];
                pages.back().items.push_back(cell);
                x += widths[i];
            }
            m_y += height;
            Placed line;
            line.rect = QRectF(margin, m_y, contentWidth, 1);
            line.rule = true;
            pages.back().items.push_back(line);
        };
        room(rowHeight(t.header, true) + 30);
        putRow(t.header, true);
        for (const auto& row : t.rows) {
            if (m_y + rowHeight(row, false) > contentBottom) {
                newPage();
                putRow(t.header, true);
            }
            putRow(row, false);
        }
        m_y += 12;
    }
    void operator()(const Figure& f) {
        const double scale = std::min(1.0, contentWidth / f.picture.width);
        const double height = f.picture.height * scale;
        const double caption = heightOf(f.caption, 11, false, contentWidth);
        room(height + caption + 4);
        Placed item;
        item.rect = QRectF(margin, m_y, f.picture.width * scale, height);
        item.picture = std::make_shared<chart::Picture>(f.picture);
        item.scale = scale;
        pages.back().items.push_back(item);
        m_y += height + 4;
        put(f.caption, margin, contentWidth, caption, 11, false).faint = true;
        m_y += caption + 14;
    }
    void finish() {
        for (std::size_t i = 0; i < pages.size(); ++i) {
            Placed foot;
            foot.rect = QRectF(margin, pageHeight - 42, contentWidth, 16);
            foot.text = QStringLiteral("Page %1 of %2").arg(i + 1).arg(pages.size());
            foot.size = 10;
            foot.right = foot.faint = true;
            pages[i].items.push_back(foot);
        }
    }

private:
    void newPage() {
        pages.emplace_back();
        m_y = margin;
    }
    void room(double height) {
        if (m_y + height > contentBottom && m_y > margin) newPage();
    }
    Placed& put(const QString& text, double x, double width, double height, double size, bool bold) {
        Placed item;
        item.rect = QRectF(x, m_y, width, height + 2);
        item.text = text;
        item.size = size;
        item.bold = bold;
        pages.back().items.push_back(item);
        return pages.back().items.back();
    }
    double m_y = margin;
};

} // namespace

std::vector<Page> paginate(const Document& document) {
    Layouter layouter;
    for (const auto& block : document.blocks)
        std::visit(layouter, block);
    layouter.finish();
    return std::move(layouter.pages);
}

void paintPage(QPainter& painter, const Page& page) {
    const auto& palette = chart::lightPalette(); // paper is white, whatever the window is
    for (const auto& item : page.items) {
        if (item.picture) {
            painter.save();
            painter.translate(item.rect.topLeft());
            painter.scale(item.scale, item.scale);
            chart::paint(painter, *item.picture, palette, false);
            painter.restore();
        } else if (item.rule) {
            painter.setPen(QPen(chart::color(palette, chart::Ink::grid), 0.8));
            painter.drawLine(item.rect.topLeft(), item.rect.topRight());
        } else {
            if (item.caution)
                painter.fillRect(QRectF(item.rect.left() - 12, item.rect.top(), 3, item.rect.height()),
                                 chart::color(palette, chart::Ink::warn));
            painter.setFont(font(item.size, item.bold));
            painter.setPen(chart::color(palette, item.faint ? chart::Ink::faint : chart::Ink::text));
            painter.drawText(
                item.rect, static_cast<int>(Qt::TextWordWrap) | (item.right ? Qt::AlignRight : Qt::AlignLeft),
                item.text);
        }
    }
}

Expected<void> writePages(const QString& path, const QString& title, std::size_t pages,
                          const std::function<void(QPainter&, std::size_t)>& paint) {
    QSaveFile file(path);
    const auto refuse = [&] {
        return fail(QStringLiteral("%1 cannot be written: %2.").arg(path, file.errorString()).toStdString());
    };
    if (!file.open(QIODevice::WriteOnly)) return refuse();
    {
        constexpr int resolution = 1200;
        QPdfWriter writer(&file);
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(QMarginsF(0, 0, 0, 0));
        writer.setResolution(resolution);
        writer.setTitle(title);
        writer.setCreator(QStringLiteral("Jaunty Anvil"));
        QPainter painter(&writer);
        for (std::size_t i = 0; i < pages; ++i) {
            if (i > 0) writer.newPage();
            painter.save();
            painter.scale(resolution / 96.0, resolution / 96.0);
            paint(painter, i);
            painter.restore();
        }
    }
    if (!file.commit()) return refuse();
    return {};
}

Expected<void> writePdf(const Document& document, const QString& path) {
    const auto pages = paginate(document);
    return writePages(path, document.title, pages.size(),
                      [&](QPainter& painter, std::size_t i) { paintPage(painter, pages[i]); });
}

} // namespace anvil::report
