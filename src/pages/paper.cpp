#include <anvil/pages/paper.h>

#include <QBuffer>
#include <QFontMetricsF>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QTextLayout>
#include <anvil/chart/painter.h>
#include <anvil/project/write_file.h>
#include <utility>

namespace anvil::pages {
namespace {

constexpr double margin = 52, contentWidth = sheetWidth - 2 * margin, contentBottom = sheetHeight - 60;

QString qs(const std::string& text) { return QString::fromStdString(text); }

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

constexpr double cellSize = 10, cellPad = 5;

/// How wide the columns of a table are, and how high its rows.
struct TableLayout {
    const words::Table& table;
    std::vector<double> widths;

    TableLayout(const words::Table& t, const std::vector<QStringList>& rows)
        : table(t), widths(t.columns.size(), 0) {
        double total = 0;
        for (std::size_t i = 0; i < widths.size(); ++i) {
            for (std::size_t k = 0; k < rows.size(); ++k)
                widths[i] =
                    std::max(widths[i], widthOf(rows[k][static_cast<qsizetype>(i)], cellSize, k == 0));
            widths[i] += 2 * cellPad + 1;
            total += widths[i];
        }
        while (total > contentWidth + 0.5) { // the widest gives way; its text wraps
            auto widest = std::max_element(widths.begin(), widths.end());
            const double cut = std::min(total - contentWidth, std::max(4.0, *widest * 0.05));
            *widest -= cut;
            total -= cut;
        }
        if (!widths.empty() && total < contentWidth) widths.back() += contentWidth - total;
    }
    double height(const QStringList& row, bool bold) const {
        double h = 0;
        for (std::size_t i = 0; i < widths.size(); ++i)
            h = std::max(h,
                         heightOf(row[static_cast<qsizetype>(i)], cellSize, bold, widths[i] - 2 * cellPad));
        return h + 6;
    }
};

class Layouter {
public:
    std::vector<Sheet> sheets{1};

