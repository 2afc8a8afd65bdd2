// Shows a picture on any Qt paint device: window, PDF page or image.
#pragma once

#include <anvil/chart/picture.h>

class QColor;
class QPainter;

namespace anvil::chart {

/// Loads the fonts that ship with the program; call once after the application object exists.
void loadFonts();

QColor color(const Palette& palette, Ink ink);

/// Paints the picture with its top left corner at the painter's origin, one unit a device-independent pixel.
void paint(QPainter& painter, const Picture& picture, const Palette& palette, bool background = true);

} // namespace anvil::chart
