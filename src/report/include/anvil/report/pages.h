// A document laid out on A4 pages, painted by the same code in the window, on paper and into a PDF.
#pragma once

#include <QRectF>
#include <anvil/quantity/error.h>
#include <anvil/report/document.h>
#include <functional>
#include <memory>

class QPainter;

namespace anvil::report {

/// One thing on a page, in CSS pixels (1/96 in).
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

struct Page {
    std::vector<Placed> items;
};

inline constexpr double pageWidth = 794, pageHeight = 1123; ///< A4 at 96 per inch

/// Breaks the document into pages. Needs a QGuiApplication for its fonts.
std::vector<Page> paginate(const Document& document);

/// Paints a page with its top left corner at the origin, 1 unit = 1/96 in.
void paintPage(QPainter& painter, const Page& page);

/// Writes an A4 PDF of so many pages; `paint` gets a painter in units of 1/96 in. Error: the file cannot be
/// written.
Expected<void> writePages(const QString& path, const QString& title, std::size_t pages,
                          const std::function<void(QPainter&, std::size_t)>& paint);

/// Writes a PDF with text as text and charts as lines. Error: the file cannot be written.
Expected<void> writePdf(const Document& document, const QString& path);

} // namespace anvil::report