    void operator()(const Heading& h) {
        const double size = h.level == 1 ? 26 : h.level == 2 ? 18 : 14;
        m_y += m_y > margin ? (h.level == 2 ? 18 : 8) : 0;
        room(heightOf(qs(h.text), size, true, contentWidth) +
             150); // a heading does not stand alone at the foot
        flow(qs(h.text), margin, contentWidth, size, true, [](Placed&) {});
        m_y += 6;
    }
    void operator()(const Paragraph& p) {
        const double size = p.style == Paragraph::Style::lead    ? 15
                            : p.style == Paragraph::Style::small ? 11
                                                                 : 12;
        const double indent = p.style == Paragraph::Style::caution ? 14 : 0;
        flow(qs(p.text), margin + indent, contentWidth - indent, size, false, [&](Placed& item) {
            item.faint = p.style == Paragraph::Style::small;
            item.caution = indent > 0;
        });
        m_y += 8;
    }
    void operator()(const Bullets& b) { bullets(b.items); }
    void operator()(const Choice& c) {
        if (const auto* chosen = c.chosenTitle())
            (*this)(Paragraph{Paragraph::Style::small, c.title + ": " + *chosen + "."});
    }
    void operator()(const Offers& o) {
        if (o.offers.empty())
            (*this)(Paragraph{Paragraph::Style::plain, o.none});
        else
            bullets(o.sentences());
    }
    void operator()(const Weights& w) { bullets(w.lines()); }
    void operator()(const words::Table& t) {
        std::vector<QStringList> rows{{}};
        for (const auto& c : t.columns)
            rows[0] << qs(c.title);
        for (const auto& row : t.rows) {
            rows.emplace_back();
            for (const auto& cell : row.cells)
                rows.back() << qs(cell);
        }
        const TableLayout layout(t, rows);
        const auto& head = rows[0];
        const double headHeight = std::min(layout.height(head, true), sheetHeight / 4);
        const auto another = [&] {
            newSheet();
            putRow(layout, head, true, headHeight);
        };
        room(headHeight + 30);
        putRow(layout, head, true, headHeight);
        for (std::size_t k = 1; k < rows.size(); ++k) {
            auto row = rows[k];
            double height = layout.height(row, false);
            if (m_y + height > contentBottom && m_y > margin + headHeight + 1) another();
            while (m_y + height > contentBottom) { // taller than a page: it flows on
                QStringList part;
                for (std::size_t i = 0; i < layout.widths.size(); ++i) {
                    auto& cell = row[static_cast<qsizetype>(i)];
                    const auto n = fitting(cell, cellSize, false, layout.widths[i] - 2 * cellPad,
                                           contentBottom - m_y - 6);
                    part << cell.left(n);
                    cell = cell.mid(n);
                }
                putRow(layout, part, false, contentBottom - m_y);
                another();
                height = layout.height(row, false);
            }
            putRow(layout, row, false, height);
        }
        m_y += 12;
    }
    void operator()(const Figure& f) {
        const auto picture = std::make_shared<chart::Picture>(f.draw(Figure::paperWidth, 0));
        const auto text = qs(f.caption);
        const double caption = std::min(heightOf(text, 11, false, contentWidth), sheetHeight / 4);
        const double scale = std::min(
            {1.0, contentWidth / picture->width, (contentBottom - margin - caption - 4) / picture->height});
        const double height = picture->height * scale;
        room(height + caption + 4);
        Placed item;
        item.rect = QRectF(margin, m_y, picture->width * scale, height);
        item.picture = picture;
        item.scale = scale;
        sheets.back().items.push_back(item);
        m_y += height + 4;
        flow(text, margin, contentWidth, 11, false, [](Placed& item) { item.faint = true; });
        m_y += 14;
    }
    void finish() {
        for (std::size_t i = 0; i < sheets.size(); ++i) {
            Placed foot;
            foot.rect = QRectF(margin, sheetHeight - 42, contentWidth, 16);
            foot.text = QStringLiteral("Page %1 of %2").arg(i + 1).arg(sheets.size());
            foot.size = 10;
            foot.right = foot.faint = true;
            sheets[i].items.push_back(foot);
        }
    }

private:
    void bullets(const std::vector<std::string>& items) {
        for (const auto& text : items) {
            bool first = true;
            flow(qs(text), margin + 16, contentWidth - 16, 12, false, [&](Placed& item) {
                if (!std::exchange(first, false)) return;
                auto dot = item;
                dot.rect.setRect(margin + 2, item.rect.top(), 12, item.rect.height());
                dot.text = QStringLiteral("•");
                sheets.back().items.push_back(dot);
            });
            m_y += 4;
        }
        m_y += 4;
    }
    void putRow(const TableLayout& layout, const QStringList& row, bool bold, double height) {
        double x = margin;
        for (std::size_t i = 0; i < layout.widths.size(); ++i) {
            Placed cell;
            cell.rect = QRectF(x + cellPad, m_y + 3, layout.widths[i] - 2 * cellPad, height - 3);
            cell.text = row[static_cast<qsizetype>(i)];
            cell.size = cellSize;
            cell.bold = bold;
            cell.right = layout.table.columns[i].number;
            sheets.back().items.push_back(cell);
            x += layout.widths[i];
        }
        m_y += height;
        Placed line;
        line.rect = QRectF(margin, m_y, contentWidth, 1);
        line.rule = true;
        sheets.back().items.push_back(line);
    }
    void newSheet() {
        sheets.emplace_back();
        m_y = margin;
    }
    void room(double height) {
        if (m_y + height > contentBottom && m_y > margin) newSheet();
    }
    /// Text that goes on over as many pages as it takes; `dress` sees each part of it.
    template <class Dress>
    void flow(const QString& whole, double x, double width, double size, bool bold, Dress dress) {
        auto text = whole;
        const double line = lineHeight(size, bold);
        // What fits on one page is not torn apart, unless it is long.
        const double all = heightOf(text, size, bold, width);
        if (all < sheetHeight / 4) room(all);
        do {
            if (m_y + line > contentBottom) newSheet();
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
        sheets.back().items.push_back(item);
        return sheets.back().items.back();
    }
    double m_y = margin;
};

} // namespace

std::vector<Sheet> paginate(const Page& page) {
    Layouter layouter;
    for (const auto& block : page.blocks)
        std::visit(layouter, block);
    layouter.finish();
    return std::move(layouter.sheets);
}

void paintSheet(QPainter& painter, const Sheet& sheet) {
    const auto& palette = chart::lightPalette(); // paper is white, whatever the window is
    for (const auto& item : sheet.items) {
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

Expected<void> writeSheets(const QString& path, const QString& title, std::size_t sheets,
                           const std::function<void(QPainter&, std::size_t)>& paint) {
    QBuffer pdf; // whole before a byte of it goes to the disk
    pdf.open(QIODevice::WriteOnly);
    {
        constexpr int resolution = 1200;
        QPdfWriter writer(&pdf);
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(QMarginsF(0, 0, 0, 0));
        writer.setResolution(resolution);
        writer.setTitle(title);
        writer.setCreator(QStringLiteral("Jaunty Anvil"));
        QPainter painter(&writer);
        for (std::size_t i = 0; i < sheets; ++i) {
            if (i > 0) writer.newPage();
            painter.save();
            painter.scale(resolution / 96.0, resolution / 96.0);
            paint(painter, i);
            painter.restore();
        }
    }
    return project::writeFile(path, pdf.data());
}

Expected<void> writePdf(const Page& page, const QString& path) {
    const auto sheets = paginate(page);
    return writeSheets(path, QString::fromStdString(page.title), sheets.size(),
                       [&](QPainter& painter, std::size_t i) { paintSheet(painter, sheets[i]); });
}

} // namespace anvil::pages
