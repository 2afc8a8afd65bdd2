// A page laid out on sheets of A4, painted by the same code in the window, on paper and into a PDF.
#pragma once

#include <QRectF>
#include <QString>
#include <anvil/pages/block.h>
#include <anvil/quantity/error.h>
#include <functional>
#include <memory>

class QPainter;

namespace anvil::pages {

/// One thing on a sheet, in CSS pixels (1/96 in).
struct Placed {
    QRectF rect;
    QString text;
    double size = 12;
    bool bold = false, right = false, faint = false;
    bool rule = false;    ///< a thin line along the rect's top
    bool caution = false; ///< a bar at the left
    std::shared_ptr<const chart::Picture> picture;
    double scale = 1;
};

/// One sheet of paper.
struct Sheet {
    std::vector<Placed> items;
};

inline constexpr double sheetWidth = 794, sheetHeight = 1123; ///< A4 at 96 per inch

/// Breaks a page into sheets. Needs a QGuiApplication for its fonts.
std::vector<Sheet> paginate(const Page& page);

/// Paints a sheet with its top left corner at the origin, 1 unit = 1/96 in.
void paintSheet(QPainter& painter, const Sheet& sheet);

/// Writes an A4 PDF of so many sheets; `paint` gets a painter in units of 1/96 in. Error: the file cannot be
/// written.
Expected<void> writeSheets(const QString& path, const QString& title, std::size_t sheets,
                           const std::function<void(QPainter&, std::size_t)>& paint);

/// Writes a PDF with text as text and charts as lines. Error: the file cannot be written.
Expected<void> writePdf(const Page& page, const QString& path);

} // namespace anvil::pages
