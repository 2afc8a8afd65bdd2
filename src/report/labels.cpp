#include <anvil/report/labels.h>

#include <QFont>
#include <QFontMetricsF>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QSaveFile>
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
    QSaveFile file(path);
    if (!file.open(QIODevice::WriteOnly))
        return fail(QStringLiteral("%1 cannot be written: %2.").arg(path, file.errorString()).toStdString());
    {
        QPdfWriter writer(&file);
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(QMarginsF(0, 0, 0, 0));
        writer.setResolution(1200);
        writer.setCreator(QStringLiteral("Jaunty Anvil"));
        QPainter painter(&writer);
        painter.scale(1200.0 / 96, 1200.0 / 96);
        constexpr int across = 3, down = 8;
        const double width = pageWidth / across, height = pageHeight / down;
        for (std::size_t i = 0; i < labels.size(); ++i) {
            const auto place = static_cast<int>(i % (across * down));
            if (i > 0 && place == 0) writer.newPage();
            const auto& l = labels[i];
            painter.save();
            painter.translate((place % across) * width + 18, (place / across) * height + 14);
            QFont font(QStringLiteral("Anvil Sans"));
            const auto line = [&](double y, const QString& text, int size, bool bold) {
                font.setPixelSize(size);
                font.setBold(bold);
                painter.setFont(font);
                painter.setPen(Qt::black);
                painter.drawText(QPointF(0, y),
                                 QFontMetricsF(font, &writer).elidedText(text, Qt::ElideRight, width - 30));
            };
            line(26, l.label, 26, true);
            line(46, l.line1, 12, false);
            line(62, l.line2, 12, false);
            const auto code = barCode(l.label, width - 60, 40);
            if (!code) return tl::unexpected(code.error());
            painter.translate(0, 72);
            chart::paint(painter, *code, chart::lightPalette(), false);
            painter.restore();
        }
    }
    if (!file.commit())
        return fail(QStringLiteral("%1 cannot be written: %2.").arg(path, file.errorString()).toStdString());
    return {};
}

} // namespace anvil::report
