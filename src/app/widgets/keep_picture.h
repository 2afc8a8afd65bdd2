// Pictures and tables leave the window: copied, or saved as files; from a menu of their own and by key.
#pragma once

#include <QString>
#include <anvil/chart/picture.h>
#include <anvil/quantity/error.h>
#include <functional>
#include <string>
#include <vector>

class QTableWidget;
class QWidget;

namespace anvil::app {

/// Draws the picture at a width, px; 0: as it is on show.
using Drawing = std::function<chart::Picture(double width)>;

/// How a picture is saved.
enum class PictureForm { svg, png, tall }; ///< tall: for a phone held upright

/// Writes a picture as it is on show, on light ground whatever the window's appearance; a tall one is drawn
/// anew at the width of a phone. Error: why the file cannot be written.
Expected<void> writePicture(const Drawing& drawing, PictureForm form, const QString& path);
/// Puts it on the clipboard: as an image, and as SVG for programs that take it.
void copyPicture(const Drawing& drawing);

/// What a table shows, its heads first; hidden columns and rows are left out.
std::vector<std::vector<std::string>> cellsOf(const QTableWidget& table);
/// Writes that as CSV. Error: why the file cannot be written.
Expected<void> writeTable(const QTableWidget& table, const QString& path);

/// Gives a widget that shows a picture its menu and keys: Ctrl+C copies, Ctrl+E saves. What happened is said
/// in the window.
void givePictureMenu(QWidget* widget, Drawing drawing);
/// The same for a table: what is selected, or all of it, is copied.
void giveTableMenu(QTableWidget* table);

} // namespace anvil::app
