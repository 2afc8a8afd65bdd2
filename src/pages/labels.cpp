#include <anvil/pages/labels.h>

#include <QFont>
#include <QFontMetricsF>
#include <QPainter>
#include <anvil/chart/painter.h>
#include <anvil/pages/paper.h>
#include <zint.h>

namespace anvil::pages {

Expected<chart::Picture> codePicture(const QString& text, Code code, double width, double height) {
    const std::unique_ptr<zint_symbol, decltype(&ZBarcode_Delete)> symbol(ZBarcode_Create(), ZBarcode_Delete);
    symbol->symbology = code == Code::qr ? BARCODE_QRCODE : BARCODE_CODE128;
    symbol->input_mode = UNICODE_MODE;
    symbol->show_hrt = 0;
    const auto bytes = text.toUtf8();
    if (bytes.isEmpty() || ZBarcode_Encode_and_Buffer_Vector(
                               symbol.get(), reinterpret_cast<const unsigned char*>(bytes.constData()),
                               static_cast<int>(bytes.size()), 0) >= ZINT_ERROR)
        return fail("\"" + text.toStdString() + "\" cannot be written as a code for scanners.");
    chart::Picture p;
    p.width = code == Code::qr ? std::min(width, height) : width;
    p.height = code == Code::qr ? p.width : height;
    const double across = p.width / static_cast<double>(symbol->vector->width),
                 down = p.height / static_cast<double>(symbol->vector->height);
    for (const auto* r = symbol->vector->rectangles; r; r = r->next) {
        const double x0 = static_cast<double>(r->x) * across,
                     x1 = static_cast<double>(r->x + r->width) * across,
                     y0 = code == Code::qr ? static_cast<double>(r->y) * down : 0,
                     y1 = code == Code::qr ? static_cast<double>(r->y + r->height) * down : height;
        p.add(chart::Area{{{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}, chart::Ink::text, 1});
    }
    return p;
}

Expected<void> writeLabels(const std::vector<PieceLabel>& labels, const QString& path, Code code) {
    if (labels.empty()) return fail("There is no piece to label: make the pieces first.");
    constexpr std::size_t across = 3, down = 8, each = across * down;
    constexpr double width = sheetWidth / across, height = sheetHeight / down;
    std::vector<chart::Picture> codes;
    for (const auto& l : labels) {
        auto picture = codePicture(l.label, code, width - 60, code == Code::qr ? 62 : 40);
        if (!picture) return tl::unexpected(picture.error());
        codes.push_back(std::move(*picture));
    }
    return writeSheets(
        path, QStringLiteral("Labels"), (labels.size() + each - 1) / each,
        [&](QPainter& painter, std::size_t page) {
            for (std::size_t i = page * each; i < std::min(labels.size(), (page + 1) * each); ++i) {
                const auto& l = labels[i];
                const std::size_t place = i % each, row = place / across, column = place % across;
                painter.save();
                painter.translate(static_cast<double>(column) * width + 18,
                                  static_cast<double>(row) * height + 14);
                QFont font(QStringLiteral("Anvil Sans"));
                const double room = code == Code::qr ? width - 106 : width - 30; // a QR code stands beside
                const auto line = [&](double y, const QString& text, int size, bool bold) {
                    font.setPixelSize(size);
                    font.setBold(bold);
                    painter.setFont(font);
                    painter.setPen(Qt::black);
                    painter.drawText(
                        QPointF(0, y),
                        QFontMetricsF(font, painter.device()).elidedText(text, Qt::ElideRight, room));
                };
                line(26, l.label, 26, true);
                line(46, l.line1, 12, false);
                line(62, l.line2, 12, false);
                painter.translate(code == Code::qr ? QPointF(width - 100, 6) : QPointF(0, 72));
                chart::paint(painter, codes[i], chart::lightPalette(), false);
                painter.restore();
            }
        });
}

} // namespace anvil::pages
