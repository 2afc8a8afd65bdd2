#include <anvil/report/pages.h>

#include <QFontMetricsF>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QSaveFile>
#include <QTextLayout>
#include <anvil/chart/painter.h>
#include <utility>

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

/// A text broken into lines of a width, also within words that are wider: where each begins, and the end.
/// Layout and painting both ask here, so that nothing is laid out that is not painted.
std::vector<qsizetype> lineStarts(const QString& text, double size, bool bold, double width) {
    QTextLayout layout(QString(text).replace('\n', QChar::LineSeparator), font(size, bold));
    QTextOption option;
    option.setWrapMode(QTextOption::WrapAtWordBoundaryOrAnywhere);
    layout.setTextOption(option);
    std::vector<qsizetype> starts;
    layout.beginLayout();
    for (auto line = layout.createLine(); line.isValid(); line = layout.createLine()) {
        line.setLineWidth(width);
        starts.push_back(line.textStart());
    }
    layout.endLayout();
    if (starts.empty()) starts.push_back(0);
    starts.push_back(text.size());
    return starts;
}

double lineHeight(double size, bool bold) { return QFontMetricsF(font(size, bold)).lineSpacing(); }

double heightOf(const QString& text, double size, bool bold, double width) {
    return static_cast<double>(lineStarts(text, size, bold, width).size() - 1) * lineHeight(size, bold);
}

/// How much of a text fits into a height: a number of characters that ends with a line.
qsizetype fitting(const QString& text, double size, bool bold, double width, double height) {
    const auto starts = lineStarts(text, size, bold, width);
    const auto lines = static_cast<std::size_t>(std::max(0.0, height / lineHeight(size, bold)));
    return starts[std::min(lines, starts.size() - 1)];
}

double widthOf(const QString& text, double size, bool bold) {
    return QFontMetricsF(font(size, bold)).horizontalAdvance(text);
}

class Layouter {
public:
    std::vector<Page> pages{1};

    void operator()(const Heading& h) {
        const double size = h.level == 1 ? 26 : h.level == 2 ? 18 : 14;
        m_y += m_y > margin ? (h.level == 2 ? 18 : 8) : 0;
        room(heightOf(h.text, size, true, contentWidth) + 150); // a heading does not stand alone at the foot
        flow(h.text, margin, contentWidth, size, true, [](Placed&) {});
        m_y += 6;
    }
    void operator()(const Paragraph& p) {
        const double size = p.style == Paragraph::Style::lead    ? 15
                            : p.style == Paragraph::Style::small ? 11
                                                                 : 12;
        const double indent = p.style == Paragraph::Style::caution ? 14 : 0;
        flow(p.text, margin + indent, contentWidth - indent, size, false, [&](Placed& item) {
            item.faint = p.style == Paragraph::Style::small;
            item.caution = indent > 0;
        });
        m_y += 8;
    }
    void operator()(const Bullets& b) {
        for (const auto& text : b.items) {
            bool first = true;
            flow(text, margin + 16, contentWidth - 16, 12, false, [&](Placed& item) {
                if (!std::exchange(first, false)) return;
                auto dot = item;
                dot.rect.setRect(margin + 2, item.rect.top(), 12, item.rect.height());
                dot.text = QStringLiteral("•");
                pages.back().items.push_back(dot);
            });
            m_y += 4;
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
        const auto putRow = [&](const QStringList& row, bool bold, double height) {
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
        const auto& head = t.header;
        const double headHeight = std::min(rowHeight(head, true), pageHeight / 4);
        const auto another = [&] {
            newPage();
            putRow(head, true, headHeight);
        };
        room(headHeight + 30);
        putRow(head, true, headHeight);
        for (const auto& r : t.rows) {
            auto row = r;
            double height = rowHeight(row, false);
            if (m_y + height > contentBottom && m_y > margin + headHeight + 1) another();
            while (m_y + height > contentBottom) { // taller than a page: it flows on
                QStringList part;
                for (std::size_t i = 0; i < columns; ++i) {
                    auto& cell = row[static_cast<qsizetype>(i)];
                    const auto n = fitting(cell, size, false, widths[i] - 2 * pad, contentBottom - m_y - 6);
                    part << cell.left(n);
                    cell = cell.mid(n);
                }
                putRow(part, false, contentBottom - m_y);
                another();
                height = rowHeight(row, false);
            }
            putRow(row, false, height);
        }
        m_y += 12;
    }
    void operator()(const Figure& f) {
        const double caption = std::min(heightOf(f.caption, 11, false, contentWidth), pageHeight / 4);
        const double scale = std::min(
            {1.0, contentWidth / f.picture.width, (contentBottom - margin - caption - 4) / f.picture.height});
        const double height = f.picture.height * scale;
        room(height + caption + 4);
        Placed item;
        item.rect = QRectF(margin, m_y, f.picture.width * scale, height);
        item.picture = std::make_shared<chart::Picture>(f.picture);
        item.scale = scale;
        pages.back().items.push_back(item);
        m_y += height + 4;
        flow(f.caption, margin, contentWidth, 11, false, [](Placed& item) { item.faint = true; });
        m_y += 14;
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
    /// Text that goes on over as many pages as it takes; `dress` sees each part of it.
    template <class Dress>
    void flow(const QString& whole, double x, double width, double size, bool bold, Dress dress) {
        auto text = whole;
        const double line = lineHeight(size, bold);
        // What fits on one page is not torn apart, unless it is long.
        const double all = heightOf(text, size, bold, width);
        if (all < pageHeight / 4) room(all);
        do {
            if (m_y + line > contentBottom) newPage();
            const auto n = std::max<qsizetype>(1, fitting(text, size, bold, width, contentBottom - m_y));
            const auto part = text.left(n);
            const double height = heightOf(part, size, bold, width);
            dress(put(part, x, width, height, size, bold));
            m_y += height;
            text = text.mid(n);
        } while (!text.isEmpty());
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
            const QFontMetricsF metrics(font(item.size, item.bold));
            const auto starts = lineStarts(item.text, item.size, item.bold, item.rect.width());
            double y = item.rect.top() + metrics.ascent();
            for (std::size_t k = 0; k + 1 < starts.size(); ++k, y += metrics.lineSpacing()) {
                auto line = item.text.mid(starts[k], starts[k + 1] - starts[k]);
                while (!line.isEmpty() && line.back().isSpace())
                    line.chop(1);
                const double x =
                    item.right ? item.rect.right() - metrics.horizontalAdvance(line) : item.rect.left();
                painter.drawText(QPointF(x, y), line);
            }
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
