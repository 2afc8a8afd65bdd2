#include <anvil/report/labels.h>

#include <QFont>
#include <QFontMetricsF>
#include <QPainter>
#include <anvil/chart/painter.h>
#include <anvil/report/pages.h>
#include <zint.h>

namespace anvil::report {

Expected<chart::Picture> barCode(const QString& text, double width, double height) {
    const std::unique_ptr<zint_symbol, decltype(&ZBarcode_Delete)> symbol(ZBarcode_Create(), ZBarcode_Delete);
    symbol->symbology = BARCODE_CODE128;
    symbol->input_mode = UNICODE_MODE;
    symbol->show_hrt = 0;
    const auto bytes = text.toUtf8();
    if (bytes.isEmpty() || ZBarcode_Encode_and_Buffer_Vector(
                               symbol.get(), reinterpret_cast<const unsigned char*>(bytes.constData()),
                               static_cast<int>(bytes.size()), 0) >= ZINT_ERROR)
        return fail("\"" + text.toStdString() + "\" cannot be written as a bar code.");
    chart::Picture p;
    p.width = width;
    p.height = height;
    const double scale = width / static_cast<double>(symbol->vector->width);
    for (const auto* r = symbol->vector->rectangles; r; r = r->next) {
        const double x0 = static_cast<double>(r->x) * scale,
                     x1 = static_cast<double>(r->x + r->width) * scale;
        p.add(chart::Area{{{x0, 0}, {x1, 0}, {x1, height}, {x0, height}}, chart::Ink::text, 1});
    }
    return p;
}

Expected<void> writeLabels(const std::vector<PieceLabel>& labels, const QString& path) {
    if (labels.empty()) return fail("There is no piece to label: make the pieces first.");
    constexpr std::size_t across = 3, down = 8, each = across * down;
    constexpr double width = pageWidth / across, height = pageHeight / down;
    std::vector<chart::Picture> codes;
    for (const auto& l : labels) {
        auto code = barCode(l.label, width - 60, 40);
        if (!code) return tl::unexpected(code.error());
        codes.push_back(std::move(*code));
    }
    return writePages(
        path, QStringLiteral("Labels"), (labels.size() + each - 1) / each,
        [&](QPainter& painter, std::size_t page) {
            for (std::size_t i = page * each; i < std::min(labels.size(), (page + 1) * each); ++i) {
                const auto& l = labels[i];
                const std::size_t place = i % each, row = place / across, column = place % across;
                painter.save();
                painter.translate(static_cast<double>(column) * width + 18,
                                  static_cast<double>(row) * height + 14);
                QFont font(QStringLiteral("Anvil Sans"));
                const auto line = [&](double y, const QString& text, int size, bool bold) {
                    font.setPixelSize(size);
                    font.setBold(bold);
                    painter.setFont(font);
                    painter.setPen(Qt::black);
                    painter.drawText(
                        QPointF(0, y),
                        QFontMetricsF(font, painter.device()).elidedText(text, Qt::ElideRight, width - 30));
                };
                line(26, l.label, 26, true);
                line(46, l.line1, 12, false);
                line(62, l.line2, 12, false);
                painter.translate(0, 72);
                chart::paint(painter, codes[i], chart::lightPalette(), false);
                painter.restore();
            }
        });
}

} // namespace anvil::report
