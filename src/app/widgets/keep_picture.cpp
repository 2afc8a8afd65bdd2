#include "widgets/keep_picture.h"

#include "widgets/say.h"
#include <QAction>
#include <QApplication>
#include <QBuffer>
#include <QClipboard>
#include <QFileDialog>
#include <QImage>
#include <QMimeData>
#include <QPainter>
#include <QTableWidget>
#include <anvil/chart/painter.h>
#include <anvil/project/write_file.h>
#include <anvil/tables/text.h>
#include <cmath>

namespace anvil::app {
namespace {

constexpr double phoneWidth = 540, scale = 2; // 1080 px across

QImage imageOf(const chart::Picture& picture) {
    QImage image((QSizeF(picture.width, picture.height) * scale).toSize().expandedTo({1, 1}),
                 QImage::Format_ARGB32_Premultiplied);
    image.fill(chart::color(chart::lightPalette(), chart::Ink::paper));
    QPainter painter(&image);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.scale(scale, scale);
    chart::paint(painter, picture, chart::lightPalette());
    return image;
}

QByteArray svgOf(const chart::Picture& picture) {
    return QByteArray::fromStdString(chart::toSvg(picture, chart::lightPalette()));
}

/// What can be chosen in a file dialog; empty: nothing was.
QString askedPath(QWidget* widget, const QString& suffix) {
    auto name = widget->objectName().isEmpty() ? QStringLiteral("picture") : widget->objectName();
    auto path = QFileDialog::getSaveFileName(widget, QObject::tr("Save"), name + '.' + suffix,
                                             suffix.toUpper() + QStringLiteral(" (*.%1)").arg(suffix));
    if (!path.isEmpty() && !path.endsWith('.' + suffix, Qt::CaseInsensitive)) path += '.' + suffix;
    return path;
}

void tellWritten(QWidget* widget, const Expected<void>& done, const QString& path) {
    if (done)
        say(widget, QObject::tr("Saved as %1.").arg(path));
    else
        say(widget, QString::fromStdString(done.error().message), true);
}

QAction* action(QWidget* widget, const QString& text, const QKeySequence& key,
                const std::function<void()>& what) {
    auto* a = new QAction(text, widget);
    a->setShortcut(key);
    a->setShortcutContext(Qt::WidgetWithChildrenShortcut);
    QObject::connect(a, &QAction::triggered, widget, what);
    widget->addAction(a);
    return a;
}

std::string csvOf(const std::vector<std::vector<std::string>>& cells) {
    std::string out;
    for (const auto& row : cells) {
        for (std::size_t k = 0; k < row.size(); ++k)
            out += (k ? "," : "") + tables::csvField(row[k]);
        out += "\n";
    }
    return out;
}

/// The selected cells with what lies between them, else everything; for a spreadsheet, and no formula in it.
QString copied(const QTableWidget& table) {
    std::vector<std::vector<std::string>> cells;
    const auto ranges = table.selectedRanges();
    if (ranges.size() == 1 && ranges[0].rowCount() * ranges[0].columnCount() > 1) {
        for (int r = ranges[0].topRow(); r <= ranges[0].bottomRow(); ++r) {
            auto& row = cells.emplace_back();
            for (int k = ranges[0].leftColumn(); k <= ranges[0].rightColumn(); ++k)
                row.push_back(table.item(r, k) ? table.item(r, k)->text().toStdString() : std::string());
        }
    } else {
        cells = cellsOf(table);
    }
    QString out;
    for (const auto& row : cells) {
        QStringList texts;
        for (const auto& cell : row)
            texts << QString::fromStdString(tables::noFormula(cell)).simplified();
        out += texts.join('\t') + '\n';
    }
    return out;
}

} // namespace

Expected<void> writePicture(const Drawing& drawing, PictureForm form, const QString& path) {
    const auto picture = drawing(form == PictureForm::tall ? phoneWidth : 0);
    if (form == PictureForm::svg) return project::writeFile(path, svgOf(picture));
    QBuffer png;
    png.open(QIODevice::WriteOnly);
    if (!imageOf(picture).save(&png, "PNG")) return fail(path.toStdString() + " cannot be drawn.");
    return project::writeFile(path, png.data());
}

void copyPicture(const Drawing& drawing) {
    const auto picture = drawing(0);
    auto* data = new QMimeData;
    data->setImageData(imageOf(picture));
    data->setData(QStringLiteral("image/svg+xml"), svgOf(picture));
    QApplication::clipboard()->setMimeData(data);
}

std::vector<std::vector<std::string>> cellsOf(const QTableWidget& table) {
    std::vector<std::vector<std::string>> out(1);
    std::vector<int> shown;
    for (int k = 0; k < table.columnCount(); ++k) {
        if (table.isColumnHidden(k)) continue;
        shown.push_back(k);
        const auto* head = table.horizontalHeaderItem(k);
        out[0].push_back(head ? head->text().toStdString() : std::string());
    }
    for (int r = 0; r < table.rowCount(); ++r) {
        if (table.isRowHidden(r)) continue;
        auto& row = out.emplace_back();
        for (const int k : shown)
            row.push_back(table.item(r, k) ? table.item(r, k)->text().toStdString() : std::string());
    }
    return out;
}

Expected<void> writeTable(const QTableWidget& table, const QString& path) {
    return project::writeFile(path, QByteArray::fromStdString(csvOf(cellsOf(table))));
}

void givePictureMenu(QWidget* widget, Drawing drawing) {
    widget->setContextMenuPolicy(Qt::ActionsContextMenu);
    action(widget, QObject::tr("Copy the picture"), QKeySequence::Copy, [widget, drawing] {
        copyPicture(drawing);
        say(widget, QObject::tr("The picture is on the clipboard."));
    });
    const auto save = [&](const QString& text, const QKeySequence& key, PictureForm form,
                          const QString& suffix) {
        action(widget, text, key, [widget, drawing, form, suffix] {
            if (const auto path = askedPath(widget, suffix); !path.isEmpty())
                tellWritten(widget, writePicture(drawing, form, path), path);
        });
    };
    save(QObject::tr("Save as SVG…"), QKeySequence("Ctrl+E"), PictureForm::svg, "svg");
    save(QObject::tr("Save as PNG…"), QKeySequence("Ctrl+Shift+E"), PictureForm::png, "png");
    save(QObject::tr("Save as PNG for a phone…"), QKeySequence(), PictureForm::tall, "png");
}

void giveTableMenu(QTableWidget* table) {
    table->setContextMenuPolicy(Qt::ActionsContextMenu);
    action(table, QObject::tr("Copy"), QKeySequence::Copy, [table] {
        QApplication::clipboard()->setText(copied(*table));
        say(table, QObject::tr("The table is on the clipboard."));
    });
    action(table, QObject::tr("Save as CSV…"), QKeySequence("Ctrl+E"), [table] {
        if (const auto path = askedPath(table, "csv"); !path.isEmpty())
            tellWritten(table, writeTable(*table, path), path);
    });
}

} // namespace anvil::app
